import { ValidationErrorsIBAN, getCountrySpecifications, validateIBAN } from 'ibantools';
import { squash } from './identifiers.ts';

/**
 * Whether a text is an IBAN: its country's length and shape, check digits by ISO 13616 (modulo 97). A bank's own check digits inside it
 * are not asked for: not every bank keeps them.
 */
export const isIban = (text: string): boolean =>
  validateIBAN(squash(text)).errorCodes.every((code) => code === ValidationErrorsIBAN.WrongAccountBankBranchChecksum);

/** Where an IBAN of a country has letters and where digits, after its check digits; 'c' is either. By the registry's expressions. */
function patternOf(expression: string): string {
  let pattern = '';
  for (const [, set, count] of expression.matchAll(/\[([^\]]+)\]\{(\d+)\}/g))
    pattern += (set === 'A-Z' ? 'a' : set === '0-9' ? 'n' : 'c').repeat(Number(count));
  return pattern;
}

/** How long the IBANs of each country are, and where they have letters. */
const countries = new Map(
  Object.entries(getCountrySpecifications()).flatMap(
    ([country, { chars, bban_regexp }]): [string, { length: number; pattern: string }][] =>
      chars && bban_regexp ? [[country, { length: chars, pattern: patternOf(bban_regexp) }]] : [],
  ),
);
const lengthOf = (country: string): number | undefined => countries.get(country)?.length;

const toLetter: Record<string, string> = { '0': 'O', '1': 'I', '2': 'Z', '5': 'S', '6': 'G', '7': 'Z', '8': 'B' };
const toDigit: Record<string, string> = { O: '0', Q: '0', I: '1', L: '1', Z: '2', S: '5', G: '6', B: '8' };

/** An IBAN whose letters and digits were taken for each other, put right by its country's shape; null unless its check digits then hold. */
function shaped(iban: string): string | null {
  const country = countries.get(iban.slice(0, 2));
  if (!country) return null;
  const kind = (i: number) => (i < 2 ? 'c' : i < 4 ? 'n' : country.pattern[i - 4]);
  const plain = [...iban].map((ch, i) => ({ a: toLetter[ch], n: toDigit[ch] })[kind(i) as 'a' | 'n'] ?? ch).join('');
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
    const wanted = lengthOf(match[1]!);
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
  const wanted = lengthOf(match[1]!.slice(0, 2));
  const plain = squash(match[1]!);
  return wanted !== undefined && plain.length >= wanted ? plain.slice(0, wanted) : null;
}
