import { dec, sum, type Decimal } from '../money/index.ts';

/** How far a bill may be from its order before it is said; null: this limit is not set. */
export interface Tolerances {
  /** Of the ordered price, in percent; and what a row may cost more as a whole, in the bill's currency. */
  pricePercent: string | null;
  priceAmount: string | null;
  /** Of the ordered quantity, in percent; and in the line's unit. */
  quantityPercent: string | null;
  quantityAmount: string | null;
  /** Where a percentage and an amount are set: both have to hold, or one of them. */
  which: 'stricter' | 'looser';
}
/** What a company lets, and whether a bill that is wholly as ordered goes on without a hand. */
export interface MatchingRules extends Tolerances {
  passes: boolean;
}
/** A line of an order as it stands without this bill: quantities in its unit. */
export interface OrderedLine {
  id: string;
  order: string;
  /** Its place in the order, from 1. */ place: number;
  description: string;
  unit: string | null;
  /** Of one unit, without tax. */ unitPrice: string;
  ordered: string;
  /** What has come; null where it is billed without a receipt. */ received: string | null;
  /** By other bills. */ billed: string;
}
/** What one row bills of a line; `amount` without tax, null where the row has none. Quantities of a credit note are negative. */
export interface BilledRow {
  row: string;
  line: string;
  quantity: string;
  amount: string | null;
}
/** A row that costs more than was ordered: of one, and as a whole. */
export interface PriceOver {
  row: string;
  each: string;
  total: string;
}
/** A line of an order beside what this bill says of it. What is over is null where it is within the tolerances. */
export interface Compared extends OrderedLine {
  rows: string[];
  onBill: string;
  /** Of one unit on this bill; null where it bills none. */ price: string | null;
  /** Billed by all bills beyond what was ordered. */ overOrdered: string | null;
  /** Billed by all bills beyond what has come. */ overReceived: string | null;
  overPrice: PriceOver[];
  state: 'open' | 'part-billed' | 'billed' | 'over-billed';
}

const plain = (n: Decimal): string => n.toDecimalPlaces(6).toFixed();

/** Whether a difference (zero or more) of something is within a percentage of it and an amount, or one of them; without either there is none. */
export function within(by: Decimal, of: Decimal, percent: string | null, amount: string | null, which: Tolerances['which']): boolean {
  const limits = [...(percent === null ? [] : [of.abs().times(percent).div(100)]), ...(amount === null ? [] : [dec(amount)])];
  if (by.lte(0)) return true;
  if (limits.length === 0) return false;
  return which === 'stricter' ? limits.every((l) => by.lte(l)) : limits.some((l) => by.lte(l));
}

/**
 * Lines of orders beside a bill: what was ordered, has come, was billed before and is on this bill, and where the bill goes beyond. Only
 * lines that the bill has are given. A credit note goes beyond where it takes back more than was billed.
 */
export function compareWithOrder(lines: readonly OrderedLine[], billed: readonly BilledRow[], t: Tolerances): Compared[] {
  return lines.flatMap((line) => {
    const own = billed.filter((b) => b.line === line.id);
    if (own.length === 0) return [];
    const onBill = sum(own.map((b) => dec(b.quantity))),
      all = onBill.plus(line.billed),
      ordered = dec(line.ordered);
    const beyond = (limit: Decimal) => {
      const by = all.minus(limit);
      return onBill.gt(0) && by.gt(0) && !within(by, ordered, t.quantityPercent, t.quantityAmount, t.which) ? plain(by) : null;
    };
    const overOrdered = onBill.lt(0) && all.lt(0) ? plain(all) : beyond(ordered);
    const priced = own.filter((b) => b.amount !== null && !dec(b.quantity).isZero()),
      quantity = sum(priced.map((b) => dec(b.quantity)));
    const overPrice = priced.flatMap(({ row, quantity: n, amount }): PriceOver[] => {
      const should = dec(line.unitPrice).times(n),
        total = dec(amount!).minus(should);
      // To the cent: an amount is rounded, a price times a quantity is not.
      if (dec(n).lte(0) || total.lte('0.005') || within(total, should, t.pricePercent, t.priceAmount, t.which)) return [];
      return [{ row, each: plain(total.div(n)), total: plain(total) }];
    });
    return [
      {
        ...line,
        rows: own.map((b) => b.row),
        onBill: plain(onBill),
        price: quantity.isZero() ? null : plain(sum(priced.map((b) => dec(b.amount!))).div(quantity)),
        overOrdered,
        overReceived: line.received === null ? null : beyond(dec(line.received)),
        overPrice,
        state: all.lte(0) ? 'open' : all.lt(ordered) ? 'part-billed' : all.eq(ordered) ? 'billed' : 'over-billed',
      },
    ];
  });
}
