import type { PrintedRow } from './printed.ts';
import type { SeenItem } from './itemfeatures.ts';
import type { LogShares } from './models.ts';
import { bullet, hasProduct, moneyLike, reaches, rowsOfLargest, runsOn, under, valuesOf } from './rowfeatures.ts';
import { itemTags, rowTags, type ItemTag, type RowTag } from './tags.ts';

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

  /** The others' mean with one's own shares left out. */
  write(to: Float64Array, at: number, key: string, mine: ArrayLike<number>): number {
    const one = this.sums.get(key)!;
    const n = one.n - 1;
    // Two that agree tell more than one, ten little more than five.
    if (n > 0) for (let i = 0; i < this.width; i++) to[at + i] = (one.sum[i]! - mine[i]!) / (n + 0.5);
    return n;
  }
}

const shareList = <Tag extends string>(tags: readonly Tag[], logs: LogShares<Tag>): Float64Array =>
  Float64Array.from(tags, (tag) => Math.exp(logs[tag]));

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
  return rows.map(({ row }, i) => {
    const x = new Float64Array(width * 4 + 22);
    let at = 0;
    for (const tag of rowTags) x[at++] = own(logs[i]![tag]);
    for (const [k, key] of keys[i]!.entries()) {
      const n = means[k]!.write(x, at, key, shares[i]!);
      at += width;
      x[at++] = Math.min(6, n) / 6;
    }
    // Whether lines stand before and behind: what lies between is mostly of the table.
    let before = 0,
      behind = 0;
    for (let k = 1; k <= 8; k++) {
      if (rows[i - k]) before = Math.max(before, shares[i - k]![1]!);
      if (rows[i + k]) behind = Math.max(behind, shares[i + k]![1]!);
    }
    x[at++] = before;
    x[at++] = behind;
    x[at++] = before * behind;
    const values = valuesOf(rows[i]);
    const near = (o: number) => (rows[i + o]?.row.page === row.page ? valuesOf(rows[i + o]) : []);
    x[at++] = largestAt.some((r) => r < i) ? 1 : 0;
    x[at++] = largestAt.some((r) => r > i) ? 1 : 0;
    x[at++] = hasProduct(values) ? 1 : 0;
    x[at++] = values.length && hasProduct([...values, ...near(-1)]) ? 1 : 0;
    x[at++] = values.length && hasProduct([...values, ...near(1)]) ? 1 : 0;
    x[at++] = rows[i]!.items.some((o) => moneyLike(o, whole)) ? 1 : 0;
    x[at++] = values.length ? 1 : 0;
    x[at++] = rows[i]!.items.some((o) => !o.figure && /\p{L}{3}/u.test(o.text)) ? 1 : 0;
    const over = under(rows, i);
    x[at++] = over?.inner ? 1 : 0;
    x[at++] = over?.alike ? 1 : 0;
    x[at++] = over?.alike ? shares[i - 1]![1]! : 0;
    x[at++] = over?.open ? 1 : 0;
    x[at++] = bullet.test(rows[i]!.items[0]?.text ?? '') ? 1 : 0;
    x[at++] = rows[i]!.row.segments.length === 1 ? 1 : 0;
    x[at++] = runsOn(rows, i, far) ? 1 : 0;
    x[at++] = runsOn(rows, i + 1, far) ? 1 : 0;
    return x;
  });
}

/** Each item's own shares with those of its column in other lines, and of what else its line has. */
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
  return seen.map((s, i) => {
    const x = new Float64Array(width * 3 + 4);
    let at = 0;
    for (const tag of itemTags) x[at++] = own(logs[i]![tag]);
    const n = columns.write(x, at, s.column, shares[i]!);
    at += width;
    x[at++] = Math.min(6, n) / 6;
    // What else of the line is taken for each: two prices are one too many.
    const line = byLine.get(s.line)!;
    for (const j of line)
      if (j !== i && seen[j]!.item.left !== s.item.left) for (let t = 0; t < width; t++) x[at + t] = Math.max(x[at + t]!, shares[j]![t]!);
    at += width;
    let words = 0,
      described = 0;
    for (const j of line)
      if (seen[j]!.at === s.at && !seen[j]!.item.figure) {
        words++;
        described += shares[j]![description]!;
      }
    x[at++] = words ? described / words : 0;
    x[at++] = s.at === s.first ? 1 : 0;
    x[at++] = Math.min(1, line.length / 20);
    return x;
  });
}
