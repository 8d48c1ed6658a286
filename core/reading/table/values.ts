import { dec, roundTo, zero, type Decimal } from '../../money/index.ts';
import { textOf, type Word } from '../../page/index.ts';
import { hasDecimals, parseNumber, parsePercent, type NumberStyle } from '../../numbers/index.ts';

/** An amount with two decimals, as it is printed. */
export const printedAmount = /^[-−(£$€¥]*\d[\d.,'’]*[.,]\d{2}\)?$/;

export interface NumberCell {
  value: string;
  words: Word[];
  unit: string | null;
  unitWords: Word[];
  percent: boolean;
  pence: boolean;
  decimals: boolean;
}

/** A cell's number, with a unit behind it ("3.5 hr", "6,128 kWh", "27.315p"), or null when it holds something else. */
export function numberCell(words: Word[], style: NumberStyle): NumberCell | null {
  const seen = cells.get(words);
  if (seen && seen.decimal === style.decimal) return seen.cell;
  const cell = readCell(words, style);
  cells.set(words, { decimal: style.decimal, cell });
  return cell;
}

// A cell is looked at for every way to read its table.
const cells = new WeakMap<Word[], { decimal: string; cell: NumberCell | null }>();

const unitLike = /^[\p{L}²³.%]{1,9}$/u,
  gluedUnit = /^([\d.,]+)(\p{L}{1,5})$/u;

function readCell(words: Word[], style: NumberStyle): NumberCell | null {
  if (words.length === 0 || words.length > 4) return null;
  const text = textOf(words);
  const plain = parseNumber(text, style);
  const cell = { words, unit: null, unitWords: [], percent: false, pence: false, decimals: hasDecimals(text) };
  if (plain !== null) return { ...cell, value: plain };
  const percent = parsePercent(text, style);
  if (percent !== null) return { ...cell, value: percent, percent: true };
  const pence = /^(.*\d)p$/.exec(text);
  const inPence = pence && parseNumber(pence[1]!, style);
  if (inPence) return { ...cell, value: inPence, pence: true };
  for (const count of [1, 2]) {
    const unit = words.slice(count);
    if (unit.length === 0 || unit.length > 2 || !unit.every((w) => unitLike.test(w.text))) continue;
    const value = parseNumber(textOf(words.slice(0, count)), style);
    if (value !== null) return { ...cell, words: words.slice(0, count), value, unit: textOf(unit), unitWords: unit };
  }
  const glued = gluedUnit.exec(text);
  const value = glued && parseNumber(glued[1]!, style);
  return value ? { ...cell, value, unit: glued[2]! } : null;
}

/** Quantity × price ÷ price quantity − discount %, rounded to the currency's minor unit. */
export function lineAmount(quantity: string, price: string, discount: string | null, per: number, currency: string): Decimal {
  const gross = dec(quantity).times(price).div(per);
  return roundTo(discount ? gross.times(dec(100).minus(discount)).div(100) : gross, currency);
}

/** True when a printed amount is what the row's own figures make, to the last minor unit. */
export function holds(quantity: string, price: string, discount: string | null, per: number, amount: string, currency: string): boolean {
  // A quick look first: floats are good for that and for nothing else.
  const about = Math.abs((Number(quantity) * Number(price)) / per) * (discount ? Math.abs(1 - Number(discount) / 100) : 1);
  if (Math.abs(about - Math.abs(Number(amount))) > 0.6) return false;
  const exact = dec(quantity)
    .times(price)
    .div(per)
    .times(discount ? dec(100).minus(discount).div(100) : 1);
  // Credit notes print the amount with a minus and its factors without.
  const printed = dec(amount).isNegative() && !exact.isNegative() ? dec(amount).abs() : dec(amount);
  const unit = currency === 'JPY' ? dec('0.5') : dec('0.005');
  return (
    exact.minus(printed).abs().lte(unit.plus('0.00001')) ||
    lineAmount(quantity, price, discount, per, currency).eq(printed) ||
    (printed.eq(zero) && exact.eq(zero))
  );
}
