import { dec, type Decimal } from '../money/index.ts';
import type { Layout } from './layout.ts';
import { hasDecimals, parseNumber, parsePercent } from '../numbers/index.ts';
import type { Table } from './table/index.ts';

/** A tax row: rate, the amount it is charged on, and the tax. */
export interface TaxRow {
  rate: string;
  net: string;
  tax: string;
  row: number;
}

/**
 * Tax rows: three numbers on one row, one of which is a rate, where net × rate is the tax to the minor unit
 * ("A 20.00 211.60 42.32", "VAT 20% on 3,573.75 714.75").
 */
export const taxRows = (layout: Layout, table: Table): TaxRow[] => {
  let all = taxRowsOf.get(layout);
  if (!all) taxRowsOf.set(layout, (all = findTaxRows(layout)));
  return all
    .filter((r) => r.row < table.firstRow || r.row > table.lastRow)
    .filter((r, i, rows) => rows.findIndex((o) => o.rate === r.rate && o.net === r.net) === i);
};
/** Each document's are sought once, however many ways to read its lines are weighed. */
const taxRowsOf = new WeakMap<Layout, TaxRow[]>();

function findTaxRows(layout: Layout): TaxRow[] {
  const rows: TaxRow[] = [];
  const whole = /JPY|¥|円/.test(layout.text);
  for (const row of layout.rows) {
    const numbers: { value: Decimal; percent: boolean; text: string }[] = [];
    for (const word of row.words) {
      const percent = parsePercent(word.text.replace(/[,;]$/, ''), layout.style);
      const value = percent ?? parseNumber(word.text.replace(/[,;:]$/, ''), layout.style);
      if (value !== null) numbers.push({ value: dec(value), percent: percent !== null, text: value });
    }
    if (numbers.length < 3) continue;
    search: for (const rate of numbers) {
      if (rate.value.gt(30) || rate.value.isNegative()) continue;
      for (let i = 0; i < numbers.length; i++)
        for (let j = i + 1; j < numbers.length; j++) {
          const net = numbers[i]!,
            tax = numbers[j]!;
          if (net === rate || tax === rate || net.value.lte(0)) continue;
          if (!hasDecimals(net.text) && !whole) continue;
          if (net.value.times(rate.value).div(100).minus(tax.value).abs().gt('0.011')) continue;
          if (rate.value.isZero() && (!tax.value.isZero() || !(rate.percent || hasDecimals(rate.text)))) continue;
          rows.push({ rate: rate.value.toString(), net: net.value.toFixed(), tax: tax.text, row: row.index });
          break search;
        }
    }
  }
  return rows;
}

/** Codes that a legend explains: "A standard 20%", "Tax S: VAT 20% on …", and rows of a tax table that begin with a letter. */
export function legendOf(layout: Layout): Map<string, string> {
  const legend = new Map<string, string>();
  for (const row of layout.rows) {
    const spoken =
      /(?:^|\b(?:tax|vat|code|btw|mwst|tva|iva|moms)\s)([A-Z]\d?)\s*[:=-]?\s*(?:vat|tax|btw|mwst|tva|iva|moms|standard rate)?\s*@?\s*(\d{1,2}(?:[.,]\d+)?)\s?%/i.exec(
        row.text,
      );
    if (spoken && /^[A-Z]\d?$/.test(spoken[1]!)) legend.set(spoken[1]!, spoken[2]!.replace(',', '.'));
    for (const [i, word] of row.words.entries()) {
      const rate = row.words[i + 1]?.text ?? '';
      if (!/^[A-Z]\d?$/.test(word.text) || !/^\d{1,2}[.,]\d{1,2}$/.test(rate)) continue;
      const value = parseNumber(rate, layout.style);
      if (value !== null && dec(value).lte(30) && row.words.length >= i + 3 && !legend.has(word.text))
        legend.set(word.text, dec(value).toString());
    }
  }
  return legend;
}

/** The rate that the page gives for a code of one or two signs, elsewhere than in its lines: "2 = V.A.T. at 20.0%", "Z zero rated 0%". */
export function explained(layout: Layout, code: string, inLines: (row: number) => boolean): string | null {
  for (const row of layout.rows) {
    if (inLines(row.index)) continue;
    const at = row.words.findIndex(
      (w) =>
        w.text
          .replace(/[=:.,)(]+$/, '')
          .replace(/^\(/, '')
          .toUpperCase() === code.toUpperCase(),
    );
    if (at < 0) continue;
    const behind = row.words.slice(at + 1, at + 10);
    // The percent sign may stand apart: "0 %".
    const rate = behind.find(
      (w, i) => /^=?\d{1,2}([.,]\d+)?\s?%/.test(w.text) || (/^\d{1,2}([.,]\d+)?$/.test(w.text) && behind[i + 1]?.text[0] === '%'),
    );
    const value = rate && parseNumber(rate.text.replace(/[=%].*$|^=/g, ''), layout.style);
    if (value && dec(value).lte(35)) return dec(value).toString();
  }
  return null;
}
