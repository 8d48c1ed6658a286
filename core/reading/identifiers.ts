/** Letters and digits only, upper case. */
export const squash = (text: string): string => text.replace(/[^\p{L}\p{N}]/gu, '').toUpperCase();

/** IBAN check (ISO 13616, modulo 97). */
export function isIban(text: string): boolean {
  const iban = squash(text);
  if (!/^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(iban)) return false;
  const digits = (iban.slice(4) + iban.slice(0, 4)).replace(/[A-Z]/g, (c) => String(c.charCodeAt(0) - 55));
  let rest = 0;
  for (const digit of digits) rest = (rest * 10 + Number(digit)) % 97;
  return rest === 1;
}

const ibanLength: Record<string, number> = {
  GB: 22,
  NL: 18,
  DE: 22,
  FR: 27,
  BE: 16,
  ES: 24,
  IT: 27,
  SE: 24,
  IE: 22,
  AT: 20,
  CH: 21,
  LU: 20,
  DK: 18,
  NO: 15,
  FI: 18,
  PL: 28,
  PT: 25,
};

/** Where an IBAN of a country has letters, after its check digits; elsewhere it has digits (SWIFT IBAN registry). */
const lettered: Record<string, [from: number, to: number][]> = {
  GB: [[4, 8]],
  NL: [[4, 8]],
  IE: [[4, 8]],
  IT: [[4, 5]],
  DE: [],
  ES: [],
  SE: [],
  BE: [],
};
const toLetter: Record<string, string> = { '0': 'O', '1': 'I', '2': 'Z', '5': 'S', '6': 'G', '8': 'B' };
const toDigit: Record<string, string> = { O: '0', Q: '0', I: '1', L: '1', Z: '2', S: '5', G: '6', B: '8' };

/** An IBAN whose letters and digits were taken for each other, put right by its country's shape; null unless its check digits then hold. */
function shaped(iban: string): string | null {
  const letters = lettered[iban.slice(0, 2)];
  if (!letters) return null;
  const plain = [...iban]
    .map((ch, i) => (i < 2 ? ch : letters.some(([from, to]) => i >= from && i < to) ? (toLetter[ch] ?? ch) : (toDigit[ch] ?? ch)))
    .join('');
  return plain !== iban && isIban(plain) ? plain : null;
}

/** IBANs in running text, with the place where each starts and ends. Parts may be spaced. */
export function findIbans(text: string): { iban: string; index: number; length: number }[] {
  const found: { iban: string; index: number; length: number }[] = [];
  for (const match of text.matchAll(/(?<![A-Z0-9])([A-Z]{2})\d{2}(?:[ \u00a0]?[A-Z0-9]){11,30}/g)) {
    const most = ibanLength[match[1]!] ?? 34;
    for (let length = match[0].length; length >= 15; length--) {
      const part = match[0].slice(0, length);
      const iban = squash(part);
      if (iban.length > most || iban.length < 15) continue;
      const sound = isIban(iban) ? iban : iban.length === most ? shaped(iban) : null;
      if (!sound) continue;
      found.push({ iban: sound, index: match.index, length });
      break;
    }
  }
  return found;
}

/** Tax number shapes by country prefix (VAT Directive formats); a number without prefix is nine digits or more. */
const prefixed = /(?<![\p{L}\p{N}])(GB|NL|DE|FR|BE|ES|IT|SE|IE|AT|LU|DK|FI|PL|PT|XI|EL)[ .-]?((?:[A-Z0-9]{1,12}[ .]?){1,5})/gu;
const bodies: Record<string, RegExp> = {
  GB: /^\d{9}(\d{3})?$/,
  XI: /^\d{9}(\d{3})?$/,
  NL: /^\d{9}B\d{2}$/,
  DE: /^\d{9}$/,
  FR: /^[A-Z0-9]{2}\d{9}$/,
  BE: /^[01]\d{9}$/,
  ES: /^[A-Z0-9]\d{7}[A-Z0-9]$/,
  IT: /^\d{11}$/,
  SE: /^\d{12}$/,
  IE: /^\d[A-Z0-9]\d{5}[A-Z]{1,2}$/,
  AT: /^U\d{8}$/,
  LU: /^\d{8}$/,
  DK: /^\d{8}$/,
  FI: /^\d{8}$/,
  PL: /^\d{10}$/,
  PT: /^\d{9}$/,
  EL: /^\d{9}$/,
};

export interface FoundTaxId {
  taxId: string;
  index: number;
  length: number;
}

/** Tax numbers with a country prefix in running text; spaces and points inside are dropped. */
export function findTaxIds(text: string): FoundTaxId[] {
  const found: FoundTaxId[] = [];
  for (const match of text.matchAll(prefixed)) {
    const body = match[2]!;
    for (let length = body.length; length > 5; length--) {
      const part = squash(body.slice(0, length));
      if (!bodies[match[1]!]!.test(part)) continue;
      found.push({ taxId: match[1]! + part, index: match.index, length: match[0].length - body.length + length });
      break;
    }
  }
  return found;
}

/** A tax number without country prefix right behind its label: at least eight digits, in groups or with a hyphen. */
export function bareTaxId(text: string): string | null {
  const match = /^\W*((?:\d[ .-]?){8,12}\d?)(?![\d])/.exec(text);
  return match ? squash(match[1]!) : null;
}

export const findEmails = (text: string): string[] =>
  [...text.matchAll(/[\w.+-]{1,64}@([\w-]+(?:\.[\w-]+)+)/g)].map((m) => m[0].toLowerCase());
