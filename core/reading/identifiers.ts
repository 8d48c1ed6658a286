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

/** How long the IBANs of each country are (SWIFT IBAN registry); what starts otherwise is none, though its check digits may hold by chance. */
const ibanLength = new Map(
  `AD24 AE23 AL28 AT20 AZ28 BA20 BE16 BG22 BH22 BR29 BY28 CH21 CR22 CY28 CZ24 DE22 DK18 DO28 EE20 EG29 ES24 FI18 FO18 FR27 GB22 GE22 GI23 GL18 GR27 GT28 HR21 HU28 IE22 IL23 IQ23 IS26 IT27 JO30 KW30 KZ20 LB28 LC32 LI21 LT20 LU20 LV21 MC27 MD24 ME22 MK19 MR27 MT31 MU30 NL18 NO15 PK24 PL28 PS29 PT25 QA29 RO24 RS22 SA24 SC31 SE24 SI19 SK24 SM27 ST25 SV28 TL23 TN24 TR26 UA29 VA22 VG24 XK20`
    .split(/\s+/)
    .map((entry) => [entry.slice(0, 2), Number(entry.slice(2))]),
);

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
const toLetter: Record<string, string> = { '0': 'O', '1': 'I', '2': 'Z', '5': 'S', '6': 'G', '7': 'Z', '8': 'B' };
const toDigit: Record<string, string> = { O: '0', Q: '0', I: '1', L: '1', Z: '2', S: '5', G: '6', B: '8' };

/** An IBAN whose letters and digits were taken for each other, put right by its country's shape; null unless its check digits then hold. */
function shaped(iban: string): string | null {
  const letters = lettered[iban.slice(0, 2)];
  if (!letters) return null;
  const plain = [...iban]
    .map((ch, i) => (i < 2 ? ch : letters.some(([from, to]) => i >= from && i < to) ? (toLetter[ch] ?? ch) : (toDigit[ch] ?? ch)))
    .join('');
  // A two or a seven in small print is taken for a question mark.
  const sound = (plain.includes('?') ? ['2', '7'].map((digit) => plain.replace('?', digit)) : [plain]).filter(
    (p) => p !== iban && isIban(p),
  );
  return sound.length === 1 ? sound[0]! : null;
}

/** Ink may have lost the case of a letter of the bank's code, set a point beside it, or made letters of the check digits; all else is as an IBAN is written. */
const ibanText = /(?<![A-Z0-9])([A-Z]{2})[\dOISZBG?]{2}\.?(?:[ \u00a0]?[A-Za-z0-9]{4}\.?)(?:[ \u00a0]?[A-Z0-9]){7,26}/g;

/** IBANs in running text, with the place where each starts and ends. Parts may be spaced. */
export function findIbans(text: string): { iban: string; index: number; length: number }[] {
  const found: { iban: string; index: number; length: number }[] = [];
  for (const match of text.matchAll(ibanText)) {
    const wanted = ibanLength.get(match[1]!);
    for (let length = match[0].length; wanted && length >= wanted; length--) {
      const iban = match[0]
        .slice(0, length)
        .replace(/[ \u00a0.]/g, '')
        .toUpperCase();
      // Words in capitals have the shape too, if their letters may be digits: an account number is mostly digits as it stands.
      if (iban.length !== wanted || iban.replace(/\D/g, '').length < wanted / 2) continue;
      const sound = isIban(iban) ? iban : shaped(iban);
      if (!sound) continue;
      found.push({ iban: sound, index: match.index, length });
      break;
    }
  }
  return found;
}

/** An account behind the word IBAN that has its country's length, though its check digits may not hold. */
export function labelledIban(text: string): string | null {
  const match = /\bIBAN\b[^A-Z0-9]{0,4}([A-Z]{2}\d{2}(?:[ \u00a0]?[A-Z0-9]{1,4}){3,8})/.exec(text);
  if (!match) return null;
  const wanted = ibanLength.get(match[1]!.slice(0, 2));
  const plain = squash(match[1]!);
  return wanted !== undefined && plain.length >= wanted ? plain.slice(0, wanted) : null;
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
  const digits = match ? squash(match[1]!) : null;
  // No country's number has thirteen digits: ink made digits of Italy's letters.
  return digits && /^17\d{11}$/.test(digits) ? `IT${digits.slice(2)}` : digits;
}

export const findEmails = (text: string): string[] =>
  [...text.matchAll(/[\w.+-]{1,64}@([\w-]+(?:\.[\w-]+)+)/g)].map((m) => m[0].toLowerCase());
