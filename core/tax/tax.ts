import { dec, roundTo, sum, zero, type Decimal } from '../money/index.ts';

export interface TaxRule {
  id: string;
  code: string;
  /** percent */ rate: string;
  /** percent of the tax that can be reclaimed */ recoverable: string;
  reverseCharge: boolean;
}
export interface TaxedLine {
  amount: Decimal;
  rule: TaxRule;
}
/** Net and tax of one tax code on a bill, and how much of the tax can be reclaimed. */
export interface TaxShare {
  rule: TaxRule;
  net: Decimal;
  tax: Decimal;
  recoverable: Decimal;
}

/** The net of a line: its amount, or the amount without the tax inside it. Rounded to the minor unit. */
export function netOf(line: TaxedLine, pricesIncludeTax: boolean, currency: string): Decimal {
  if (!pricesIncludeTax || line.rule.reverseCharge) return line.amount;
  return roundTo(line.amount.times(100).div(dec(100).plus(line.rule.rate)), currency);
}

/**
 * Net and tax by tax code, rounded once a code. Where the invoice's own tax differs by rounding, the difference goes to the
 * code with the most tax, so that the shares add up to what is printed. `said` null: as computed.
 */
export function taxByCode(lines: TaxedLine[], pricesIncludeTax: boolean, said: Decimal | null, currency: string): TaxShare[] {
  const groups = new Map<string, { rule: TaxRule; amount: Decimal }>();
  for (const line of lines) {
    const group = groups.get(line.rule.id);
    groups.set(line.rule.id, { rule: line.rule, amount: (group?.amount ?? zero).plus(line.amount) });
  }
  const shares = [...groups.values()].map(({ rule, amount }) => {
    if (rule.reverseCharge) return { rule, net: amount, tax: zero };
    const tax = pricesIncludeTax
      ? roundTo(amount.minus(amount.times(100).div(dec(100).plus(rule.rate))), currency)
      : roundTo(amount.times(rule.rate).div(100), currency);
    return { rule, net: pricesIncludeTax ? amount.minus(tax) : amount, tax };
  });
  const rest = said === null ? zero : said.minus(sum(shares.map((s) => s.tax)));
  const most = shares.filter((s) => !s.rule.reverseCharge).sort((a, b) => b.tax.abs().comparedTo(a.tax.abs()))[0];
  if (most && !rest.isZero()) {
    most.tax = most.tax.plus(rest);
    if (pricesIncludeTax) most.net = most.net.minus(rest);
  }
  return shares.map((s) => ({ ...s, recoverable: roundTo(s.tax.times(s.rule.recoverable).div(100), currency) }));
}

/** Tax that the codes make, before any difference is set right: what the rates explain. */
export function explainedTax(lines: TaxedLine[], pricesIncludeTax: boolean, currency: string): Decimal {
  return sum(taxByCode(lines, pricesIncludeTax, null, currency).map((s) => s.tax));
}

/** The most that rounding may put between the rates' tax and the printed tax: a minor unit a line, at least two. */
export const roundingTolerance = (lines: number): Decimal => dec('0.01').times(Math.max(2, lines));
