import type { Layout } from '../layout.ts';
import type { ReadLine } from '../types.ts';
import type { LineRows } from './itemfeatures.ts';
import { linesOf } from './lines.ts';
import { rowShares, type LogShares } from './models.ts';
import { printedRows, type Item, type PrintedRow } from './printed.ts';
import { countsWhole, moneyLike, rowFeatures } from './rowfeatures.ts';
import type { RowTag } from './tags.ts';

/** One way to read the lines of a document. */
export interface LinesRead {
  lines: ReadLine[];
  firstRow: number;
  lastRow: number;
  /** Rows elsewhere that look like lines. */ missed: number;
  /** What its rows look like, as a logarithm of certainty: 0 is what they look like most. */ likely: number;
  /** Of how many lines quantity and price make the amount. */ multiply: number;
}

/** Of the rows between two lines, those before the cut belong to the first: where the widest gap is, else as the document does elsewhere. */
function partsBetween(rows: readonly PrintedRow[], from: number, to: number, parts: readonly number[], below: boolean): number {
  if (parts.length === 0) return 0;
  const chain = [from, ...parts, to].filter((r) => r >= 0 && r < rows.length);
  if (from < 0) return 0;
  if (to >= rows.length || rows[to]!.row.page !== rows[from]!.row.page)
    return parts.filter((p) => rows[p]!.row.page === rows[from]!.row.page).length;
  const gaps = chain.slice(1).map((r, i) => rows[r]!.row.y - (rows[chain[i]!]!.row.y + rows[chain[i]!]!.row.h));
  const widest = Math.max(...gaps),
    others = gaps.filter((g) => g !== widest);
  const tall = rows[from]!.row.h;
  if (others.length > 0 && widest - Math.max(...others) > 0.15 * tall) return gaps.indexOf(widest);
  return below ? parts.length : 0;
}

/** Lines with the rows that belong to each. */
function grouped(rows: readonly PrintedRow[], shares: readonly LogShares<RowTag>[], set: readonly number[]): LineRows[] {
  const isPart = (r: number) => !set.includes(r) && shares[r]!.part > shares[r]!.none && shares[r]!.part > Math.log(0.35);
  const runs: number[][] = [];
  for (let k = 0; k <= set.length; k++) {
    const from = set[k - 1] ?? -1,
      to = set[k] ?? rows.length;
    const run: number[] = [];
    if (k === 0) for (let r = to - 1; r >= 0 && to - r < 5 && isPart(r) && rows[r]!.row.page === rows[to]?.row.page; r--) run.unshift(r);
    else if (k === set.length) for (let r = from + 1; r < rows.length && r - from < 8 && isPart(r); r++) run.push(r);
    else for (let r = from + 1; r < to; r++) if (isPart(r)) run.push(r);
    runs.push(run);
  }
  // Rows above the first line and none below the last: descriptions stand above their figures here.
  const below = !(runs[0]!.length > 0 && runs.at(-1)!.length === 0);
  const lines = set.map((row): LineRows => ({ row, parts: [] }));
  for (const [k, run] of runs.entries()) {
    const cut = k === 0 ? 0 : k === set.length ? run.length : partsBetween(rows, set[k - 1]!, set[k]!, run, below);
    if (k > 0) lines[k - 1]!.parts.push(...run.slice(0, cut));
    if (k < set.length) lines[k]!.parts.unshift(...run.slice(cut));
  }
  return lines;
}

/** How many rows are doubted at most, and how many of them are changed at once. */
const doubted = 13;
const changes = 3;

const tenThousandths = (value: string): number => Math.round(Number(value) * 10_000);

interface Candidate {
  row: number;
  amount: Item;
  /** In ten-thousandths: whole, so that sums are exact. */ value: number;
  margin: number;
}

/** Sets of rows whose amounts add up to another printed figure, for the least change of what they look like; the set that they look like first. */
function sets(rows: readonly PrintedRow[], shares: readonly LogShares<RowTag>[], most: number): { rows: number[]; cost: number }[] {
  const whole = countsWhole(rows);
  const margin = shares.map((s) => s.line - Math.max(s.none, s.part));
  const liked = rows.flatMap((r, i) => (margin[i]! > 0 && r.items.some((x) => x.figure) ? [i] : []));
  const edges = liked.flatMap((i) => {
    const last = rows[i]!.items.filter((x) => moneyLike(x, whole)).at(-1);
    return last ? [last.end] : [];
  });
  const edge = edges.find((e) => edges.filter((o) => Math.abs(o - e) < 4).length >= edges.length * 0.5) ?? null;
  const candidates = rows.flatMap((r, row): Candidate[] => {
    if (margin[row]! < -5) return [];
    const amounts = r.items.filter((x) => moneyLike(x, whole));
    const amount =
      amounts.filter((x) => edge !== null && Math.abs(x.end - edge) < 4).at(-1) ??
      amounts.at(-1) ??
      (margin[row]! > 0 ? r.items.filter((x) => x.figure && !x.figure.percent).at(-1) : undefined);
    return amount ? [{ row, amount, value: tenThousandths(amount.figure!.value), margin: margin[row]! }] : [];
  });
  const found: { rows: number[]; cost: number }[] = [{ rows: candidates.filter((c) => c.margin > 0).map((c) => c.row), cost: 0 }];
  const printed = new Map<number, number>();
  for (const r of rows)
    for (const x of r.items)
      if (x.figure && moneyLike(x, whole))
        printed.set(tenThousandths(x.figure.value), (printed.get(tenThousandths(x.figure.value)) ?? 0) + 1);
  const on = candidates.filter((c) => c.margin > 0),
    base = on.reduce((a, c) => a + c.value, 0);
  const open = [...candidates].sort((a, b) => Math.abs(a.margin) - Math.abs(b.margin)).slice(0, doubted);
  const explains = (total: number, own: () => Candidate[]): boolean =>
    total > 0 && printed.has(total) && own().length > 0 && printed.get(total)! > own().filter((c) => c.value === total).length;
  const visit = (from: number, flipped: Candidate[]) => {
    if (flipped.length > 0) {
      const own = () => candidates.filter((c) => c.margin > 0 !== flipped.includes(c));
      const total = flipped.reduce((a, c) => a + (c.margin > 0 ? -c.value : c.value), base);
      if (explains(total, own)) found.push({ rows: own().map((c) => c.row), cost: flipped.reduce((a, c) => a + Math.abs(c.margin), 0) });
    }
    if (flipped.length < changes) for (let i = from; i < open.length; i++) visit(i + 1, [...flipped, open[i]!]);
  };
  if (!explains(base, () => on)) visit(0, []);
  return found
    .filter((f) => f.rows.length > 0)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, most);
}

/** What each printed row of a document looks like. */
export class RowsSeen {
  readonly rows: PrintedRow[];
  readonly shares: LogShares<RowTag>[];

  constructor(readonly layout: Layout) {
    this.rows = printedRows(layout);
    this.shares = rowFeatures(layout, this.rows).map(rowShares);
  }

  /** How unlikely it is that just these rows are lines: 0 for those that look like it, less the more has to be thought otherwise. */
  likely(set: readonly number[]): number {
    const own = new Set(set);
    return this.shares.reduce((all, s, i) => {
      const margin = s.line - Math.max(s.none, s.part);
      return all - (margin > 0 !== own.has(i) ? Math.min(6, Math.abs(margin)) : 0);
    }, 0);
  }

  /** The most likely ways to read the lines: what the rows look like, and what adds up. */
  read(currency: string, legend: ReadonlyMap<string, string>, most = 3): LinesRead[] {
    return sets(this.rows, this.shares, most).flatMap(({ rows: set }): LinesRead[] => {
      const lines = grouped(this.rows, this.shares, set);
      const read = linesOf(this.layout, this.rows, lines, currency, legend);
      if (!read) return [];
      const all = lines.flatMap((l) => [l.row, ...l.parts]);
      const missed = this.shares.filter((s, i) => !set.includes(i) && s.line > Math.log(0.5)).length;
      return [
        {
          lines: read.lines,
          firstRow: Math.min(...all),
          lastRow: Math.max(...all),
          missed,
          likely: this.likely(set),
          multiply: read.multiply,
        },
      ];
    });
  }
}
