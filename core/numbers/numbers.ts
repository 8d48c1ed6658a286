import type { Word } from '../page/index.ts';

/** Which sign parts the decimals on this document. */
export type DecimalSign = '.' | ',';

export interface NumberStyle {
  decimal: DecimalSign;
}

/** Currency codes and signs as they stand beside amounts. */
export const currencySigns: Record<string, string> = {
  '£': 'GBP',
  '€': 'EUR',
  $: 'USD',
  '¥': 'JPY',
  円: 'JPY',
  '₹': 'INR',
  kr: 'SEK',
  'kr.': 'SEK',
  'Fr.': 'CHF',
  SFr: 'CHF',
  zł: 'PLN',
  Kč: 'CZK',
};
export const currencyCodes = [
  'GBP',
  'EUR',
  'USD',
  'JPY',
  'CHF',
  'SEK',
  'DKK',
  'NOK',
  'CAD',
  'AUD',
  'NZD',
  'PLN',
  'CZK',
  'HUF',
  'RON',
  'INR',
  'SGD',
  'HKD',
  'ZAR',
  'ISK',
];
const money = `(?:${[...currencyCodes, 'US\\$', '[£€$¥円₹]', 'kr\\.?', 'SFr\\.?', 'Fr\\.', 'zł', 'Kč'].join('|')})`;
const currencyWord = new RegExp(`^[-−–(]?${money}[:.]?$`, 'i');
/** True for a word that is nothing but a currency: "£", "EUR", "kr". */
export const isCurrency = (text: string): boolean => currencyWord.test(text);
const shape = new RegExp(
  `^([-−–(]?)\\s*${money}?\\s*([-−–(]?)\\s*(\\d[\\d.,'’\\u00a0 ]*|\\.\\d+)\\s*${money}?\\s*(\\)|[-−–]|CR)?\\s*$`,
  'i',
);

const withPoint = { valid: /^(?:\d{1,3}(?:[,' ]\d{3})+|\d+)?(?:\.\d+)?$/, groups: /[,' ]/g };
const withComma = { valid: /^(?:\d{1,3}(?:[.' ]\d{3})+|\d+)?(?:,\d+)?$/, groups: /[.' ]/g };

/**
 * The number a piece of text is, as a plain decimal string ("1234.50", "-256.89"), or null.
 * Thousands may be parted by comma, point, space or apostrophe; a minus may stand before, after, or as brackets.
 */
export function parseNumber(text: string, style: NumberStyle): string | null {
  const match = shape.exec(text.trim());
  if (!match) return null;
  const body = match[3]!.trim().replace(/['’\u00a0 ]/g, (sign) => (sign === ' ' || sign === '\u00a0' ? ' ' : "'"));
  const { valid, groups } = style.decimal === '.' ? withPoint : withComma;
  if (!valid.test(body)) return null;
  const digits = body.replace(groups, '').replace(style.decimal, '.');
  const negative = Boolean(match[1] || match[2]) || /[-−–]|CR/i.test(match[4] ?? '');
  const plain = digits.startsWith('.') ? `0${digits}` : digits;
  return negative && !/^0*(\.0*)?$/.test(plain) ? `-${plain}` : plain;
}

/**
 * The number that a person pointed at, as a plain decimal string: in the document's style, in the other one where only that fits, and
 * with a zero before the sign always a decimal ("0,125" is an eighth). Null where it is no number.
 */
export function numberAsPrinted(text: string, style: NumberStyle): string | null {
  const bare = text.trim().replace(/[.,;:]+$/, '');
  const fraction = /(?:^|\D)0([.,])\d+\D*$/.exec(bare);
  const styles: NumberStyle[] = fraction
    ? [{ decimal: fraction[1] as DecimalSign }]
    : [style, { decimal: style.decimal === '.' ? ',' : '.' }];
  for (const one of styles) {
    const number = parseNumber(bare, one);
    if (number !== null) return number;
  }
  return null;
}

/** A percentage's number without its sign ("12.5%" → "12.5"), or null. */
export function parsePercent(text: string, style: NumberStyle): string | null {
  const match = /^[-−]?\s*([\d.,]+)\s*(?:%|per ?cent)$/i.exec(text.trim().replace(/^\(|\)$/g, ''));
  return match ? parseNumber(match[1]!, style) : null;
}

/** True when the text shows decimals of a price or an amount (two to four places). */
export const hasDecimals = (text: string): boolean => /[.,]\d{2,4}(?!\d)/.test(text);

/** Decides the decimal sign of a whole document from the numbers that leave no doubt. */
export function decideStyle(words: Word[]): NumberStyle {
  let comma = 0,
    point = 0;
  for (const { text } of words) {
    if (!/^[-−(£$€¥]*\d[\d.,'’]*[)%€-]?$/.test(text)) continue;
    if (/\d,\d{2}[)%€-]?$/.test(text)) comma++;
    if (/\d\.\d{2}[)%€-]?$/.test(text)) point++;
    if (/\.\d{3},\d/.test(text)) comma += 3;
    if (/,\d{3}\.\d/.test(text)) point += 3;
    // Millions without decimals: what parts their groups does not part decimals.
    if (/\.\d{3}\.\d{3}\D?$/.test(text)) comma += 3;
    if (/,\d{3},\d{3}\D?$/.test(text)) point += 3;
  }
  return { decimal: comma > point ? ',' : '.' };
}
