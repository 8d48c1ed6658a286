import { dec, sum } from '../money/index.ts';
import type { Solution } from './solve.ts';
import type { TaxRow } from './totals.ts';
import type { ReadLine } from './types.ts';

/**
 * False when a printed rate does not explain the printed tax: one rate beside the tax, and neither the net nor the lines
 * that state this rate, at that rate, make it (to a minor unit a line). True where nothing can be said.
 */
export function rateExplainsTax(s: Solution, rows: TaxRow[], lines: ReadLine[]): boolean {
  if (!s.tax || !s.net || rows.length > 1) return true;
  const rates = [...new Set(s.tax.from.map((a) => a.rate).filter((r): r is string => r !== null))];
  const rate = rates.length === 1 ? rates[0]! : rates.length === 0 && rows.length === 1 ? rows[0]!.rate : null;
  if (rate === null) return true;
  const tolerance = dec('0.011').times(Math.max(1, lines.length));
  const bases = [s.net.value, ...rows.map((r) => dec(r.net)), sum(lines.filter((l) => l.taxRate && dec(l.taxRate.value).eq(rate)).map((l) => dec(l.amount.value)))];
  if (s.includesTax) bases.push(s.gross!.value.minus(s.tax.value));
  return bases.some((base) => base.abs().times(rate).div(100).minus(s.tax!.value.abs()).abs().lte(tolerance));
}
