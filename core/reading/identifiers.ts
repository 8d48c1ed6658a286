/** Letters and digits only, upper case. */
export const squash = (text: string): string => text.replace(/[^\p{L}\p{N}]/gu, '').toUpperCase();

export const findEmails = (text: string): string[] =>
  [...text.matchAll(/[\w.+-]{1,64}@([\w-]+(?:\.[\w-]+)+)/g)].map((m) => m[0].toLowerCase());
