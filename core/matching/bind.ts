import { dec, decOrNull, type Decimal } from '../money/index.ts';
import { fit, matchOrderLines, prepared, sameThing, type Prepared, type Wanted } from './orders.ts';
import { unitFactor } from './units.ts';

/** A row of a bill. `amount`: without tax, for rows that say no quantity. */
export interface RowToBind extends Wanted {
  unit: string | null;
  amount: string | null;
}
/** A line of an order. `open`: what is still to be billed of it, in its unit; none or less where all is. */
export interface LineToBind extends Wanted {
  unit: string | null;
  open: string;
}
/** So much of a line of an order is billed by a row, in the line's unit. A row may bill several lines, a line be billed by several rows. */
export interface Bound {
  row: string;
  line: string;
  quantity: string;
  why: string;
  /** How well they fit, 0 to 1. */ score: number;
}

/** A row of the same thing joins a line which another row has where they fit as well as this: its price may be of another unit. */
const joins = 0.6;
const plain = (n: Decimal): string => n.toDecimalPlaces(6).toFixed();

/**
 * How many of the line's unit one of the row's is: by their names, or where those do not tell, by the prices, where one is a whole number
 * of times the other (2 to 10,000) and so is what was ordered. 1 where nothing speaks against it.
 */
export function factorOf(row: RowToBind, line: LineToBind): Decimal {
  const named = unitFactor(row.unit, line.unit);
  if (named) return named;
  const price = decOrNull(row.unitPrice),
    per = decOrNull(row.priceQuantity ?? '1'),
    ordered = decOrNull(line.unitPrice),
    quantity = decOrNull(row.quantity);
  if (!price || !ordered || !per || per.lte(0) || !quantity || price.lte(0) || ordered.lte(0)) return dec(1);
  const times = price.div(per).div(ordered),
    whole = times.round();
  const pack = whole.gte(2) && whole.lte(10_000) && times.minus(whole).abs().lte(whole.times('0.005'));
  // A price that happens to be twice the other's is a price: the packs have to make what is open, too.
  return pack && quantity.times(whole).lte(line.open) ? whole : dec(1);
}

/** What a row bills of a line, in the line's unit: its quantity, or what its amount makes at the line's price. */
export function quantityOf(row: RowToBind, line: LineToBind): Decimal {
  const quantity = decOrNull(row.quantity);
  if (quantity) return quantity.times(factorOf(row, line));
  const amount = decOrNull(row.amount),
    price = decOrNull(line.unitPrice);
  return amount && price?.gt(0) ? amount.div(price) : dec(0);
}

/**
 * What the rows of a bill bill of the lines of orders. First one to one, as a whole the best (`matchOrderLines`); then what a row bills
 * beyond its line goes to other lines of the same thing at the same price, as far as they are open; then rows that are left join a line
 * of the same thing. A row never bills more than it says.
 */
export function bindRows(rows: readonly RowToBind[], lines: readonly LineToBind[]): Bound[] {
  const byRow = new Map(rows.map((r) => [r.id, r])),
    byLine = new Map(lines.map((l) => [l.id, l]));
  const left = new Map(lines.map((l) => [l.id, dec(l.open)]));
  const bound: Bound[] = [];
  const take = (row: string, line: string, quantity: Decimal, why: string, score: number) => {
    bound.push({ row, line, quantity: plain(quantity), why, score });
    left.set(line, left.get(line)!.minus(quantity));
  };
  const alike = sameThings(lines);
  const first = matchOrderLines(rows, lines);
  const taken = new Set(first.map((m) => m.line)),
    placed = new Set(first.map((m) => m.row));
  for (const { row, line, why, score } of first) {
    const of = byLine.get(line)!;
    let rest = quantityOf(byRow.get(row)!, of);
    const open = left.get(line)!;
    const more = rest.gt(open) ? othersLike(of, alike).filter((o) => !taken.has(o.id) && left.get(o.id)!.gt(0)) : [];
    const own = more.length > 0 && open.gt(0) ? open : rest;
    const parts: [string, Decimal][] = [];
    rest = rest.minus(own);
    for (const other of more) {
      if (rest.lte(0)) break;
      const part = rest.lt(left.get(other.id)!) ? rest : left.get(other.id)!;
      parts.push([other.id, part]);
      rest = rest.minus(part);
    }
    // What no line has room for stays with the first: it is billed beyond the order.
    take(row, line, own.plus(rest), why, score);
    for (const [id, part] of parts) {
      taken.add(id);
      take(row, id, part, `${why}, the rest`, score);
    }
  }
  for (const row of rows) {
    if (placed.has(row.id)) continue;
    const is = prepared(row);
    const [best] = alike(is)
      .map(({ line, like }) => ({ line, ...fit(is, like) }))
      .filter((c) => c.score >= joins)
      .sort((a, b) => b.score - a.score);
    if (best) take(row.id, best.line.id, quantityOf(row, best.line), best.why, best.score);
  }
  return bound;
}

interface Like {
  line: LineToBind;
  like: Prepared;
}
/** Finds lines of the same thing, in their order: by code and by words, each looked up and not searched for. */
function sameThings(lines: readonly LineToBind[]): (is: Prepared) => Like[] {
  const all = new Map<string, Like[]>();
  const keys = ({ code, words }: Prepared) => [...(code === '' ? [] : [`c ${code}`]), `w ${[...words].sort().join(' ')}`];
  for (const line of lines) {
    const like = prepared(line);
    for (const key of keys(like)) {
      const there = all.get(key);
      if (there) there.push({ line, like });
      else all.set(key, [{ line, like }]);
    }
  }
  return (is) => [...new Map(keys(is).flatMap((key) => (all.get(key) ?? []).map((one) => [one.line.id, one]))).values()].filter((o) => sameThing(is, o.like)); // prettier-ignore
}

/** Other lines of the same thing at the same price in the same unit, in their order. */
function othersLike(line: LineToBind, alike: (is: Prepared) => Like[]): LineToBind[] {
  const is = prepared(line);
  return alike(is)
    .filter(({ line: other, like }) => other.id !== line.id && other.unit === line.unit && like.price === is.price)
    .map((o) => o.line);
}
