import { layOut, type Layout } from '../../core/reading/layout.ts';
import { plainWord } from '../../core/reading/learned/features.ts';
import { itemFeatures, type LineRows } from '../../core/reading/rows/itemfeatures.ts';
import { printedRows, type Item, type PrintedRow } from '../../core/reading/rows/printed.ts';
import { rowFeatures } from '../../core/reading/rows/rowfeatures.ts';
import { surroundingsOf } from '../../core/reading/head/around.ts';
import { totalFeatures } from '../../core/reading/totals/features.ts';
import { totalTags, type TotalTag } from '../../core/reading/totals/tags.ts';
import { itemTags, rowTags, type ItemTag, type RowTag } from '../../core/reading/rows/tags.ts';
import type { Example } from './optimise.ts';
import type { Sample } from './samples.ts';

/** A document with what each printed row and each item of its lines is. Null where the truth could not be found on the page. */
export interface Told {
  sample: Sample;
  layout: Layout;
  rows: PrintedRow[];
  tags: RowTag[];
  /** By line of the truth: its row, and the tags of the items of its rows. */ lines: { row: number; items: Map<Item, ItemTag> }[];
}

const tokens = (text: string): string[] =>
  text
    .split(/[\s/–-]+/)
    .map(plainWord)
    .filter(Boolean);
const same = (a: string, b: string): boolean => Number(a) === Number(b);
const wordsOf = (row: PrintedRow): string[] => row.items.flatMap((i) => tokens(i.text));

export function tell(sample: Sample): Told | null {
  const layout = layOut(sample.pages),
    rows = printedRows(layout);
  const tags: RowTag[] = rows.map(() => 'none');
  const lines: Told['lines'] = [];
  let last = -1;
  for (const line of sample.truth.lines) {
    if (line.amount === null) return null;
    const wanted = new Set(tokens(line.description ?? ''));
    const shared = (r: number) => new Set(wordsOf(rows[r]!).filter((w) => wanted.has(w))).size;
    // The first row that has the amount, and the line's words in it or near it.
    let best = -1;
    for (let r = last + 1; r < rows.length && best < 0; r++) {
      if (!rows[r]!.items.some((i) => i.figure && same(i.figure.value.replace('-', ''), line.amount!.replace('-', '')))) continue;
      let near = 0;
      for (let q = Math.max(0, r - 3); q <= Math.min(rows.length - 1, r + 3); q++)
        if (rows[q]!.row.page === rows[r]!.row.page) near = Math.max(near, shared(q));
      if (wanted.size === 0 || shared(r) >= 1 || near >= Math.max(1, Math.floor(wanted.size / 3))) best = r;
    }
    if (best < 0) return null;
    tags[best] = 'line';
    lines.push({ row: best, items: new Map() });
    last = best;
  }
  for (const [n, line] of sample.truth.lines.entries()) {
    const { row, items } = lines[n]!;
    const from = Math.max((lines[n - 1]?.row ?? -1) + 1, row - 4),
      to = Math.min((lines[n + 1]?.row ?? rows.length) - 1, row + 6);
    // Words of the description in their order, from the row that begins it.
    const wanted = tokens(line.description ?? '');
    let at = 0;
    const belongs = new Set<number>([row]);
    const order = Array.from({ length: to - from + 1 }, (_, k) => from + k).filter((r) => rows[r]!.row.page === rows[row]!.row.page);
    // Of the rows above the line's own only those that begin with the next words of the description.
    const start = order.find((r) => {
      const words = wordsOf(rows[r]!).filter((w) => /\p{L}/u.test(w));
      return (
        wanted.length > 0 &&
        words.includes(wanted[0]!) &&
        (r === row || words.filter((w) => wanted.includes(w)).length >= Math.max(1, words.length * 0.6))
      );
    });
    for (const r of order.filter((q) => q >= (start ?? row))) {
      for (const item of rows[r]!.items) {
        const own = tokens(item.text);
        if (own.length === 0 || at >= wanted.length) continue;
        const next = wanted.slice(at, at + own.length);
        if (own.every((w, k) => w === next[k])) {
          items.set(item, 'description');
          at += own.length;
          belongs.add(r);
        }
      }
    }
    const free = (r: number) => rows[r]!.items.filter((i) => !items.has(i));
    const mark = (tag: ItemTag, fits: (i: Item) => boolean, right: boolean) => {
      for (const r of [row, ...order.filter((q) => q !== row && Math.abs(q - row) <= 2)]) {
        const hits = free(r).filter(fits);
        const hit = right ? hits.at(-1) : hits[0];
        if (hit) {
          items.set(hit, tag);
          belongs.add(r);
          return;
        }
      }
    };
    const amount = rows[row]!.items.filter((i) => i.figure && same(i.figure.value.replace('-', ''), line.amount!.replace('-', ''))).at(-1)!;
    items.set(amount, 'amount');
    const { quantity, unitPrice, taxRate, code } = line;
    if (unitPrice !== null)
      mark(
        'price',
        (i) =>
          i.figure !== null &&
          !i.figure.percent &&
          same(i.figure.value.replace('-', ''), unitPrice.replace('-', '')) &&
          (i.figure.decimals > 0 || i.figure.value.length > 0),
        true,
      );
    if (quantity !== null) mark('quantity', (i) => i.figure !== null && !i.figure.percent && same(i.figure.value, quantity), false);
    if (code) {
      const squashed = code.replace(/\s+/g, '').toUpperCase();
      mark(
        'code',
        (i) =>
          i.text
            .replace(/\s+/g, '')
            .replace(/[:;,.]$/, '')
            .toUpperCase() === squashed,
        false,
      );
    }
    if (taxRate !== null) {
      mark('rate', (i) => i.figure !== null && same(i.figure.value, taxRate) && (i.figure.percent || i.text.length <= 4), true);
      if (![...items.values()].includes('rate')) mark('rate', (i) => /^(\p{L}|\d|\p{L}\d)$/u.test(i.text), true);
    }
    if (line.discountPercent)
      mark('discount', (i) => i.figure !== null && same(i.figure.value.replace('-', ''), line.discountPercent!), true);
    for (const r of belongs) {
      if (tags[r] === 'none') tags[r] = 'part';
      for (const item of rows[r]!.items) if (!items.has(item)) items.set(item, 'other');
    }
  }
  return { sample, layout, rows, tags, lines };
}

export const rowExamples = (t: Told): Example[] =>
  rowFeatures(t.layout, t.rows).map((features, i) => ({ features, tag: rowTags.indexOf(t.tags[i]!) }));

/** The printed rows that truly belong to each line. */
export const linesTold = (t: Told): LineRows[] =>
  t.lines.map(({ row, items }) => ({
    row,
    parts: [...new Set([...items.keys()].map((item) => t.rows.findIndex((r) => r.items.includes(item))))]
      .filter((r) => r !== row)
      .sort((a, b) => a - b),
  }));

/** The items of a document's lines, in the rows that truly belong to them. */
export const itemExamples = (t: Told): Example[] =>
  itemFeatures(t.layout, t.rows, linesTold(t)).map(({ item, line, features }) => ({
    features,
    tag: itemTags.indexOf(t.lines[line]!.items.get(item) ?? 'other'),
  }));

/** The figures beside a document's lines, with what the truth says of them. */
export function totalExamples(t: Told): Example[] {
  const { truth } = t.sample;
  const inLines = new Set(t.tags.flatMap((tag, row) => (tag === 'none' ? [] : [row])));
  const sum = truth.lines.reduce((a, l) => a + Number(l.amount), 0);
  const seen = totalFeatures(surroundingsOf(t.layout), t.rows, { has: (row) => inLines.has(row), sum, last: Math.max(...inLines) });
  const is = (value: unknown, figure: string) => typeof value === 'string' && Math.abs(Number(value)) === Math.abs(Number(figure));
  const taxes = (truth['taxBreakdown'] ?? []) as { tax: string }[],
    charges = (truth['charges'] ?? []) as { amount: string }[];
  return seen.map(({ item, features }) => {
    const { value } = item.figure!;
    const tag: TotalTag = is(truth['grossTotal'], value)
      ? 'gross'
      : is(truth['netTotal'], value)
        ? 'net'
        : is(truth['taxTotal'], value) || taxes.some((x) => is(x.tax, value))
          ? 'tax'
          : charges.some((x) => is(x.amount, value))
            ? 'charge'
            : 'none';
    return { features, tag: totalTags.indexOf(tag) };
  });
}
