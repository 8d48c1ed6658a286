import { rowsOf, type Page, type Row } from '../page/index.ts';
import { findLabels, type Found } from './labels.ts';
import { columnBook, fieldBook, totalBook, type ColumnLabel, type FieldLabel, type TotalLabel } from './lexicon/index.ts';
import { decideStyle, type NumberStyle } from './numbers.ts';

/** A printed row with the labels that stand on it. */
export interface LabelledRow extends Row {
  index: number;
  fields: Found<FieldLabel>[];
  columns: Found<ColumnLabel>[];
  totals: Found<TotalLabel>[];
}

/** A document laid out for reading: its rows over all pages, in order. */
export interface Layout { pages: Page[]; rows: LabelledRow[]; style: NumberStyle; text: string }

export function layOut(pages: Page[]): Layout {
  const rows = pages.flatMap(rowsOf).map((row, index) => ({
    ...row, index,
    fields: findLabels(row.words, fieldBook), columns: findLabels(row.words, columnBook), totals: findLabels(row.words, totalBook),
  }));
  return { pages, rows, style: decideStyle(pages.flatMap((p) => p.words)), text: rows.map((r) => r.text).join('\n') };
}
