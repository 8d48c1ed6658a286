import { numberAsPrinted, parseNumber, type NumberStyle } from '../numbers/index.ts';

/**
 * Figures that were copied together, as plain decimals ("1234.50"), null where a text is none. They are all in one style: the first of
 * `styles` in which most of them are numbers. A single cell that is none in it is tried in the other style.
 */
export function readFigures(texts: readonly string[], styles: readonly NumberStyle[]): (string | null)[] {
  const some = texts.filter((t) => /\d/.test(t));
  const fits = (style: NumberStyle) => some.filter((t) => parseNumber(bare(t), style) !== null).length;
  const style = styles.reduce((best, next) => (fits(next) > fits(best) ? next : best), styles[0] ?? { decimal: '.' });
  return texts.map((t) => parseNumber(bare(t), style) ?? numberAsPrinted(bare(t), style));
}
const bare = (text: string): string => text.trim().replace(/\s*%$/, '');
