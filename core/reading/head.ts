import type { Page } from '../page/index.ts';
import { documentNumber } from './header.ts';
import { hasTitle } from './kind.ts';
import { layOut } from './layout.ts';
import { readDocument } from './read.ts';

const amount = /\d[.,]\d{2}(?!\d)/;

/** What tells whether a page begins a document, or ends one: the number it names beyond doubt, whether it bears a title, and a total to pay. */
export function headOf(page: Page): { number: string | null; titled: boolean; total: boolean; /** A sum of any kind. */ summed: boolean } {
  if (page.words.length === 0) return { number: null, titled: false, total: false, summed: false };
  const layout = layOut([page]);
  return {
    number: documentNumber(layout),
    titled: hasTitle(layout),
    total: layout.rows.some((row) => row.totals.some((t) => t.role === 'gross') && amount.test(row.text)),
    summed: layout.rows.some((row) => row.totals.length > 0 && amount.test(row.text)),
  };
}

/** Whether pages are a document by themselves as far as its figures go: lines add up to its net, net and tax to its total. */
export function sumsClose(pages: readonly Page[]): boolean {
  const { kind, lines, flags, header } = readDocument(pages.map((page, i) => ({ ...page, number: i + 1 })));
  return (
    kind !== 'other' &&
    lines.length > 0 &&
    Boolean(header.grossTotal?.proof && header.netTotal?.proof) &&
    !['lines', 'netTotal', 'taxTotal', 'grossTotal'].some((path) => flags.includes(path))
  );
}
