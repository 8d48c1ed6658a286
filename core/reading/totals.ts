import { dec, type Decimal } from '../money/index.ts';
import { textOf, union, type Mark, type Word } from '../page/index.ts';
import { findLabels } from './labels.ts';
import { totalBook, type TotalLabel } from './lexicon/index.ts';
import type { LabelledRow, Layout } from './layout.ts';
import { hasDecimals, parseNumber, parsePercent } from './numbers.ts';
import type { Table } from './table/index.ts';

/** An amount outside the line table and what the words beside it call it. */
export interface NamedAmount { value: Decimal; text: string; label: string; roles: Map<TotalLabel, number>; mark: Mark; row: number; rate: string | null; own: boolean }

/** A tax row: rate, the amount it is charged on, and the tax. */
export interface TaxRow { rate: string; net: string; tax: string; row: number }

/** Runs of words on a row that are amounts ("£ 865.17" is two words). */
function amountsIn(row: LabelledRow, layout: Layout): { words: Word[]; value: string }[] {
  const found: { words: Word[]; value: string }[] = [];
  for (let i = 0; i < row.words.length; i++) {
    for (const length of [3, 2, 1]) {
      const words = row.words.slice(i, i + length);
      if (words.length < length) continue;
      if (length > 1 && !/^(?:[-−(]?[£$€¥]|GBP|EUR|USD|JPY|[-−]|\d{1,3})$/.test(words[0]!.text)) continue;
      if (length > 1 && words.slice(1).some((w, k) => w.x - (words[k]!.x + words[k]!.w) > 1.2 * w.size)) continue;
      const text = textOf(words);
      const money = hasDecimals(text) || /[£$€¥]|JPY/.test(text);
      const value = money ? parseNumber(text, layout.style) : null;
      if (value === null || /%$/.test(row.words[i + length]?.text ?? '') && row.words[i + length]!.text === '%') continue;
      found.push({ words, value });
      i += length - 1;
      break;
    }
  }
  return found;
}

const yen = (layout: Layout): boolean => /JPY|¥|円/.test(layout.text);

/** Amounts of the document outside its lines, each with the roles that its label allows (0 to 1). */
export function namedAmounts(layout: Layout, table: Table): NamedAmount[] {
  const found: NamedAmount[] = [];
  for (const row of layout.rows) {
    const inTable = row.index >= table.firstRow && row.index <= table.lastRow;
    if (inTable) continue;
    const amounts = yen(layout) && amountsIn(row, layout).length === 0 ? integersIn(row, layout) : amountsIn(row, layout);
    for (const [k, { words, value }] of amounts.entries()) {
      const before = labelWords(row, words[0]!, amounts[k - 1]?.words);
      const roles = rolesOf(before);
      const column = table.columns.length ? columnRole(table, row, words) : null;
      if (column && (roles.has('goods') || before.length === 0 || column === 'net')) {
        const bare = roles.has('goods') || roles.has('gross') || before.length === 0;
        if (bare && column !== 'goods') roles.set(column, 0.8);
      }
      if (k > 0 && roles.size === 0 && amounts.length >= 2) inherit(roles, found[found.length - 1], column);
      if (before.length === 0 || roles.size === 0) above(layout, row, words, roles);
      found.push({ value: dec(value), text: value, label: textOf(before), roles, mark: { page: row.page, ...union(words) }, row: row.index, rate: rateIn(before, layout), own: roles.size > 0 });
    }
  }
  return found;
}

function integersIn(row: LabelledRow, layout: Layout): { words: Word[]; value: string }[] {
  return row.words.flatMap((word, i) => {
    const closing = i === row.words.length - 1 && i > 0 && /^\d+$/.test(word.text);
    const value = /^[¥]?\d{1,3}(,\d{3})+$|^¥\d+$|^\d{3,}$|^0$/.test(word.text) || closing ? parseNumber(word.text, layout.style) : null;
    return value ? [{ words: [word], value }] : [];
  });
}

/** The words left of an amount that speak about it: from the last amount before it, the nearest two segments at most. */
function labelWords(row: LabelledRow, first: Word, previous: Word[] | undefined): Word[] {
  const start = previous ? row.words.indexOf(previous[previous.length - 1]!) + 1 : 0;
  const words = row.words.slice(start, row.words.indexOf(first));
  const segments = row.segments.filter((s) => s.words.some((w) => words.includes(w)));
  const near = segments.slice(-2).flatMap((s) => s.words.filter((w) => words.includes(w)));
  const last = segments[segments.length - 1];
  const lettered = last?.words.some((w) => words.includes(w) && /\p{L}{2}/u.test(w.text) && !/^(GBP|EUR|USD|JPY)$/.test(w.text));
  return lettered ? last!.words.filter((w) => words.includes(w)) : near;
}

function rolesOf(words: Word[]): Map<TotalLabel, number> {
  const roles = new Map<TotalLabel, number>();
  const labels = findLabels(words, totalBook);
  for (const label of labels) {
    const lead = label.from === 0 ? 1 : label.from <= 2 ? 0.75 : 0.5;
    const whole = label.words.length >= words.filter((w) => /\p{L}{2}/u.test(w.text)).length ? 1 : 0.8;
    roles.set(label.role, Math.max(roles.get(label.role) ?? 0, lead * whole));
  }
  // "Less trade discount" and "Total fees" start with a word that has a meaning of its own.
  if (roles.has('discount')) roles.delete('gross');
  if (/^(sub|zwischen|sous|del)/i.test(words[0]?.text ?? '')) roles.delete('gross');
  return roles;
}

/** What the table's column above an amount holds: "Totals 190.40 38.08 228.48" under Net, VAT and Gross. */
function columnRole(table: Table, row: LabelledRow, words: Word[]): TotalLabel | null {
  const x1 = Math.max(...words.map((w) => w.x + w.w));
  if (row.index - table.lastRow > 6) return null;
  const column = table.columns.find((c) => Math.abs(c.x1 - x1) < words[0]!.size * 0.6);
  if (!column) return null;
  if (column.role === 'taxAmount') return 'tax';
  if (column.role === 'grossAmount') return 'gross';
  const split = table.columns.some((c) => c.role === 'grossAmount');
  return column.role === 'amount' && split ? 'net' : null;
}

function inherit(roles: Map<TotalLabel, number>, previous: NamedAmount | undefined, column: TotalLabel | null): void {
  if (column) roles.set(column, 0.8);
  else if (previous) for (const [role, score] of previous.roles) roles.set(role, score * 0.6);
}

/** A label in the row just above, in line with the amount: totals in boxes. */
function above(layout: Layout, row: LabelledRow, words: Word[], roles: Map<TotalLabel, number>): void {
  const box = union(words);
  const prior = layout.rows[row.index - 1];
  if (!prior || prior.page !== row.page || row.y - prior.y > row.h * 2.6) return;
  for (const s of prior.segments) {
    const overlap = Math.min(s.x + s.w, box.x + box.w) - Math.max(s.x, box.x);
    if (overlap < Math.min(s.w, box.w) * 0.4 || s.words.some((w) => /\d[.,]\d{2}/.test(w.text))) continue;
    for (const [role, score] of rolesOf(s.words)) if (!roles.has(role)) roles.set(role, score * 0.8);
  }
}

function rateIn(words: Word[], layout: Layout): string | null {
  for (let i = 0; i < words.length; i++) {
    const rate = [1, 2, 3].map((n) => parsePercent(textOf(words.slice(i, i + n)).replace(/^[@(]\s*|[:;,)]+$/g, ''), layout.style)).find((found) => found !== null) ?? null;
    if (rate !== null && dec(rate.replace('-', '')).lte(30)) return rate.replace(/\.0+$|(?<=\.\d*[1-9])0+$/, '');
  }
  return null;
}

/**
 * Tax rows: three numbers on one row, one of which is a rate, where net × rate is the tax to the minor unit
 * ("A 20.00 211.60 42.32", "VAT 20% on 3,573.75 714.75").
 */
export function taxRows(layout: Layout, table: Table): TaxRow[] {
  const rows: TaxRow[] = [];
  for (const row of layout.rows) {
    if (row.index >= table.firstRow && row.index <= table.lastRow) continue;
    const numbers: { value: Decimal; percent: boolean; text: string }[] = [];
    for (const word of row.words) {
      const percent = parsePercent(word.text.replace(/[,;]$/, ''), layout.style);
      const value = percent ?? parseNumber(word.text.replace(/[,;:]$/, ''), layout.style);
      if (value !== null) numbers.push({ value: dec(value), percent: percent !== null, text: value });
    }
    if (numbers.length < 3) continue;
    search: for (const rate of numbers) {
      if (rate.value.gt(30) || rate.value.isNegative()) continue;
      for (let i = 0; i < numbers.length; i++) for (let j = i + 1; j < numbers.length; j++) {
        const net = numbers[i]!, tax = numbers[j]!;
        if (net === rate || tax === rate || net.value.lte(0)) continue;
        if (!hasDecimals(net.text) && !yen(layout)) continue;
        if (net.value.times(rate.value).div(100).minus(tax.value).abs().gt('0.011')) continue;
        if (rate.value.isZero() && (!tax.value.isZero() || !(rate.percent || hasDecimals(rate.text)))) continue;
        rows.push({ rate: rate.value.toString(), net: net.value.toFixed(), tax: tax.text, row: row.index });
        break search;
      }
    }
  }
  return rows.filter((r, i) => rows.findIndex((o) => o.rate === r.rate && o.net === r.net) === i);
}

/** Codes that a legend explains: "A standard 20%", "Tax S: VAT 20% on …", and rows of a tax table that begin with a letter. */
export function legendOf(layout: Layout): Map<string, string> {
  const legend = new Map<string, string>();
  for (const row of layout.rows) {
    const spoken = /(?:^|\b(?:tax|vat|code|btw|mwst|tva)\s)([A-Z]\d?)\s*[:=-]?\s*(?:vat|tax|btw|mwst|tva|standard rate)?\s*@?\s*(\d{1,2}(?:[.,]\d+)?)\s?%/i.exec(row.text);
    if (spoken && /^[A-Z]\d?$/.test(spoken[1]!)) legend.set(spoken[1]!, spoken[2]!.replace(',', '.'));
    for (const [i, word] of row.words.entries()) {
      const rate = row.words[i + 1]?.text ?? '';
      if (!/^[A-Z]\d?$/.test(word.text) || !/^\d{1,2}[.,]\d{1,2}$/.test(rate)) continue;
      const value = parseNumber(rate, layout.style);
      if (value !== null && dec(value).lte(30) && row.words.length >= i + 3 && !legend.has(word.text)) legend.set(word.text, dec(value).toString());
    }
  }
  return legend;
}
