import type { Layout } from '../layout.ts';
import type { ReadLine } from '../types.ts';
import type { LineRows } from './itemfeatures.ts';
import { linesOf } from './lines.ts';
import { rowsInContext, type LogShares } from './models.ts';
import { printedRows, type Item, type PrintedRow } from './printed.ts';
import { bullet, countsWhole, hasProduct, moneyLike, reaches, rowFeatures, runsOn, valuesOf } from './rowfeatures.ts';
import type { RowTag } from './tags.ts';

/** One way to read the lines of a document. */
export interface LinesRead {
  lines: ReadLine[];
  firstRow: number;
  lastRow: number;
  /** Rows elsewhere that look like lines. */ missed: number;
  /** What its rows look like, as a logarithm of certainty: 0 is what they look like most. */ likely: number;
  /** Of how many lines quantity and price make the amount. */ multiply: number;
  /** Among how many sets of rows it was found. */ tried: number;
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

/** Whether a row has words that may say what a line is: more than a unit or a code. */
const tells = ({ items }: PrintedRow): boolean => items.filter((i) => !i.figure && /\p{L}{3}/u.test(i.text)).length >= 2;

/** Lines with the rows that belong to each. */
function grouped(rows: readonly PrintedRow[], shares: readonly LogShares<RowTag>[], set: readonly number[]): LineRows[] {
  const far = reaches(rows),
    whole = countsWhole(rows);
  const own = new Set(set);
  // Rows that begin at one edge and are printed alike are all parts of lines, or none is.
  const alike = new Map<string, number[]>();
  const kindOf = ({ row, items }: PrintedRow) =>
    `${Math.round(row.x / 3)} ${row.words[0]!.font} ${Math.round(row.words[0]!.size * 2)} ${bullet.test(items[0]?.text ?? '')}`;
  const leaning = (r: number) => Math.max(-3, Math.min(3, shares[r]!.part - shares[r]!.none));
  const [top, end] = [Math.min(...set), Math.max(...set)];
  for (let r = top + 1; r <= end + 6 && r < rows.length; r++)
    if (!own.has(r) && shares[r]!.part > Math.log(0.02))
      (alike.get(kindOf(rows[r]!)) ?? alike.set(kindOf(rows[r]!), []).get(kindOf(rows[r]!))!).push(leaning(r));
  const looks = (r: number) => {
    if (own.has(r)) return false;
    const others = alike.get(kindOf(rows[r]!)) ?? [];
    const mean = others.length > 1 ? others.reduce((a, l) => a + l, 0) / others.length : leaning(r);
    return shares[r]!.part > Math.log(0.05) && (mean + leaning(r)) / 2 > 0;
  };
  const parts = new Set(rows.flatMap((_, r) => (looks(r) ? [r] : [])));
  // Where most lines' own rows say nothing of what they are, the row over or under each does.
  const mute = set.filter((r) => !tells(rows[r]!));
  let over = false;
  if (mute.length > 0 && mute.length >= 0.6 * set.length) {
    const free = (r: number) => rows[r] !== undefined && !own.has(r) && rows[r]!.items.some((i) => /\p{L}{3}/u.test(i.text));
    const mass = (o: number) =>
      mute.reduce((a, r) => a + (free(r + o) && rows[r + o]!.row.page === rows[r]!.row.page ? Math.exp(shares[r + o]!.part) : 0), 0);
    over = mass(-1) > mass(1);
    for (const r of mute) {
      const beside = r + (over ? -1 : 1);
      if (!free(beside) || rows[beside]!.row.page !== rows[r]!.row.page) continue;
      parts.add(beside);
      // The text may have begun a row earlier.
      if (over) for (let q = beside; free(q - 1) && runsOn(rows, q, far); q--) parts.add(q - 1);
    }
  }
  // What runs on from a row of a line is part of it too.
  for (let r = 1; r < rows.length; r++)
    if (!own.has(r) && !parts.has(r) && (own.has(r - 1) || parts.has(r - 1)) && runsOn(rows, r, far) && shares[r]!.part > Math.log(0.08))
      parts.add(r);
  // A row with an amount where the lines have theirs is something of its own.
  const ends = set.flatMap((r) => rows[r]!.items.filter((i) => moneyLike(i, whole)).at(-1)?.end ?? []);
  const hasAmount = (r: number) => rows[r]!.items.some((i) => moneyLike(i, whole) && ends.some((e) => Math.abs(e - i.end) < 3));
  const isPart = (r: number) => parts.has(r) && !hasAmount(r);
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
  const below = !over && !(runs[0]!.length > 0 && runs.at(-1)!.length === 0);
  const lines = set.map((row): LineRows => ({ row, parts: [] }));
  for (const [k, run] of runs.entries()) {
    const cut = k === 0 ? 0 : k === set.length ? run.length : partsBetween(rows, set[k - 1]!, set[k]!, run, below);
    if (k > 0) lines[k - 1]!.parts.push(...run.slice(0, cut));
    if (k < set.length) lines[k]!.parts.unshift(...run.slice(cut));
  }
  return lines;
}

/** How many single rows and how many groups of rows are doubted at most, and how many of these are changed at once. */
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
function costOf(margins: readonly number[]): number {
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
      before !== null &&
      keyOf(before) === key &&
      rows[before.row]!.row.page === rows[c.row]!.row.page &&
      c.row - before.row < 9 &&
      candidates.every((o) => o.row <= before!.row || o.row >= c.row);
    if (follows) runs.at(-1)!.push(c);
    else runs.push([c]);
    before = c;
  }
  const sets = [...runs, ...classes.values()].filter((g) => g.length > 1);
  return sets.filter((g, i) => sets.findIndex((o) => o.length === g.length && o[0] === g[0]) === i);
}

/** Right edges on which amounts of most rows that look like lines stand, the outer one first; none where there is no such edge. */
function edgesOf(rows: readonly PrintedRow[], shares: readonly LogShares<RowTag>[]): (number | null)[] {
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
const innerEdge = 1;

interface Found {
  rows: number[];
  cost: number;
  /** Among how many sets it was found: the more were tried, the less it says that one of them adds up. */ tried: number;
  /** Its amounts add up to a printed figure. */ adds: boolean;
}

/** Sets of rows whose amounts add up to another printed figure, for the least change of what they look like; the set that they look like first. */
function sets(rows: readonly PrintedRow[], shares: readonly LogShares<RowTag>[], most: number, edge: number | null): Found[] {
  const whole = countsWhole(rows);
  const margin = shares.map(marginOf);
  const candidates = rows.flatMap((r, row): Candidate[] => {
    if (margin[row]! < -9) return [];
    const amounts = r.items.filter((x) => moneyLike(x, whole));
    const amount =
      amounts.filter((x) => edge !== null && Math.abs(x.end - edge) < 4).at(-1) ??
      amounts.at(-1) ??
      (margin[row]! > 0 ? r.items.filter((x) => x.figure && !x.figure.percent).at(-1) : undefined);
    return amount ? [{ row, amount, value: tenThousandths(amount.figure!.value), margin: margin[row]! }] : [];
  });
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
    if (own.length > 0 && target.times > own.filter((c) => c.value === total).length)
      found.push({ rows: own.map((c) => c.row), cost: cost + target.cost, tried: 1, adds: true });
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
const marginOf = (s: LogShares<RowTag>): number => s.line - Math.max(s.none, s.part);

/** What each printed row of a document looks like. */
export class RowsSeen {
  readonly rows: PrintedRow[];
  readonly shares: LogShares<RowTag>[];

  constructor(readonly layout: Layout) {
    this.rows = printedRows(layout);
    this.shares = rowsInContext(this.rows, rowFeatures(layout, this.rows), countsWhole(this.rows));
  }

  /** How unlikely it is that just these rows are lines: 0 for those that look like it, less the more has to be thought otherwise. */
  likely(set: readonly number[]): number {
    const own = new Set(set);
    // Rows that are alike err together.
    const against = new Map<string, number[]>();
    for (const [i, s] of this.shares.entries()) {
      const margin = marginOf(s);
      if (margin > 0 === own.has(i)) continue;
      const last = this.rows[i]!.items.filter((x) => x.figure).at(-1);
      const key = `${own.has(i)} ${Math.round((last?.end ?? 0) / 4)} ${Math.round(this.rows[i]!.row.x / 4)}`;
      (against.get(key) ?? against.set(key, []).get(key)!).push(Math.min(7, Math.abs(margin)));
    }
    return -[...against.values()].reduce((all, margins) => all + costOf(margins), 0);
  }

  /** How many rows look like lines and are none of these. */
  missed = (set: readonly number[]): number => this.shares.filter((s, i) => !set.includes(i) && s.line > Math.log(0.5)).length;

  /** The most likely ways to read the lines: what the rows look like, what adds up, and the rows that were found otherwise. */
  *read(currency: string, legend: ReadonlyMap<string, string>, other: readonly number[], most = 4): Generator<LinesRead> {
    const edges = edgesOf(this.rows, this.shares);
    const own = edges
      .flatMap((edge, k) =>
        sets(this.rows, this.shares, most, edge)
          // Of the inner columns only what adds up.
          .filter((f) => k === 0 || f.adds)
          .map((f) => ({ ...f, edge: k === 0 ? null : edge, cost: f.cost + k * innerEdge, tried: f.tried * (k + 1) })),
      )
      .sort((a, b) => a.cost - b.cost)
      .slice(0, most);
    const known = own.some((f) => f.rows.join() === other.join());
    const all = known || other.length === 0 ? own : [...own, { rows: [...other], tried: 1, edge: null }];
    for (const { rows: set, tried, edge } of all) {
      const lines = grouped(this.rows, this.shares, set);
      const read = linesOf(this.layout, this.rows, lines, currency, legend, edge);
      if (!read) continue;
      const of = lines.flatMap((l) => [l.row, ...l.parts]);
      yield {
        lines: read.lines,
        firstRow: Math.min(...of),
        lastRow: Math.max(...of),
        missed: this.missed(set),
        likely: this.likely(set),
        multiply: read.multiply,
        tried,
      };
    }
  }
}
