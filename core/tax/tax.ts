import { dec, minorUnits, roundTo, sum, zero, type Decimal } from '../money/index.ts';

export interface TaxRule {
  id: string;
  code: string;
  /** percent */ rate: string;
  /** percent of the tax that can be reclaimed */ recoverable: string;
  /** The buyer owes the tax itself: reverse charge, import, use tax. */
  reverseCharge: boolean;
  /** Percent of the net that is held back from the supplier and paid to the state for it; none where it is not said. */
  withheld?: string;
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

/** What is held back from the supplier on a code's net, to the minor unit. */
export const withheldOf = ({ rule, net }: Pick<TaxShare, 'rule' | 'net'>, currency: string): Decimal =>
  roundTo(net.times(rule.withheld ?? 0).div(100), currency);

/**
 * The most that may stand between the rates' tax and the printed tax: what rounding does (a minor unit a line, at least two), or what the
 * company lets pass where that is more. `lets`: in the bill's currency.
 */
export function taxTolerance(lines: number, currency: string, lets: string | null): Decimal {
  const rounding = dec(10).pow(-minorUnits(currency)).times(Math.max(2, lines));
  return lets !== null && dec(lets).gt(rounding) ? dec(lets) : rounding;
}

/**
 * The rate of a code on a day: of its later rates the last that begins on it or before, else the one it has itself.
 * `later`: in any order.
 */
export function rateOnDay(rate: string, later: readonly { from: string; rate: string }[], day: string): string {
  const begun = later.filter((l) => l.from <= day).sort((a, b) => (a.from < b.from ? 1 : -1));
  return begun[0]?.rate ?? rate;
}
