import { dec, sum } from '../../money/index.ts';
import { textOf, type Segment, type Word } from '../../page/index.ts';
import type { LabelledRow, Layout } from '../layout.ts';
import type { Cells } from './cells.ts';
import type { Column, Heading } from './heading.ts';
import { productOf } from './roles.ts';
import { holds, numberCell } from './values.ts';

interface Span {
  x0: number;
  x1: number;
}
const spanOf = (s: Segment): Span => ({ x0: s.x, x1: s.x + s.w });

/** A row that may be a line of a table: two figures of which one is an amount, and text, or three figures alone. */
function lineLike(row: LabelledRow, layout: Layout, whole: boolean, bare: boolean): boolean {
  if (
    row.totals.some((t) => t.from === 0 && t.role !== 'charge') ||
    row.segments.length < 3 ||
    row.fields.some((f) => !f.weak && row.segments.some((s) => s.words[0] === f.words[0]))
  )
    return false;
  const numbers = row.segments.map((s) => numberCell(s.words, layout.style));
  const figures = numbers.filter((n) => n !== null);
  const named = row.segments.some((s, i) => !numbers[i] && /\p{L}{2}/u.test(s.text));
  return (
    (named ? figures.length >= 2 : bare && figures.length >= 3) &&
    figures.some((n) => n.decimals || whole) &&
    figures.filter((n) => n.percent).length < figures.length - 1
  );
}

/** Where descriptions stand on rows of their own, above the figures. */
function textColumn(layout: Layout, rows: LabelledRow[]): Column | null {
  const own = rows.flatMap((row) => {
    const above = layout.rows[row.index - 1];
    return above && above.page === row.page && !rows.includes(above) && row.y - above.y < 2.4 * row.h && above.segments.length <= 3
      ? [above.segments.reduce((a, b) => (b.w > a.w ? b : a))]
      : [];
  });
  if (own.length < rows.length * 0.6) return null;
  return { role: 'description', x0: Math.min(...own.map((s) => s.x)), x1: Math.max(...own.map((s) => s.x + s.w)), text: '', words: [] };
}

/** Columns where no row has anything between them: the rows' pieces, laid over each other. */
function columnsOf(rows: LabelledRow[]): Span[] {
  const spans = rows.flatMap((r) => r.segments.map(spanOf)).sort((a, b) => a.x0 - b.x0);
  const columns: Span[] = [];
  for (const span of spans) {
    const last = columns[columns.length - 1];
    if (last && span.x0 < last.x1 + 0.5) last.x1 = Math.max(last.x1, span.x1);
    else columns.push({ ...span });
  }
  return columns;
}

function cellsIn(row: LabelledRow, columns: Span[]): Cells {
  const cells: Cells = columns.map(() => []);
  for (const s of row.segments)
    cells[
      Math.max(
        0,
        columns.findIndex((c) => s.x + s.w / 2 <= c.x1),
      )
    ]!.push(...s.words);
  return cells;
}

/** What stands in a column, from its texts alone: words, a running number, codes, units, percentages, or figures. */
function roleOf(cells: Word[][], layout: Layout): Column['role'] {
  const texts = cells.map(textOf).filter(Boolean);
  const share = (test: (text: string) => boolean): number => texts.filter(test).length / Math.max(1, texts.length);
  const numbers = cells.filter((c) => c.length > 0).map((c) => numberCell(c, layout.style));
  if (texts.length > 1 && texts.every((t, i) => t === String(i + 1))) return 'position';
  if (share((t) => /^-?[\d.,]+ ?%$/.test(t)) > 0.6) return 'taxRate';
  if (numbers.filter(Boolean).length > texts.length * 0.7) return 'other';
  if (
    share((t) => /^\p{L}{1,6}\.?$/u.test(t)) > 0.7 &&
    new Set(texts).size <= Math.max(8, texts.length / 2) &&
    share((t) => t.length <= 6) > 0.9
  )
    return 'unit';
  if (share((t) => /^[\p{L}\d./-]{2,20}$/u.test(t) && /\d/.test(t)) > 0.6) return 'code';
  return 'description';
}

/** Rows cut into columns by where their pieces stand, each with what its texts say it holds. */
function gridOf(rows: LabelledRow[], layout: Layout): { cells: Cells[]; columns: Column[] } {
  const spans = columnsOf(rows),
    cells = rows.map((row) => cellsIn(row, spans));
  return {
    cells,
    columns: spans.map((span, i) => ({
      ...span,
      role: roleOf(
        cells.map((c) => c[i]!),
        layout,
      ),
      text: '',
      words: [],
    })),
  };
}

/**
 * A table without a heading row: the columns come from where the rows' pieces stand, and which of them is quantity, price and
 * amount from what multiplies. Null when nothing multiplies.
 */
export function headless(layout: Layout, currency: string): Heading | null {
  const like = (bare: boolean) => layout.rows.filter((row) => lineLike(row, layout, currency === 'JPY', bare));
  return headingFrom(like(false), layout, currency) ?? headingFrom(like(true), layout, currency) ?? unpriced(like(false), layout, currency);
}

function headingFrom(rows: LabelledRow[], layout: Layout, currency: string): Heading | null {
  if (rows.length === 0) return null;
  const { cells, columns } = gridOf(rows, layout);
  const widest = columns.filter((c) => c.role === 'description').sort((a, b) => b.x1 - b.x0 - (a.x1 - a.x0))[0];
  for (const c of columns) if (c.role === 'description' && c !== widest) c.role = 'other';
  // A column of percentages is the discount only if the lines multiply better with it.
  const discounted = columns.map((c) => (c.role === 'taxRate' ? { ...c, role: 'discount' as const } : c));
  const plain = productOf(columns, cells, layout.style, currency),
    reduced = productOf(discounted, cells, layout.style, currency);
  const product = reduced && reduced.proven > (plain?.proven ?? 0) ? reduced : plain;
  if (!product || product.quantity === null || product.price === null || product.proven < Math.max(1, rows.length * 0.5)) return null;
  columns[product.amount]!.role = 'amount';
  columns[product.quantity]!.role = 'quantity';
  columns[product.price]!.role = 'unitPrice';
  if (product.discount !== null) columns[product.discount]!.role = 'discount';
  for (const c of columns)
    if (
      c.role === 'other' &&
      rates(
        cells.map((row) => row[columns.indexOf(c)]!),
        layout,
      )
    )
      c.role = 'taxRate';
  const code = columns.findIndex(
    (c, i) =>
      c.role === 'other' &&
      cells.filter((row) => row[i]!.length === 1 && /^[\p{L}\d./-]{3,20}$/u.test(row[i]![0]!.text)).length >= cells.length * 0.8,
  );
  if (code >= 0 && !columns.some((c) => c.role === 'code')) columns[code]!.role = 'code';
  const text = columns.some((c) => c.role === 'description') ? null : textColumn(layout, rows);
  const before = rows[0]!.index - (text ? 2 : 1);
  return {
    page: rows[0]!.page,
    columns: text ? [...columns, text] : columns,
    first: before,
    last: before,
    score: 0,
    doubtful: product.doubtful,
  };
}

/** Few different small numbers, or a letter in each row: the tax rate or its code. */
function rates(cells: Word[][], layout: Layout): boolean {
  const texts = cells.map(textOf).filter(Boolean);
  if (texts.length === 0 || new Set(texts).size > 3) return false;
  return (
    texts.every((t) => /^[A-Z]\d?$/.test(t)) ||
    cells.filter((c) => c.length > 0).every((c) => Number(numberCell(c, layout.style)?.value ?? 99) <= 30)
  );
}

/** True for a row on which two figures multiply to a third: a line, wherever it stands. */
export function isProvenLine(row: LabelledRow, layout: Layout, currency: string): boolean {
  if (!lineLike(row, layout, currency === 'JPY', true)) return false;
  const figures = row.segments.map((s) => numberCell(s.words, layout.style)).filter((n) => n !== null && !n.percent && Number(n.value) > 1);
  return figures.some((a, i) =>
    figures.some((b, j) => j > i && figures.some((c, k) => k !== i && k !== j && holds(a!.value, b!.value, null, 1, c!.value, currency))),
  );
}

/**
 * A table without heading and without prices: nothing multiplies, but the amounts of its last column add up to one that is printed
 * below. Null when they do not.
 */
function unpriced(rows: LabelledRow[], layout: Layout, currency: string): Heading | null {
  if (rows.length < 2) return null;
  const { cells, columns } = gridOf(rows, layout);
  const figures = (i: number) => cells.map((c) => numberCell(c[i]!, layout.style));
  const amount = columns.findLastIndex(
    (c, i) => c.role === 'other' && figures(i).every((n) => n !== null && !n.percent && (n.decimals || currency === 'JPY')),
  );
  if (amount < 0) return null;
  const total = sum(figures(amount).map((n) => dec(n!.value)));
  const last = rows[rows.length - 1]!;
  const printed = layout.rows.some(
    (row) =>
      row.index > last.index &&
      row.segments.some((s) => {
        const n = numberCell(s.words, layout.style);
        return n !== null && dec(n.value).eq(total);
      }),
  );
  if (!printed) return null;
  columns[amount]!.role = 'amount';
  // One column of figures is left: quantities, unless every row has the same, as a rate would be.
  const rest = columns.filter((c, i) => c.role === 'other' && figures(i).filter(Boolean).length > rows.length * 0.5);
  const varied = rest.length === 1 && new Set(figures(columns.indexOf(rest[0]!)).map((n) => n?.value)).size > 1;
  if (varied) rest[0]!.role = 'quantity';
  for (const [i, c] of columns.entries())
    if (
      c.role === 'other' &&
      rates(
        cells.map((row) => row[i]!),
        layout,
      )
    )
      c.role = 'taxRate';
  const before = rows[0]!.index - 1;
  return { page: rows[0]!.page, columns, first: before, last: before, score: 0 };
}
