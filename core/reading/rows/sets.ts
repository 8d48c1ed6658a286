import type { LogShares } from './models.ts';
import type { Item, PrintedRow } from './printed.ts';
import { countsWhole, hasProduct, moneyLike, valuesOf } from './rowfeatures.ts';
import type { RowTag } from './tags.ts';

/** How many single rows and how many groups of rows are doubted at most, and which are thought otherwise. */
const doubted = 13;
const groupsDoubted = 10;
/** How many sets are looked at, and how much is thought otherwise in the dearest of them. */
const looked = 4000;
const dearest = 12;
/** What it costs to think that a charge is missing from the sum. */
const withCharge = 2;

const tenThousandths = (value: string): number => Math.round(Number(value) * 10_000);

interface Candidate {
  row: number;
  amount: Item;
  /** In ten-thousandths: whole, so that sums are exact. */ value: number;
  margin: number;
}

/** Rows that are thought to be lines, or not to be, against what they look like. */
interface Change {
  of: Candidate[];
  cost: number;
}

/** What it costs to think otherwise of rows that are alike: they err together, so each further one tells less than the first. */
export function costOf(margins: readonly number[]): number {
  const most = Math.max(0, ...margins.map(Math.abs));
  return most + 0.15 * (margins.reduce((a, m) => a + Math.abs(m), 0) - most);
}

/** Rows whose amounts stand on one edge and that begin alike: those that follow each other, and all of the document. */
function groupsOf(rows: readonly PrintedRow[], candidates: readonly Candidate[]): Candidate[][] {
  const classes = new Map<string, Candidate[]>(),
    runs: Candidate[][] = [];
  const keyOf = (c: Candidate) => `${Math.round(c.amount.end / 4)} ${Math.round(rows[c.row]!.row.x / 4)}`;
  let before: Candidate | null = null;
  for (const c of candidates) {
    const key = keyOf(c);
    (classes.get(key) ?? classes.set(key, []).get(key)!).push(c);
    const follows =
      before !== null && keyOf(before) === key && rows[before.row]!.row.page === rows[c.row]!.row.page && c.row - before.row < 9;
    if (follows) runs.at(-1)!.push(c);
    else runs.push([c]);
    before = c;
  }
  const sets = [...runs, ...classes.values()].filter((g) => g.length > 1);
  return sets.filter((g, i) => sets.findIndex((o) => o.length === g.length && o[0] === g[0]) === i);
}

/** Right edges on which amounts of most rows that look like lines stand, the outer one first; none where there is no such edge. */
export function edgesOf(rows: readonly PrintedRow[], shares: readonly LogShares<RowTag>[]): (number | null)[] {
  const whole = countsWhole(rows);
  const liked = rows.filter((r, i) => marginOf(shares[i]!) > 0 && r.items.some((x) => x.figure));
  const ends = liked.flatMap((r) => r.items.filter((x) => moneyLike(x, whole)).map((x) => x.end));
  const found: number[] = [];
  for (const end of [...ends].sort((a, b) => b - a))
    if (!found.some((e) => Math.abs(e - end) < 8) && ends.filter((e) => Math.abs(e - end) < 4).length >= Math.max(1, liked.length * 0.5))
      found.push(end);
  return found.length > 0 ? found.slice(0, edgesTried) : [null];
}
const edgesTried = 2;
/** What it costs to think that amounts do not stand outermost. */
export const innerEdge = 1;

interface Found {
  rows: number[];
  cost: number;
  /** Among how many sets it was found: the more were tried, the less it says that one of them adds up. */ tried: number;
  /** Its amounts add up to a printed figure. */ adds: boolean;
}

/** Rows that may be lines, each with the amount that it would have. */
function candidatesOf(rows: readonly PrintedRow[], shares: readonly LogShares<RowTag>[], edge: number | null, whole: boolean): Candidate[] {
  const margin = shares.map(marginOf);
  return rows.flatMap((r, row): Candidate[] => {
    if (margin[row]! < -9) return [];
    const amounts = r.items.filter((x) => moneyLike(x, whole));
    const amount =
      amounts.filter((x) => edge !== null && Math.abs(x.end - edge) < 4).at(-1) ??
      amounts.at(-1) ??
      (margin[row]! > 0 ? r.items.filter((x) => x.figure && !x.figure.percent).at(-1) : undefined);
    return amount ? [{ row, amount, value: tenThousandths(amount.figure!.value), margin: margin[row]! }] : [];
  });
}

/** The rows that look like lines. */
export const likeliest = (rows: readonly PrintedRow[], shares: readonly LogShares<RowTag>[], edge: number | null): number[] =>
  candidatesOf(rows, shares, edge, countsWhole(rows)).flatMap((c) => (c.margin > 0 ? [c.row] : []));

/** Sets of rows whose amounts add up to another printed figure, for the least change of what they look like; the set that they look like first. */
export function sets(rows: readonly PrintedRow[], shares: readonly LogShares<RowTag>[], most: number, edge: number | null): Found[] {
  const whole = countsWhole(rows);
  const candidates = candidatesOf(rows, shares, edge, whole);
  // A row of which two figures make a third is hardly anything but a line.
  // One that is printed twice running may be meant once.
  const twice = (c: Candidate) =>
    candidates.some((o) => o.row < c.row && c.row - o.row < 8 && rows[o.row]!.row.text === rows[c.row]!.row.text);
  const doubt = (c: Candidate): number =>
    c.margin > 0 && twice(c) ? Math.min(1.5, c.margin) : Math.abs(c.margin) + (c.margin > 0 && hasProduct(valuesOf(rows[c.row])) ? 2 : 0);
  const on = candidates.filter((c) => c.margin > 0),
    base = on.reduce((a, c) => a + c.value, 0);
  const single: Change[] = candidates
    .filter((c) => c.margin > -8)
    .map((c) => ({ of: [c], cost: doubt(c) }))
    .sort((a, b) => a.cost - b.cost)
    .slice(0, doubted);
  const grouped: Change[] = groupsOf(rows, candidates)
    .flatMap((g) => [g.filter((c) => c.margin > 0), g.filter((c) => c.margin <= 0)])
    .filter((of) => of.length > 1)
    .map((of) => ({ of, cost: costOf(of.map(doubt)) }))
    .sort((a, b) => a.cost - b.cost)
    .slice(0, groupsDoubted);
  const open = [...grouped, ...single].sort((a, b) => a.cost - b.cost);
  const targets = targetsOf(rows, whole);
  const found: Found[] = [];
  const costs: number[] = [];
  const flips = new Set<Candidate>();
  const look = (total: number, cost: number) => {
    costs.push(cost);
    const target = total > 0 ? targets.get(total) : undefined;
    if (target === undefined) return;
    const own = candidates.filter((c) => c.margin > 0 !== flips.has(c));
    if (own.length > 0 && target.times > own.filter((c) => c.value === total).length) {
      // What the rows look like most costs nothing, however its sum comes about.
      found.push({ rows: own.map((c) => c.row), cost: flips.size === 0 ? 0 : cost + target.cost, tried: 1, adds: true });
    }
  };
  // Few changes first: what takes many is seldom meant.
  const visit = (from: number, total: number, cost: number, more: number) => {
    for (let i = from; i < open.length && costs.length < looked; i++) {
      const change = open[i]!;
      // Dearer ones follow.
      if (cost + change.cost > dearest) break;
      if (change.of.some((c) => flips.has(c))) continue;
      const made = total + change.of.reduce((a, c) => a + (c.margin > 0 ? -c.value : c.value), 0);
      for (const c of change.of) flips.add(c);
      if (more === 1) look(made, cost + change.cost);
      else visit(i + 1, made, cost + change.cost, more - 1);
      for (const c of change.of) flips.delete(c);
    }
  };
  look(base, 0);
  if (!found.some((f) => f.cost === 0)) found.push({ rows: on.map((c) => c.row), cost: 0, tried: 1, adds: false });
  for (let size = 1; size <= open.length && costs.length < looked; size++) {
    const before = costs.length;
    visit(0, base, 0, size);
    if (costs.length === before) break;
  }
  costs.sort((a, b) => a - b);
  return found
    .filter((f, i) => f.rows.length > 0 && found.findIndex((o) => o.rows.join() === f.rows.join()) === i)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, most)
    .map((f) => ({ ...f, tried: Math.max(1, costs.findIndex((c) => c > f.cost) < 0 ? costs.length : costs.findIndex((c) => c > f.cost)) }));
}

/** What lines may add up to: a printed figure, or one less a charge that stands over it. In ten-thousandths, with how often it is printed. */
function targetsOf(rows: readonly PrintedRow[], whole: boolean): Map<number, { times: number; cost: number }> {
  const targets = new Map<number, { times: number; cost: number }>();
  const figures = rows.flatMap((r, at) =>
    r.items.flatMap((x) => (x.figure && moneyLike(x, whole) ? [{ at, page: r.row.page, value: tenThousandths(x.figure.value) }] : [])),
  );
  for (const { value } of figures) targets.set(value, { times: (targets.get(value)?.times ?? 0) + 1, cost: 0 });
  for (const sum of figures)
    for (const charge of figures) {
      const less = sum.value - charge.value;
      if (charge.at >= sum.at || sum.at - charge.at > 4 || charge.page !== sum.page || charge.value === 0 || less <= 0) continue;
      if (!targets.has(less)) targets.set(less, { times: 1, cost: withCharge });
    }
  return targets;
}

/** How much more a row looks like a line than like anything else. */
export const marginOf = (s: LogShares<RowTag>): number => s.line - Math.max(s.none, s.part);
