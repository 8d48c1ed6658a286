import { union, type Mark, type Page, type Word } from '../page/index.ts';
import { turnsOf } from './confusions.ts';
import { headerPaths } from './paths.ts';
import type { HeaderField, Read, Reading, ReadLine } from './types.ts';

/** A spot to be looked at again, larger: a box on a page of the document, and whether only digits can stand there. */
export interface Spot extends Mark {
  digits: boolean;
}
/** What was seen there: words with boxes on that page. */
export interface SpotSeen extends Spot {
  words: Word[];
}

const most = 60;
const numeric = ['quantity', 'unitPrice', 'discountPercent', 'amount'] as const;
type Cell = (typeof numeric)[number] | 'code';
const exact: HeaderField[] = ['invoiceNumber', 'purchaseOrder', 'issueDate', 'dueDate', 'supplierTaxId', 'supplierIban'];

export const overlap = (a: Omit<Mark, 'page'>, b: Omit<Mark, 'page'>): boolean => {
  const w = Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x),
    h = Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y);
  return w > 0 && h > 0 && w * h > 0.4 * Math.min(a.w * a.h, b.w * b.h);
};

/** The words that stand on a mark. */
export const wordsOn = (pages: Page[], mark: Mark): Word[] =>
  pages.find((p) => p.number === mark.page)?.words.filter((w) => overlap(w, mark)) ?? [];

/** How sure the recogniser was of the least sure word under a mark; 1 where there is only text. */
export const inkSure = (pages: Page[], mark: Mark | null): number =>
  mark ? Math.min(1, ...wordsOn(pages, mark).map((w) => w.sure ?? 1)) : 1;

/**
 * The spots of a scanned document worth a second look: figures of rows and totals whose sums fail, cells that a row lacks and its
 * neighbours have, and numbers, dates and names of which the recogniser was not sure.
 */
export function spotsToCheck(reading: Reading, pages: Page[]): Spot[] {
  const scanned = new Set(pages.filter((p) => p.scan).map((p) => p.number));
  const spots: Spot[] = [];
  const add = (mark: Mark | null | undefined, digits: boolean) => {
    if (mark && scanned.has(mark.page) && mark.w < 300 && spots.length < most) spots.push({ ...mark, digits });
  };
  if (reading.kind === 'other') return [];
  for (const field of ['netTotal', 'taxTotal', 'grossTotal'] as const)
    if (!reading.header[field]?.proof) add(reading.header[field]?.mark, true);
  for (const charge of reading.charges) if (!charge.amount.proof) add(charge.amount.mark, true);
  const columns = new Map(numeric.map((cell) => [cell, columnOf(reading.lines, cell)]));
  for (const line of reading.lines) {
    const holds = line.amount.proof !== null && (!line.quantity || !line.unitPrice || line.quantity.proof !== null);
    for (const cell of numeric) {
      const read = line[cell];
      if (read && (!holds || !read.proof) && read.mark) add(read.mark, true);
      const column = columns.get(cell);
      if (!read && column && line.amount.mark)
        add({ page: line.amount.mark.page, x: column.x, w: column.w, y: line.amount.mark.y, h: line.amount.mark.h }, true);
    }
    if (line.code?.mark && inkSure(pages, line.code.mark) < 0.85) add(line.code.mark, false);
    const codes = columnOf(reading.lines, 'code');
    if (!line.code && codes && line.amount.mark) add({ ...line.amount.mark, x: codes.x, w: codes.w }, false);
  }
  for (const mark of lostAmounts(reading.lines, pages)) add(mark, true);
  if (!reading.header.supplierIban) for (const mark of spoiltIbans(pages)) add(mark, false);
  for (const field of exact) {
    const read = reading.header[field];
    if (read?.mark && (inkSure(pages, read.mark) < 0.85 || turnsOf(read.value) > 1)) add(read.mark, false);
  }
  return spots;
}

/** What stands behind "IBAN" on a page where none could be read. */
function spoiltIbans(pages: Page[]): Mark[] {
  return pages.flatMap((page) =>
    page.words
      .filter((w) => /^\W?IBAN\b/i.test(w.text))
      .flatMap((label) => {
        const row = page.words.filter((w) => Math.abs(w.y - label.y) < label.size * 0.5 && w.x > label.x).sort((a, b) => a.x - b.x);
        const end = row.findIndex((w) => /^(BIC|SWIFT)\b/i.test(w.text) || !/\d|^[A-Z]{4}$/.test(w.text)),
          own = end < 0 ? row : row.slice(0, end);
        return own.length > 0 ? [{ page: page.number, ...union(own) }] : [];
      }),
  );
}

/** In points. */
const amountSlack = 12;

const bareFigure = /^[£$€]?\d[\d.,]*$/;

/**
 * Where the amount of a row should stand that has none, so that it became no line: rows among the lines of a page, or a row's distance
 * above or below them, with figures under the columns of prices and quantities.
 */
function lostAmounts(all: ReadLine[], pages: Page[]): Mark[] {
  const ends = all.flatMap(({ amount: { mark } }) => (mark ? [mark.x + mark.w] : [])).sort((a, b) => a - b);
  const usual = ends[ends.length >> 1] ?? 0;
  // Where another figure of a row stands in for its amount, it stands where amounts do not.
  const lines = all.filter(({ amount: { mark } }) => mark && Math.abs(mark.x + mark.w - usual) < amountSlack);
  const amounts = columnOf(lines, 'amount'),
    factors = (['unitPrice', 'quantity'] as const).flatMap((cell) => columnOf(lines, cell) ?? []);
  if (!amounts || factors.length === 0) return [];
  return pages.flatMap((page) => {
    const own = lines.flatMap((l) => (l.amount.mark?.page === page.number ? [l.amount.mark] : []));
    if (!page.scan || own.length < 2) return [];
    const tops = own.map((m) => m.y).sort((a, b) => a - b);
    const gaps = tops.slice(1).map((y, i) => y - tops[i]!);
    const pitch = Math.max(...gaps) * 1.2;
    const under = (word: Word, c: { x: number; w: number }) => word.x + word.w > c.x && word.x < c.x + c.w;
    const found: Mark[] = [];
    for (const w of page.words) {
      if (!bareFigure.test(w.text) || !under(w, factors[0]!) || w.y < tops[0]! - pitch || w.y > tops[tops.length - 1]! + pitch) continue;
      const row = page.words.filter((o) => Math.abs(o.y - w.y) < w.size * 0.5);
      const level = (m: Mark) => Math.abs(m.y + m.h / 2 - (w.y + w.h / 2)) < w.size * 0.6;
      if (own.some(level) || row.some((o) => under(o, amounts)) || found.some(level)) continue;
      if (factors.every((c) => row.some((o) => /\d/.test(o.text) && under(o, c))))
        found.push({ page: page.number, x: amounts.x - 6, w: amounts.w + 8, y: w.y, h: w.h });
    }
    return found;
  });
}

/** Where a column's values stand, if most rows have one. */
function columnOf(lines: ReadLine[], cell: Cell): { x: number; w: number } | null {
  const marks = lines.flatMap((l) => (l[cell]?.mark ? [l[cell].mark] : []));
  if (marks.length < Math.max(2, lines.length * 0.6)) return null;
  const x = Math.min(...marks.map((m) => m.x));
  return { x, w: Math.max(...marks.map((m) => m.x + m.w)) - x };
}

/**
 * Pages with what the second look saw: ink that had no word gets one; a code or date takes the clearer of its two readings; a figure
 * keeps its first reading and has the other as an alternative, for the sums to choose.
 */
export function withSecondLook(pages: Page[], seen: SpotSeen[]): Page[] {
  return pages.map((page) => {
    const own = seen.filter((s) => s.page === page.number && s.words.length > 0);
    if (own.length === 0) return page;
    const words = [...page.words];
    for (const spot of own) {
      const there = words.filter((w) => overlap(w, spot));
      if (there.length === 0) {
        words.push(...spot.words.filter((w) => (w.sure ?? 0) > 0.5 && /\d/.test(w.text)));
        continue;
      }
      const text = spot.words.map((w) => w.text).join(there.length > 1 ? ' ' : '');
      const sure = Math.min(...spot.words.map((w) => w.sure ?? 0));
      if (there.length > 1) {
        for (const word of there) {
          const again = spot.words.find((w) => overlap(w, word));
          if (again) settle(words, word, again.text, again.sure ?? 0, spot.digits);
        }
      } else settle(words, there[0]!, text, sure, spot.digits);
    }
    return { ...page, words };
  });
}

const figure = /^[£$€]?\d[\d.,' ]*%?$/;

function settle(words: Word[], word: Word, text: string, sure: number, digits: boolean): void {
  if (text === '') return;
  const at = words.indexOf(word);
  if (text === word.text) words[at] = { ...word, sure: Math.max(word.sure ?? 0, sure, 0.9) };
  else if (digits && !figure.test(word.text) && figure.test(text))
    words[at] = { ...word, text, sure: Math.min(sure, 0.85), was: word.text };
  else if (digits) words[at] = { ...word, others: [...(word.others ?? []), text] };
  else if (turnsOf(text) < turnsOf(word.text) || (turnsOf(text) === turnsOf(word.text) && sure > (word.sure ?? 0) + 0.1))
    words[at] = { ...word, text, sure };
}

/** What more than the ink of one word vouches for: check digits, and all of a document's sums of money. */
const vouched: ReadonlySet<HeaderField> = new Set(['supplierIban', 'currency']);

/** Lowers the confidence of what stands on ink that the recogniser was unsure of, where no sum proves it. */
export function weighInk(reading: Reading, pages: Page[]): Reading {
  if (!pages.some((p) => p.scan)) return reading;
  const weigh = <R extends Read | null>(read: R, tolerance = 0): R =>
    read && !read.proof ? { ...read, confidence: Math.min(read.confidence, inkConfidence(inkSure(pages, read.mark) + tolerance)) } : read;
  const header = { ...reading.header };
  // A name is known in spite of a wrong letter.
  for (const field of Object.keys(headerPaths) as HeaderField[])
    if (!vouched.has(field)) header[field] = weigh(header[field], field.endsWith('Name') ? 0.15 : 0);
  const lines = reading.lines.map((line) => ({
    ...line,
    code: weigh(line.code),
    description: weigh(line.description),
    quantity: weigh(line.quantity),
    unitPrice: weigh(line.unitPrice),
    discountPercent: weigh(line.discountPercent),
    taxRate: weigh(line.taxRate),
    amount: weigh(line.amount),
  }));
  return { ...reading, header, lines };
}

/**
 * How often a word is right for how sure the recogniser says it is: measured on made-up pages on worn paper (`npm run bench:ink`, 3,287 words
 * on 24 pages; below 0.7 it is right one time in five).
 */
const measured = [
  [0.9, 0.97],
  [0.85, 0.85],
  [0.8, 0.8],
  [0.7, 0.7],
] as const;

const inkConfidence = (sure: number): number => measured.find(([from]) => sure >= from)?.[1] ?? 0.2;
