import type { Page } from '../page/index.ts';
import { documentNumber } from './header.ts';
import { hasTitle } from './kind.ts';
import { layOut } from './layout.ts';

/** What tells whether a page begins a document: the number it names beyond doubt, and whether it bears a title. */
export function headOf(page: Page): { number: string | null; titled: boolean } {
  if (page.words.length === 0) return { number: null, titled: false };
  const layout = layOut([page]);
  return { number: documentNumber(layout), titled: hasTitle(layout) };
}
