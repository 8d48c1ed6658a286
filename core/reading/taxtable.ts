import { dec } from '../money/index.ts';
import type { Word } from '../page/index.ts';
import type { Layout } from './layout.ts';
import { hasDecimals, parseNumber, parsePercent, type NumberStyle } from '../numbers/index.ts';
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
    const numbers: { text: string; about: number; percent: boolean }[] = [];
    for (const word of row.words) {
      if (!/\d/.test(word.text)) continue;
      const percent = parsePercent(word.text.replace(/[,;]$/, ''), layout.style);
      const text = percent ?? parseNumber(word.text.replace(/[,;:]$/, ''), layout.style);
      if (text !== null) numbers.push({ text, about: Number(text), percent: percent !== null });
    }
    if (numbers.length < 3) continue;
    search: for (const rate of numbers) {
      if (rate.about > 30 || rate.about < 0) continue;
      for (let i = 0; i < numbers.length; i++)
        for (let j = i + 1; j < numbers.length; j++) {
          const net = numbers[i]!,
            tax = numbers[j]!;
          if (net === rate || tax === rate || net.about <= 0) continue;
          if (!hasDecimals(net.text) && !whole) continue;
          // A quick look first: floats are good for that and for nothing else.
          if (Math.abs((net.about * rate.about) / 100 - tax.about) > 0.02) continue;
          if (dec(net.text).times(rate.text).div(100).minus(tax.text).abs().gt('0.011')) continue;
          if (rate.about === 0 && (tax.about !== 0 || !(rate.percent || hasDecimals(rate.text)))) continue;
          rows.push({ rate: dec(rate.text).toString(), net: dec(net.text).toFixed(), tax: tax.text, row: row.index });
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
export function explaining(layout: Layout, inLines: (row: number) => boolean): (code: string) => string | null {
  // Where each short word stands first in a row: codes are asked for in every line.
  const places = new Map<string, { words: readonly Word[]; at: number }[]>();
  for (const { index, words } of layout.rows) {
    if (inLines(index)) continue;
    const here = new Set<string>();
    for (const [at, { text }] of words.entries()) {
      if (text.length > 8) continue;
      const code = text
        .replace(/[=:.,)(]+$/, '')
        .replace(/^\(/, '')
        .toUpperCase();
      if (code.length > 2 || here.has(code)) continue;
      here.add(code);
      (places.get(code) ?? places.set(code, []).get(code)!).push({ words, at });
    }
  }
  const known = new Map<string, string | null>();
  return (code) => {
    const key = code.toUpperCase();
    let rate = known.get(key);
    if (rate === undefined) known.set(key, (rate = rateBehind(places.get(key) ?? [], layout.style)));
    return rate;
  };
}

/** The first rate of tax that stands behind one of the places. */
function rateBehind(places: readonly { words: readonly Word[]; at: number }[], style: NumberStyle): string | null {
  for (const { words, at } of places) {
    const behind = words.slice(at + 1, at + 10);
    // The percent sign may stand apart: "0 %".
    const rate = behind.find(
      (w, i) => /^=?\d{1,2}([.,]\d+)?\s?%/.test(w.text) || (/^\d{1,2}([.,]\d+)?$/.test(w.text) && behind[i + 1]?.text[0] === '%'),
    );
    const value = rate && parseNumber(rate.text.replace(/[=%].*$|^=/g, ''), style);
    if (value && dec(value).lte(35)) return dec(value).toString();
  }
  return null;
}
