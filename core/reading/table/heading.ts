import { union, type Word } from '../../page/index.ts';
import { findLabels } from '../labels.ts';
import { columnBook, type ColumnLabel } from '../lexicon/index.ts';
import type { LabelledRow, Layout } from '../layout.ts';
import { printedAmount } from './values.ts';

/** A column as its heading shows it. */
export interface Column {
  role: ColumnLabel | 'other';
  x0: number;
  x1: number;
  text: string;
  words: Word[];
}
export interface Heading {
  page: number;
  columns: Column[];
  first: number;
  last: number;
  score: number;
  /** Nothing says which factor is the price. */ doubtful?: boolean;
}

const isSign = (text: string): boolean => /^[£€$¥%]$/.test(text) || /^(GBP|EUR|USD|JPY)$/.test(text);
const numeric = (row: LabelledRow): boolean => row.words.some((w) => /\d[.,]\d{2}\b/.test(w.text));

/** The words of a heading row grouped into columns: labels of the lexicon, and the words between them as columns without a role. */
function columnsOf(row: LabelledRow): Column[] {
  const columns: Column[] = [];
  for (const segment of row.segments) {
    const labels = findLabels(segment.words, columnBook);
    let loose: Word[] = [];
    const flush = () => {
      if (loose.length) columns.push(make('other', loose));
      loose = [];
    };
    for (let i = 0; i < segment.words.length; i++) {
      const label = labels.find((l) => l.from === i);
      const last = columns[columns.length - 1];
      if (!label && last && loose.length === 0 && !/[\p{L}\d]/u.test(segment.words[i]!.text) && segment.words.includes(last.words[0]!)) {
        extend(last, [segment.words[i]!]);
        continue;
      }
      if (!label) {
        loose.push(segment.words[i]!);
        continue;
      }
      // "Omschrijving / Description": one column named in two languages.
      if (last && loose.length === 0 && last.role === label.role && last.words.includes(segment.words[i - 1]!)) {
        extend(last, label.words);
        i = label.to;
        continue;
      }
      const sign = isSign(label.words.map((w) => w.text).join(''));
      if (sign && loose.length === 0 && last && segment.words.includes(last.words[last.words.length - 1]!)) extend(last, label.words);
      else if (sign && labels.some((l) => l.from === label.to + 1)) {
        loose.push(...label.words);
        i = label.to;
        continue;
      } else {
        const before = loose.every((w) => isSign(w.text)) ? loose : [];
        if (before.length === 0) flush();
        loose = [];
        columns.push(make(label.role, [...before, ...label.words]));
      }
      i = label.to;
    }
    flush();
  }
  return joinSigns(columns);
}

/** A currency or percent sign that stands alone just behind a heading belongs to it ("RATE  £"). */
function joinSigns(columns: Column[]): Column[] {
  const out: Column[] = [];
  for (const column of columns) {
    const last = out[out.length - 1];
    if (last && isSign(column.text) && column.x0 - last.x1 < 1.4 * column.words[0]!.size) extend(last, column.words);
    else out.push(column);
  }
  return out;
}

function make(role: Column['role'], words: Word[]): Column {
  const box = union(words);
  return { role, x0: box.x, x1: box.x + box.w, text: words.map((w) => w.text).join(' '), words };
}

function extend(column: Column, words: Word[]): void {
  column.words = [...column.words, ...words];
  const box = union(column.words);
  column.x0 = box.x;
  column.x1 = box.x + box.w;
  column.text = column.words.map((w) => w.text).join(' ');
}

/** Adds a second heading row: words under a column belong to it, others are columns of their own. */
function merge(upper: Column[], lower: Column[]): Column[] {
  const columns = upper.map((c) => ({ ...c }));
  for (const column of lower) {
    const home = columns.find((c) => Math.min(c.x1, column.x1) - Math.max(c.x0, column.x0) > 0);
    if (!home) {
      columns.push(column);
      continue;
    }
    const joined = findLabels([...home.words, ...column.words], columnBook).sort((a, b) => b.words.length - a.words.length)[0];
    if (home.role === 'other' || (joined && joined.words.length > home.words.length)) home.role = joined?.role ?? column.role;
    extend(home, column.words);
  }
  return columns.sort((a, b) => a.x0 - b.x0);
}

/**
 * The column of amounts where its title is missing, as a lone "£" that was lost on paper: right of all titles each of the rows below
 * ends in an amount. Null where they do not.
 */
function untitledAmount(layout: Layout, columns: Column[], last: number): Column | null {
  const right = Math.max(...columns.map((c) => c.x1)),
    { page } = layout.rows[last]!;
  const rows = layout.rows
    .slice(last + 1, last + 13)
    .filter((row) => row.page === page && row.words.filter((w) => printedAmount.test(w.text)).length >= 2);
  const ends = rows.map((row) => row.words.reduce((a, b) => (b.x > a.x ? b : a))).filter((w) => printedAmount.test(w.text) && w.x >= right);
  if (ends.length < 2 || ends.length < rows.length * 0.8) return null;
  const { x, w } = union(ends);
  return { role: 'amount', x0: x, x1: x + w, text: '', words: [] };
}

const roleScore = (columns: Column[]): number => {
  const roles = new Set(columns.map((c) => c.role).filter((r) => r !== 'other'));
  return (
    roles.size +
    (roles.has('amount') ? 1 : 0) +
    (roles.has('description') ? 0.5 : 0) -
    0.3 * columns.filter((c) => c.role === 'other').length
  );
};

/** Every row, or pair of rows, that may head a line table, in page order. */
export function headingsOf(layout: Layout): Heading[] {
  const found: Heading[] = [];
  for (const row of layout.rows) {
    if (numeric(row) || row.columns.length < 2) continue;
    let columns = columnsOf(row);
    let last = row.index;
    const roles = new Set(columns.map((c) => c.role));
    if (!roles.has('amount') && !roles.has('unitPrice') && !roles.has('grossAmount')) {
      const below = layout.rows[row.index + 1];
      if (!below || below.page !== row.page || below.columns.length === 0) continue;
    }
    for (const next of layout.rows.slice(row.index + 1, row.index + 3)) {
      const lower = columnsOf(next);
      const known = lower.filter((c) => c.role !== 'other' || isSign(c.text)).length;
      if (
        next.page !== row.page ||
        numeric(next) ||
        next.y - layout.rows[last]!.y > row.h * 2.2 ||
        known < lower.length ||
        lower.length === 0
      )
        break;
      if (lower.length === 1 && lower[0]!.role === 'description') break;
      columns = merge(columns, lower);
      last = next.index;
    }
    const known = new Set(columns.map((c) => c.role));
    const untitled = known.has('unitPrice') && !known.has('amount') && !known.has('grossAmount') && untitledAmount(layout, columns, last);
    if (untitled) columns.push(untitled);
    const all = new Set(columns.map((c) => c.role));
    const score = roleScore(columns);
    if (score >= 3 && (all.has('amount') || all.has('grossAmount') || all.has('unitPrice')))
      found.push({ page: row.page, columns, first: row.index, last, score });
  }
  return found;
}
