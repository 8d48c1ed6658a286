import { dec, type Decimal } from '../money/index.ts';
import { textOf, union, type Mark, type Word } from '../page/index.ts';
import { findLabels } from './labels.ts';
import { totalBook, type TotalLabel } from './lexicon/index.ts';
import type { LabelledRow, Layout } from './layout.ts';
import { hasDecimals, isCurrency, parseNumber, parsePercent } from '../numbers/index.ts';
import type { Table } from './table/index.ts';
import { hasLetters } from './letters.ts';

/** An amount outside the line table and what the words beside it call it. */
export interface NamedAmount {
  value: Decimal;
  text: string;
  label: string;
  roles: Map<TotalLabel, number>;
  mark: Mark;
  row: number;
  rate: string | null;
}

interface Printed {
  words: Word[];
  value: string;
  bracketed: boolean;
}

const inRows = new WeakMap<LabelledRow, Printed[]>();
/** Amounts of a row; each row is looked at once, however many ways to read the lines are weighed. */
function amountsIn(row: LabelledRow, layout: Layout, whole: boolean): Printed[] {
  let found = inRows.get(row);
  if (!found) inRows.set(row, (found = findAmounts(row, layout, whole)));
  return found;
}

/** Runs of words on a row that are amounts: "£ 865.17" is two words, "CHF 1 234,50" three. */
function findAmounts(row: LabelledRow, layout: Layout, whole: boolean): Printed[] {
  const found: Printed[] = [];
  for (let i = 0; i < row.words.length; i++) {
    for (const length of [5, 4, 3, 2, 1]) {
      const words = row.words.slice(i, i + length);
      if (words.length < length || !together(words)) continue;
      const text = textOf(words).replace(/:$/, '');
      const value =
        hasDecimals(text) || /[£$€¥]|JPY/.test(text) || (whole && wholeAmount(text, words, row)) ? parseNumber(text, layout.style) : null;
      if (value === null || /^%/.test(row.words[i + length]?.text ?? '')) continue;
      found.push({ words, value, bracketed: /^[(]/.test(text) });
      i += length - 1;
      break;
    }
  }
  return found;
}

/** Words that may be one amount: thousands parted by spaces, with a currency or a minus before or behind, no wide gap between. */
function together(words: Word[]): boolean {
  return words.every((w, k) => {
    const before = words[k - 1];
    if (!before)
      return (
        words.length === 1 ||
        isCurrency(w.text) ||
        /^[-−(]{0,2}[£$€¥]?\d{1,3}$/.test(w.text) ||
        /^[-−]$/.test(w.text) ||
        isCurrency(words[1]!.text)
      );
    if (w.x - (before.x + before.w) > (isCurrency(w.text) || isCurrency(before.text) ? 1.3 : 0.75) * w.size) return false;
    return isCurrency(w.text) || isCurrency(before.text) || /^[-−]$/.test(before.text) || /^\d{3}([.,]\d+)?[)-]?:?$/.test(w.text);
  });
}

/** True where amounts need not have two decimals: yen, or figures as a spreadsheet shows them. */
const countsWhole = (layout: Layout): boolean =>
  /JPY|¥|円/.test(layout.text) || layout.rows.filter((r) => /\d[.,]\d{2}\D*$/.test(r.text)).length < 3;

function wholeAmount(text: string, words: Word[], row: LabelledRow): boolean {
  const last = words[words.length - 1] === row.words[row.words.length - 1] && words[0] !== row.words[0];
  return /^[-−]?\d{1,3}(,\d{3})+$|^\d{3,}$|^0$|^\d+[.,]\d$/.test(text) || (last && /^\d+$/.test(text));
}

/** Amounts of the document outside its lines, each with the roles that its label allows (0 to 1). */
export function namedAmounts(layout: Layout, table: Table, learned: Learned | null = null): NamedAmount[] {
  const found: NamedAmount[] = [];
  const whole = countsWhole(layout);
  for (const row of layout.rows) {
    if (row.index >= table.firstRow && row.index <= table.lastRow) continue;
    const onRow: NamedAmount[] = [];
    for (const printed of amountsIn(row, layout, whole)) {
      const named = name(row, printed, onRow, layout, table);
      // "VAT 20% (1,878.93)" above its box: what the tax is charged on.
      if (printed.bracketed && named.rate !== null && named.roles.has('tax')) {
        onRow.push({ ...named, value: named.value.abs() });
        continue;
      }
      const base = onRow[onRow.length - 1];
      // "VAT 20% on 3,573.75 714.75", "VAT 5 % (51,686.43): 2,584.32": the first is what the tax is charged on, the second the tax.
      if (base && base.rate !== null && base.roles.has('tax') && isTaxOf(named.value, base)) {
        onRow[onRow.length - 1] = { ...base, roles: new Map(), label: '' };
        onRow.push({ ...named, roles: base.roles, rate: base.rate, label: base.label });
      } else onRow.push(named);
    }
    found.push(...onRow);
  }
  return learned ? withLearned(found, learned(table)) : found;
}

/** What figures beside the lines look like, by the place of their first word: each role's share of certainty. */
export type Learned = (table: Table) => Map<string, Partial<Record<'net' | 'tax' | 'gross' | 'charge', number>>>;
export const placeOf = (page: number, x: number, y: number): string => `${page} ${x.toFixed(1)} ${y.toFixed(1)}`;

/** Roles that figures look like beside those that their labels allow: a word that nobody listed is no gate. */
const withLearned = (amounts: NamedAmount[], shares: ReturnType<Learned>): NamedAmount[] =>
  amounts.map((amount) => {
    const seen = shares.get(placeOf(amount.mark.page, amount.mark.x, amount.mark.y));
    if (!seen) return amount;
    const roles = new Map(amount.roles);
    for (const [role, share] of Object.entries(seen) as [TotalLabel, number][])
      if (share > 0.1) roles.set(role, Math.max(roles.get(role) ?? 0, share));
    return { ...amount, roles };
  });

const isTaxOf = (tax: Decimal, base: NamedAmount): boolean =>
  base.value
    .abs()
    .times(base.rate!)
    .div(100)
    .minus(tax.abs())
    .abs()
    .lte(base.text.includes('.') ? '0.05' : '0.6');

function name(row: LabelledRow, { words, value }: Printed, before: NamedAmount[], layout: Layout, table: Table): NamedAmount {
  const previous = before[before.length - 1];
  const label = labelWords(row, words[0]!, previous);
  const roles = rolesOf(label);
  const column = table.columns.length ? columnRole(table, row, words) : null;
  if (column && column !== 'goods' && (roles.has('goods') || roles.has('gross') || label.length === 0)) roles.set(column, 0.8);
  let rate = rateIn(label, layout),
    text = textOf(label);
  if (!label.some((w) => hasLetters(w.text)) || roles.size === 0) {
    const over = above(layout, row, words);
    if (over) {
      for (const [role, score] of rolesOf(over)) if (!roles.has(role)) roles.set(role, score * 0.9);
      rate ??= rateIn(over, layout);
      text ||= textOf(over);
    } else if (previous && roles.size === 0)
      for (const [role, score] of column ? [[column, 0.8] as const] : previous.roles) roles.set(role, score * 0.6);
  }
  // A figure behind another one has no words of its own: "Levy, 124.93 t at 2.13 266.10".
  text ||= previous?.label ?? '';
  return { value: dec(value), text: value, label: text, roles, mark: { page: row.page, ...union(words) }, row: row.index, rate };
}

/** The words left of an amount that speak about it: from the last amount before it, the nearest two segments at most. */
function labelWords(row: LabelledRow, first: Word, previous: NamedAmount | undefined): Word[] {
  const from = previous ? previous.mark.x + previous.mark.w - 0.1 : -Infinity;
  const words = row.words.filter((w) => w.x >= from && w.x < first.x && !isCurrency(w.text));
  const segments = row.segments.filter((s) => s.words.some((w) => words.includes(w)));
  const near = segments.slice(-2).flatMap((s) => s.words.filter((w) => words.includes(w)));
  const last = segments[segments.length - 1];
  return last?.words.some((w) => words.includes(w) && hasLetters(w.text)) ? last.words.filter((w) => words.includes(w)) : near;
}

function rolesOf(words: Word[]): Map<TotalLabel, number> {
  const roles = new Map<TotalLabel, number>();
  const labels = findLabels(words, totalBook);
  for (const label of labels) {
    const lead = label.from === 0 ? 1 : label.from <= 2 ? 0.75 : 0.5;
    const whole = label.words.length >= words.filter((w) => hasLetters(w.text)).length ? 1 : 0.8;
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

/** The label in the row just above that stands in line with the amount: totals in boxes. */
function above(layout: Layout, row: LabelledRow, words: Word[]): Word[] | null {
  const box = union(words);
  const prior = layout.rows[row.index - 1];
  if (!prior || prior.page !== row.page || row.y - prior.y > row.h * 2.6) return null;
  let best: Word[] | null = null,
    least = Infinity;
  for (const all of prior.segments.flatMap((s) => cutAtLabels(s.words))) {
    const s = union(all);
    const overlap = Math.min(s.x + s.w, box.x + box.w) - Math.max(s.x, box.x);
    const own = all.filter((w) => !/^[(]?[\d.,]+\d[.,]\d{2}[)]?$/.test(w.text));
    if (overlap < Math.min(s.w, box.w) * 0.4 || (own.length < all.length && !own.some((w) => hasLetters(w.text)))) continue;
    const apart = Math.min(Math.abs(s.x - box.x), Math.abs(s.x + s.w - box.x - box.w), Math.abs(s.x + s.w / 2 - box.x - box.w / 2));
    if (apart < least) {
      least = apart;
      best = own;
    }
  }
  return best;
}

/** Headings of boxes that stand so close that no gap parts them: each label begins one. */
function cutAtLabels(words: Word[]): Word[][] {
  const starts = findLabels(words, totalBook)
    .map((l) => l.from)
    .filter((from) => from > 0);
  return [0, ...starts].map((from, k) => words.slice(from, starts[k] ?? words.length));
}

function rateIn(words: Word[], layout: Layout): string | null {
  for (let i = 0; i < words.length; i++) {
    const rate =
      [1, 2, 3]
        .map((n) => parsePercent(textOf(words.slice(i, i + n)).replace(/^[@(]\s*|^\p{L}+(?=\d)|[:;,)]+$/gu, ''), layout.style))
        .find((found) => found !== null) ?? null;
    if (rate !== null && dec(rate.replace('-', '')).lte(30)) return rate.replace(/\.0+$|(?<=\.\d*[1-9])0+$/, '');
  }
  return null;
}
