import { isGoods, priced, type LineKind } from '../bills/index.ts';
import { dec, decOrNull, formatAmount, roundTo, sum, zero, type Decimal } from '../money/index.ts';

export interface ProofLine {
  id: string;
  kind: LineKind;
  quantity: string | null;
  unitPrice: string | null;
  priceQuantity: string;
  discountPercent: string | null;
  amount: string | null;
  /** In percent, as far as it is known. */ taxRate?: string | null;
}
export interface ProofBill {
  currency: string;
  net: string | null;
  tax: string | null;
  gross: string | null;
  pricesIncludeTax: boolean;
  lines: ProofLine[];
}

/** A change that would make the sums hold, offered to the clerk. The sentence is for people; what is done follows from the kind. */
export type Repair = { sentence: string; value: string } & (
  | { /** A line's amount, from its own product or from what is missing. */ kind: 'row-product' | 'row-missing'; line: string }
  | { /** A total of the head. */ kind: 'net' | 'tax' | 'gross' }
  | { /** A new line of this amount. */ kind: 'charge' | 'rounding' }
);

export interface Proof {
  lines: Decimal;
  charges: Decimal;
  tax: Decimal;
  total: Decimal;
  /** The invoice's own total, null when not given. */
  said: Decimal | null;
  /** Said less total; null when nothing is said. */
  difference: Decimal | null;
  holds: boolean;
  /** Whether each line's own figures make its amount, by line id; null where it has none. */
  rows: Record<string, boolean | null>;
  sentence: string;
  repairs: Repair[];
}

const value = (text: string | null): Decimal => decOrNull(text) ?? zero;

/** Quantity × price ÷ price quantity, less discount, to the minor unit; null where quantity or price is missing. */
export function productOf(line: ProofLine, currency: string): Decimal | null {
  const quantity = decOrNull(line.quantity),
    price = decOrNull(line.unitPrice),
    per = decOrNull(line.priceQuantity) ?? dec(1);
  if (!quantity || !price || per.isZero()) return null;
  const discount = decOrNull(line.discountPercent) ?? zero;
  return roundTo(quantity.times(price).div(per).times(dec(100).minus(discount)).div(100), currency);
}

/**
 * A bill's arithmetic: lines + charges + tax = total, net + tax = total, and each row's own product. With prices that include tax
 * the tax is inside the lines. Names the difference and the changes that would settle it.
 */
export function prove(bill: ProofBill): Proof {
  const of = (which: (kind: LineKind) => boolean) => sum(bill.lines.filter((l) => which(l.kind)).map((l) => value(l.amount)));
  const lines = of(isGoods),
    charges = of((kind) => kind === 'charge'),
    tax = value(bill.tax);
  const net = lines.plus(charges);
  const total = bill.pricesIncludeTax ? net : net.plus(tax);
  const said = decOrNull(bill.gross);
  const difference = said === null ? null : said.minus(total);
  const rows = Object.fromEntries(
    bill.lines.map((line) => {
      const product = productOf(line, bill.currency);
      return [line.id, product === null || line.amount === null ? null : product.abs().minus(value(line.amount).abs()).abs().lte(0.01)];
    }),
  );
  const netSaid = decOrNull(bill.net);
  const netHolds = netSaid === null || (bill.pricesIncludeTax ? said !== null && netSaid.plus(tax).eq(said) : netSaid.eq(net));
  const holds = difference !== null && difference.isZero() && netHolds && priced(bill.lines).length > 0;
  const proof = { lines, charges, tax, total, said, difference, holds, rows };
  return { ...proof, sentence: sentenceOf(bill, proof, netSaid, net), repairs: holds ? [] : repairsOf(bill, difference, rows, net) };
}

function sentenceOf(
  bill: ProofBill,
  p: Pick<Proof, 'difference' | 'holds' | 'said' | 'rows'>,
  netSaid: Decimal | null,
  net: Decimal,
): string {
  if (priced(bill.lines).length === 0) return 'No lines yet.';
  if (p.said === null || p.difference === null) return 'The invoice total is missing.';
  if (!p.difference.isZero())
    return `Off by ${formatAmount(p.difference.abs(), bill.currency)}: the ${p.difference.isPositive() ? 'lines make too little' : 'lines make too much'}.`;
  if (!p.holds && netSaid) return `Net says ${formatAmount(netSaid, bill.currency)}, the lines make ${formatAmount(net, bill.currency)}.`;
  const odd = bill.lines.flatMap((line, i) => (p.rows[line.id] === false ? [i + 1] : []));
  return odd.length ? `Adds up. Row ${odd.join(', ')}: quantity × price is not the amount.` : 'Adds up.';
}

function repairsOf(bill: ProofBill, difference: Decimal | null, rows: Proof['rows'], net: Decimal): Repair[] {
  const repairs: Repair[] = [];
  const shown = (amount: Decimal) => formatAmount(amount, bill.currency);
  const gap = difference ?? zero;
  const unpriced = priced(bill.lines).filter((l) => l.amount === null);
  for (const [index, line] of bill.lines.entries()) {
    const product = productOf(line, bill.currency);
    if (rows[line.id] === false && product && !gap.isZero() && product.minus(value(line.amount)).eq(gap))
      repairs.push({
        sentence: `Row ${index + 1}: ${line.quantity} × ${line.unitPrice} makes ${shown(product)}`,
        kind: 'row-product',
        line: line.id,
        value: product.toFixed(),
      });
    if (line.kind !== 'text' && line.amount === null && gap.isPositive() && !gap.isZero() && unpriced.length === 1)
      repairs.push({ sentence: `Row ${index + 1} is ${shown(gap)}`, kind: 'row-missing', line: line.id, value: gap.toFixed() });
  }
  const netSaid = decOrNull(bill.net),
    said = decOrNull(bill.gross),
    whole = priced(bill.lines).length > 0;
  const netHolds = said !== null && netSaid !== null && !bill.pricesIncludeTax && netSaid.eq(net);
  if (netHolds && !gap.isZero() && taxIsOfRates(bill)) {
    const total = net.plus(value(bill.tax));
    repairs.push({ sentence: `Total is ${shown(total)}`, kind: 'gross', value: total.toFixed() });
  } else if (netHolds && said.minus(netSaid).gte(0))
    repairs.push({ sentence: `Tax is ${shown(said.minus(netSaid))}`, kind: 'tax', value: said.minus(netSaid).toFixed() });
  if (!bill.pricesIncludeTax && said && !gap.isZero() && said.minus(value(bill.tax)).eq(netSaid ?? zero) && gap.isPositive() && whole)
    repairs.push({ sentence: `Add a charge of ${shown(gap)}`, kind: 'charge', value: gap.toFixed() });
  if (!gap.isZero() && gap.abs().lte('0.05') && whole)
    repairs.push({ sentence: `Add a rounding difference of ${shown(gap)}`, kind: 'rounding', value: gap.toFixed() });
  if (gap.isZero() && netSaid && said && !netSaid.eq(net) && !bill.pricesIncludeTax)
    repairs.push({ sentence: `Net is ${shown(net)}`, kind: 'net', value: net.toFixed() });
  if (said === null && whole && !net.isZero()) {
    const total = bill.pricesIncludeTax ? net : net.plus(value(bill.tax));
    repairs.push({ sentence: `Total is ${shown(total)}`, kind: 'gross', value: total.toFixed() });
  }
  return repairs.slice(0, 3);
}

/** Whether the rows' rates make the tax, to a minor unit for each rate. */
function taxIsOfRates(bill: ProofBill): boolean {
  const tax = decOrNull(bill.tax),
    byRate = new Map<string, Decimal>();
  if (!tax) return false;
  for (const line of bill.lines) {
    const rate = decOrNull(line.taxRate ?? null);
    if (!rate) return false;
    byRate.set(rate.toFixed(), (byRate.get(rate.toFixed()) ?? zero).plus(value(line.amount)));
  }
  const made = sum([...byRate].map(([rate, amount]) => roundTo(amount.times(rate).div(100), bill.currency)));
  return (
    byRate.size > 0 &&
    made
      .minus(tax)
      .abs()
      .lte(roundTo(dec('0.01').times(byRate.size), bill.currency))
  );
}
