import { findDates } from '../../dates/index.ts';
import type { PrintedRow } from './printed.ts';
import type { SeenItem } from './itemfeatures.ts';
import type { LogShares } from './models.ts';
import { bullet, hasProduct, moneyLike, printedAs, reaches, rowsOfLargest, runsOn, under, valuesOf } from './rowfeatures.ts';
import { itemTags, rowTags, type ItemTag, type RowTag } from './tags.ts';
import { beginsSmall, hasWord } from '../letters.ts';

/** Nothing is less likely than this, as a natural logarithm. */
const least = -8;
const own = (log: number): number => Math.max(least, log) / 4;

/** What others of a kind say on the average, the more of them the more; nothing where there is none. */
class Mean {
  private readonly sums = new Map<string, { sum: Float64Array; n: number }>();

  constructor(private readonly width: number) {}

  add(key: string, shares: ArrayLike<number>): void {
    const one = this.sums.get(key) ?? { sum: new Float64Array(this.width), n: 0 };
    for (let i = 0; i < this.width; i++) one.sum[i]! += shares[i]!;
    one.n++;
    this.sums.set(key, one);
  }

  /** The others' mean with one's own shares left out, and how many they are. */
  others(key: string, mine: ArrayLike<number>): { mean: Float64Array; n: number } {
    const { sum, n: all } = this.sums.get(key)!;
    const n = all - 1;
    // Two that agree tell more than one, ten little more than five.
    const mean = new Float64Array(this.width);
    if (n > 0) for (let i = 0; i < this.width; i++) mean[i] = (sum[i]! - mine[i]!) / (n + 0.5);
    return { mean, n };
  }
}

function shareList<Tag extends string>(tags: readonly Tag[], logs: LogShares<Tag>): Float64Array {
  const list = new Float64Array(tags.length);
  for (let i = 0; i < tags.length; i++) list[i] = Math.exp(logs[tags[i]!]);
  return list;
}

/** Numbers one after another. */
class Numbers {
  private readonly room = new Float64Array(128);
  private n = 0;

  put(...numbers: number[]): void {
    for (let i = 0; i < numbers.length; i++) this.room[this.n++] = numbers[i]!;
  }
  all(numbers: ArrayLike<number>): void {
    for (let i = 0; i < numbers.length; i++) this.room[this.n++] = numbers[i]!;
  }
  flag(...flags: boolean[]): void {
    for (let i = 0; i < flags.length; i++) this.room[this.n++] = flags[i] ? 1 : 0;
  }
  /** All that were put since the last time. */
  take(): Float64Array {
    const taken = this.room.slice(0, this.n);
    this.n = 0;
    return taken;
  }
}

const line = rowTags.indexOf('line'),
  part = rowTags.indexOf('part');

/** Of rows that begin and are printed alike, under how many of the likely lines one stands: nearly all is the document's rhythm, few are remarks. */
function rhythm(rows: readonly PrintedRow[], shares: readonly Float64Array[]): { above: number[]; of: (i: number) => number } {
  const above: number[] = [];
  const under = new Map<string, number>();
  let lines = 0,
    last = -1,
    seen = new Set<string>();
  for (const [i, row] of rows.entries()) {
    if (shares[i]![line]! > 0.5) {
      lines++;
      [last, seen] = [i, new Set()];
    } else if (last >= 0 && i - last <= 6 && rows[last]!.row.page === row.row.page) {
      const kind = printedAs(row);
      if (!seen.has(kind)) under.set(kind, (under.get(kind) ?? 0) + 1);
      seen.add(kind);
    } else last = -1;
    above.push(last === i ? -1 : last);
  }
  return { above, of: (i) => Math.min(1, (under.get(printedAs(rows[i]!)) ?? 0) / Math.max(1, lines)) };
}

/** Each row's own shares with those of the rows round it and of all that look like it: one of a table is like the others. */
export function rowContext(rows: readonly PrintedRow[], logs: readonly LogShares<RowTag>[], whole: boolean): Float64Array[] {
  const width = rowTags.length;
  const shares = logs.map((l) => shareList(rowTags, l));
  const keys = rows.map(({ row, items }) => {
    const figures = items.filter((i) => i.figure);
    const amount = figures.filter((i) => moneyLike(i, whole)).at(-1);
    const bold = row.words[0]!.font;
    return [
      `x${Math.round(row.x / 3)} ${Math.min(4, figures.length)} ${bold}`,
      `e${amount ? Math.round(amount.end / 4) : '-'} ${Math.min(3, row.segments.length)} ${bold}`,
      `p${row.segments.map((s) => Math.round(s.x / 4)).join(' ')}`,
    ];
  });
  const far = reaches(rows);
  const largestAt = rowsOfLargest(rows, whole);
  const means = [0, 1, 2].map(() => new Mean(width));
  for (const [i, own] of keys.entries()) for (const [k, key] of own.entries()) means[k]!.add(key, shares[i]!);
  const { above, of: rhythmOf } = rhythm(rows, shares);
  const x = new Numbers();
  return rows.map(({ row, items }, i) => {
    for (const tag of rowTags) x.put(own(logs[i]![tag]));
    for (const [k, key] of keys[i]!.entries()) {
      const { mean, n } = means[k]!.others(key, shares[i]!);
      x.all(mean);
      x.put(Math.min(6, n) / 6);
    }
    const onPage = (k: number) => rows[k]?.row.page === row.page;
    for (const o of [-3, -2, -1, 1, 2, 3]) x.put(...(onPage(i + o) ? [shares[i + o]![line]!, shares[i + o]![part]!] : [0, 0]));
    // Whether lines stand before and behind: what lies between is mostly of the table.
    let before = 0,
      behind = 0;
    for (let k = 1; k <= 8; k++) {
      if (rows[i - k]) before = Math.max(before, shares[i - k]![line]!);
      if (rows[i + k]) behind = Math.max(behind, shares[i + k]![line]!);
    }
    x.put(before, behind, before * behind);
    x.flag(
      largestAt.some((r) => r < i),
      largestAt.some((r) => r > i),
    );
    const values = valuesOf(rows[i]);
    const near = (o: number) => (onPage(i + o) ? valuesOf(rows[i + o]) : []);
    x.flag(
      hasProduct(values),
      values.length > 0 && hasProduct([...values, ...near(-1)]),
      values.length > 0 && hasProduct([...values, ...near(1)]),
      items.some((o) => moneyLike(o, whole)),
      values.length > 0,
      items.some((o) => !o.figure && hasWord(o.text)),
    );
    const over = under(rows, i);
    x.flag(over?.inner ?? false, over?.alike ?? false, over?.open ?? false);
    x.put(over ? shares[over.at]![line]! : 0, over?.alike ? shares[over.at]![line]! : 0, over ? shares[over.at]![part]! : 0);
    x.flag(bullet.test(items[0]?.text ?? ''), row.segments.length === 1, runsOn(rows, i, far), runsOn(rows, i + 1, far));
    const gap = (a: number, b: number) =>
      onPage(a) && onPage(b) ? Math.max(-1, Math.min(4, (rows[b]!.row.y - rows[a]!.row.y - rows[a]!.row.h) / row.h)) / 4 : 1;
    x.put(gap(i - 1, i), gap(i, i + 1), gap(i - 1, i) - gap(i, i + 1));
    x.flag(
      beginsSmall(row.text),
      /^[(\[]/.test(row.text),
      /:$/.test(row.segments[0]!.text),
      /\d/.test(row.text),
      findDates(row.text).length > 0,
    );
    x.put(Math.min(10, row.words.length) / 10, Math.min(6, row.segments.length) / 6);
    const at = above[i]!;
    x.flag(at >= 0);
    if (at < 0) x.put(0, 0, 0, 0, 0, 0);
    else {
      const top = rows[at]!.row,
        longest = top.segments.reduce((a, s) => (s.text.replace(/\P{L}/gu, '').length > a.text.replace(/\P{L}/gu, '').length ? s : a));
      x.flag(Math.abs(top.x - row.x) < 3, Math.abs(longest.x - row.x) < 3, longest.words[0]!.font === row.words[0]!.font);
      x.put((i - at) / 6, Math.min(2, row.words[0]!.size / longest.size) / 2, rhythmOf(i));
    }
    return x.take();
  });
}

/** Each item's own shares with those of its column in other lines, of those beside it, and of what else its line has. */
export function itemContext(seen: readonly SeenItem[], logs: readonly LogShares<ItemTag>[]): Float64Array[] {
  const width = itemTags.length;
  const shares = logs.map((l) => shareList(itemTags, l));
  const columns = new Mean(width);
  const byLine = new Map<number, number[]>();
  for (const [i, s] of seen.entries()) {
    columns.add(s.column, shares[i]!);
    (byLine.get(s.line) ?? byLine.set(s.line, []).get(s.line)!).push(i);
  }
  const description = itemTags.indexOf('description');
  const nothing = new Float64Array(width);
  const x = new Numbers();
  return seen.map((s, i) => {
    for (const tag of itemTags) x.put(own(logs[i]![tag]));
    const { mean, n } = columns.others(s.column, shares[i]!);
    x.all(mean);
    x.put(Math.min(6, n) / 6, n / Math.max(1, byLine.size - 1));
    // What else of the line is taken for each: two prices are one too many.
    const line = byLine.get(s.line)!;
    const most = new Float64Array(width);
    let words = 0,
      described = 0;
    for (const j of line) {
      const other = seen[j]!;
      if (j !== i && other.item.left !== s.item.left) for (let t = 0; t < width; t++) most[t] = Math.max(most[t]!, shares[j]![t]!);
      if (other.at === s.at && !other.item.figure) {
        words++;
        described += shares[j]![description]!;
      }
    }
    x.all(most);
    x.put(words ? described / words : 0);
    // What stands beside it on its row.
    for (const o of [-1, 1]) x.all(seen[i + o]?.at === s.at ? shares[i + o]! : nothing);
    x.flag(s.at === s.first, s.at < s.first, seen[i - 1]?.at === s.at && seen[i - 1]!.item.left === s.item.left);
    const figure = s.item.figure;
    x.flag(
      s.makes,
      s.made,
      (figure?.decimals ?? 0) === 2,
      (figure?.decimals ?? 0) > 2,
      figure?.percent ?? false,
      figure?.unit !== '' && figure !== null,
    );
    x.put(Math.min(1, line.length / 20), figure ? Math.min(1, Math.log10(1 + Math.abs(Number(figure.value))) / 6) : 0);
    return x.take();
  });
}
