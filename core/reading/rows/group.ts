import type { LineRows } from './itemfeatures.ts';
import type { LogShares } from './models.ts';
import type { PrintedRow } from './printed.ts';
import { countsWhole, moneyLike, printedAs, reaches, runsOn, under } from './rowfeatures.ts';
import type { RowTag } from './tags.ts';
import { hasWord } from '../letters.ts';

/** Of the rows between two lines, those before the cut belong to the first: where the widest gap is, else as the document does elsewhere. */
function partsBetween(rows: readonly PrintedRow[], from: number, to: number, parts: readonly number[], below: boolean): number {
  if (parts.length === 0) return 0;
  // What is left open over the second line goes on in it.
  let last = parts.length;
  while (last > 0 && leadsTo(rows, parts[last - 1]!, parts[last] ?? to)) last--;
  return Math.min(last, cutBetween(rows, from, to, parts, below));
}

/** Whether a row's text is left open, with a comma or a small word, and goes on under it in the next row. */
const leadsTo = (rows: readonly PrintedRow[], at: number, next: number): boolean => {
  if (next !== at + 1 || !rows[next]) return false;
  const over = under(rows, next);
  return over?.at === at && over.open;
};

function cutBetween(rows: readonly PrintedRow[], from: number, to: number, parts: readonly number[], below: boolean): number {
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
const tells = ({ items }: PrintedRow): boolean => items.filter((i) => !i.figure && hasWord(i.text)).length >= 2;

/** Lines with the rows that belong to each. */
export function grouped(rows: readonly PrintedRow[], shares: readonly LogShares<RowTag>[], set: readonly number[]): LineRows[] {
  const far = reaches(rows),
    whole = countsWhole(rows);
  const own = new Set(set);
  // Rows that begin at one edge and are printed alike are all parts of lines, or none is.
  const alike = new Map<string, number[]>();
  const leaning = (r: number) => Math.max(-3, Math.min(3, shares[r]!.part - shares[r]!.none));
  const [top, end] = [Math.min(...set), Math.max(...set)];
  for (let r = top + 1; r <= end + 6 && r < rows.length; r++)
    if (!own.has(r) && shares[r]!.part > Math.log(0.02))
      (alike.get(printedAs(rows[r]!)) ?? alike.set(printedAs(rows[r]!), []).get(printedAs(rows[r]!))!).push(leaning(r));
  const looks = (r: number) => {
    if (own.has(r)) return false;
    const others = alike.get(printedAs(rows[r]!)) ?? [];
    const mean = others.length > 1 ? others.reduce((a, l) => a + l, 0) / others.length : leaning(r);
    return shares[r]!.part > Math.log(0.05) && mean + 2 * leaning(r) > 0;
  };
  const parts = new Set(rows.flatMap((_, r) => (looks(r) ? [r] : [])));
  // Where most lines' own rows say nothing of what they are, the row over or under each does.
  const mute = set.filter((r) => !tells(rows[r]!));
  let over = false;
  if (mute.length > 0 && mute.length >= 0.6 * set.length) {
    const free = (r: number) => rows[r] !== undefined && !own.has(r) && rows[r]!.items.some((i) => hasWord(i.text));
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
  // What is left open over a line's row is where it begins.
  for (const row of set)
    for (let r = row - 1; r >= 0 && !own.has(r) && leadsTo(rows, r, r + 1) && shares[r]!.part > Math.log(0.02); r--) parts.add(r);
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

/** How sure it is, for each line, that just these rows are its own: by the least sure of them and of the rows beside it that are not. */
export function sureOf(rows: readonly PrintedRow[], shares: readonly LogShares<RowTag>[], lines: readonly LineRows[]): number[] {
  const own = new Set(lines.flatMap((l) => [l.row, ...l.parts]));
  const lineRows = new Set(lines.map((l) => l.row));
  const alike = new Map<string, { sum: number; n: number }>();
  const share = (r: number) => Math.exp(shares[r]!.part);
  for (const [r, row] of rows.entries()) {
    const one = alike.get(printedAs(row)) ?? alike.set(printedAs(row), { sum: 0, n: 0 }).get(printedAs(row))!;
    if (lineRows.has(r)) continue;
    one.sum += share(r);
    one.n++;
  }
  // Rows that are printed alike mean the same.
  const part = (r: number) => {
    const { sum, n } = alike.get(printedAs(rows[r]!))!;
    return (sum + share(r)) / (n + 1);
  };
  return lines.map(({ row, parts }) => {
    const all = [row, ...parts].sort((a, b) => a - b);
    const beside = [all[0]! - 1, all.at(-1)! + 1].filter((r) => rows[r]?.row.page === rows[row]!.row.page && !own.has(r));
    return Math.min(1, ...parts.map(part), ...beside.map((r) => 1 - part(r)));
  });
}
