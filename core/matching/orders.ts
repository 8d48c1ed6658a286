import { decOrNull } from '../money/index.ts';
import { assign, type Pair } from './assignment.ts';
import { plainName } from './supplier.ts';

/** What a row of a bill says, and a line of an order: as decimals without currency, of one unit. */
export interface Wanted {
  id: string;
  /** The supplier's item code. */ code: string | null;
  description: string;
  quantity: string | null;
  unitPrice: string | null;
  /** The price is for this many; "1" where it is not said. */ priceQuantity?: string;
  /** Of an order's line: what else suppliers call its item, as codes or in words. */ also?: readonly string[];
}
/** A row of a bill and the line of an order that it bills, how sure (0 to 1), and what speaks for it. */
export interface Matched {
  row: string;
  line: string;
  score: number;
  why: string;
}

/** So many candidates are enough for a row. */
const plenty = 24;
/** Less alike than this is another thing. */
const enough = 0.4;
const bare = (text: string | null): string => (text ?? '').toUpperCase().replace(/[^A-Z0-9]/g, '');

/** An order's number as it is compared: PO 1001, po-1001 and 1001 are one. */
export function orderNumber(text: string): string {
  const plain = bare(text).replace(/^(?:PURCHASE)?ORDER(?:NO|NUMBER)?|^(?:PO|NR|NO)(?=\d)/, '');
  return plain.replace(/^0+(?=\d)/, '');
}
/** The order numbers that a text on the page may mean: as it stands, and each part that has a digit. */
export const orderNumbersIn = (text: string): string[] => [
  ...new Set([text, ...text.split(/[\s,;/]+/).filter((part) => /\d/.test(part))].map(orderNumber).filter((n) => n !== '')),
];

export interface Prepared {
  code: string;
  words: Set<string>;
  quantity: number | null;
  price: number | null;
  /** Other names of it. */ also: readonly { code: string; words: Set<string> }[];
}
const wordsOf = (text: string): Set<string> =>
  new Set(
    plainName(text)
      .split(' ')
      .filter((w) => w !== ''),
  );
/** What of a row or a line is compared. */
export function prepared({ code, description, quantity, unitPrice, priceQuantity, also = [] }: Wanted): Prepared {
  const price = decOrNull(unitPrice),
    per = decOrNull(priceQuantity ?? '1');
  return {
    code: bare(code),
    words: wordsOf(description),
    also: also.map((name) => ({ code: bare(name), words: wordsOf(name) })),
    quantity: decOrNull(quantity)?.toNumber() ?? null,
    price: price === null ? null : (per && !per.isZero() ? price.div(per) : price).toNumber(),
  };
}

/** Shared words against all of them (Dice), 0 to 1. */
function wordsAlike(a: Set<string>, b: Set<string>): number {
  if (a.size + b.size === 0) return 0;
  let shared = 0;
  for (const word of a) if (b.has(word)) shared++;
  return (2 * shared) / (a.size + b.size);
}
/** 1 for the same figure, falling with the distance; null where one says none. */
const near = (a: number | null, b: number | null): number | null =>
  a === null || b === null ? null : a === b ? 1 : Math.max(0, 1 - Math.abs(a - b) / Math.max(Math.abs(a), Math.abs(b), 1e-9));

/** Code and text of a row and a line are one: the same thing, whatever its price and quantity. */
export const sameThing = (a: Prepared, b: Prepared): boolean =>
  (a.code !== '' && a.code === b.code) || ((a.code === '' || b.code === '') && wordsAlike(a.words, b.words) >= 0.99);

/** How well a row fits a line, and what speaks for it: code and text tell which thing it is, price and quantity which of several alike. */
export function fit(row: Prepared, line: Prepared): { score: number; why: string } {
  const named = [line, ...line.also];
  const sameCode = row.code !== '' && named.some((n) => n.code === row.code),
    words = Math.max(...named.map((n) => wordsAlike(row.words, n.words))),
    price = near(row.price, line.price),
    quantity = near(row.quantity, line.quantity);
  const thing = sameCode ? 0.7 + 0.15 * words : 0.65 * words - (row.code !== '' && line.code !== '' ? 0.1 : 0);
  const score =
    thing + 0.1 * (price ?? 0.5) + 0.05 * (quantity ?? 0.5) + (price === 1 ? 0.1 : 0) + (price === 1 && quantity === 1 ? 0.1 : 0);
  const said = [
    ...(sameCode ? ['same code'] : []),
    ...(words >= 0.99 ? ['same text'] : words >= 0.5 ? ['text alike'] : []),
    ...(price === 1 ? ['same price'] : []),
    ...(quantity === 1 ? ['same quantity'] : []),
  ];
  return { score: thing <= 0 && !(price === 1 && quantity === 1) ? 0 : Math.min(1, score), why: said.join(', ') };
}

/**
 * Which lines of orders the rows of a bill bill: the assignment of the greatest total fit, each row and each line at most once, so that
 * rows that are alike never take each other's line first come, first served.
 */
export function matchOrderLines(rows: readonly Wanted[], lines: readonly Wanted[]): Matched[] {
  const left = rows.map(prepared),
    right = lines.map(prepared);
  // Only what shares a code or a word, or price and quantity, can fit.
  const holders = new Map<string, Set<number>>();
  const keysOf = (of: Prepared): string[] => [
    ...[of, ...of.also].flatMap((n) => [...(n.code === '' ? [] : [`c ${n.code}`]), ...[...n.words].map((w) => `w ${w}`)]),
    ...(of.price === null || of.quantity === null ? [] : [`p ${of.price} ${of.quantity}`]),
  ];
  for (const [i, of] of right.entries())
    for (const key of keysOf(of)) {
      const there = holders.get(key);
      if (there) there.add(i);
      else holders.set(key, new Set([i]));
    }
  const whys = new Map<string, string>();
  const pairs = left.flatMap((of, row): Pair[] => {
    // The rarest first: what many lines share tells little, and is only asked where nothing else tells.
    const told = keysOf(of).flatMap((key) => holders.get(key) ?? []).sort((a, b) => a.size - b.size); // prettier-ignore
    const columns = new Set<number>();
    for (const own of told) {
      if (columns.size >= plenty) break;
      for (const column of own) columns.add(column);
    }
    return [...columns].flatMap((column): Pair[] => {
      const { score, why } = fit(of, right[column]!);
      if (score < enough) return [];
      whys.set(`${row} ${column}`, why);
      return [{ row, column, score }];
    });
  });
  return assign(pairs).map(({ row, column, score }) => ({
    row: rows[row]!.id,
    line: lines[column]!.id,
    score,
    why: whys.get(`${row} ${column}`)!,
  }));
}
