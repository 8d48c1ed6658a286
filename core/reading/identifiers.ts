/** Letters and digits only, upper case. */
export const squash = (text: string): string => text.replace(signs, '').toUpperCase();
const signs = /[^\p{L}\p{N}]/gu;

export const findEmails = (text: string): string[] =>
  [...text.matchAll(/[\w.+-]{1,64}@([\w-]+(?:\.[\w-]+)+)/g)].map((m) => m[0].toLowerCase());

/** A document's number as it is compared: without spaces, in capitals; empty where it has neither letter nor digit. */
export const referenceKey = (value: string): string => squash(value) && value.replace(/\s+/g, '').toUpperCase();
