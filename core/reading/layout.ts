import { rowsOf, type Page, type Row } from '../page/index.ts';
import { findLabels, type Found } from './labels.ts';
import { columnBook, fieldBook, totalBook, type ColumnLabel, type FieldLabel, type TotalLabel } from './lexicon/index.ts';
import { decideStyle, type NumberStyle } from '../numbers/index.ts';

/** A printed row with the labels that stand on it. */
export interface LabelledRow extends Row {
  index: number;
  fields: Found<FieldLabel>[];
  columns: Found<ColumnLabel>[];
  totals: Found<TotalLabel>[];
}

/** A document laid out for reading: its rows over all pages, in order. */
export interface Layout {
  pages: Page[];
  rows: LabelledRow[];
  style: NumberStyle;
  text: string;
}

type PageRow = Omit<LabelledRow, 'index'>;
const known = new WeakMap<Page, PageRow[]>();

/** The rows of one page; a page is laid out by itself to part a pile, and again with its document. */
function rowsOn(page: Page): PageRow[] {
  let rows = known.get(page);
  if (!rows) {
    rows = rowsOf(page).map(({ x, y, w, h, words, segments, text }) => ({
      x,
      y,
      w,
      h,
      page: page.number,
      words,
      segments,
      text,
      fields: findLabels(words, fieldBook),
      columns: findLabels(words, columnBook),
      totals: findLabels(words, totalBook),
    }));
    known.set(page, rows);
  }
  return rows;
}

export function layOut(pages: Page[]): Layout {
  const rows = pages.flatMap(rowsOn).map((row, index): LabelledRow => ({ ...row, index }));
  for (const row of rows) row.fields = row.fields.filter((f) => !isPrefix(rows, row, f));
  return { pages, rows, style: decideStyle(pages.flatMap((p) => p.words)), text: rows.map((r) => r.text).join('\n') };
}

/** "PO" in "Order: PO 24331" is the beginning of the number, not a label of its own. */
function isPrefix(rows: LabelledRow[], row: LabelledRow, field: Found<FieldLabel>): boolean {
  if (
    field.role !== 'purchaseOrder' ||
    field.words.length > 1 ||
    !/^P\.?O\.?$/.test(field.words[0]!.text) ||
    !/^\d/.test(row.words[field.to + 1]?.text ?? '')
  )
    return false;
  const before = (f: Found<FieldLabel>) => f !== field && f.role === field.role;
  if (row.fields.some((f) => before(f) && f.to < field.from)) return true;
  return rows
    .slice(Math.max(0, row.index - 2), row.index)
    .some(
      (above) =>
        above.page === row.page &&
        row.y - above.y < 3.4 * row.h &&
        above.fields.some((f) => before(f) && Math.abs(f.box.x - field.box.x) < 0.8 * field.words[0]!.size),
    );
}
