import { dueDate, parseTerms } from '../terms/index.ts';
import { findDates, type DateOrder } from '../dates/index.ts';
import { union, type Mark, type Word } from '../page/index.ts';
import { candidatesOf, type Candidate } from './candidates.ts';
import type { FieldLabel } from './lexicon/index.ts';
import type { LabelledRow, Layout } from './layout.ts';
import type { Kind, Read } from './types.ts';

interface Scored extends Read {
  score: number;
  /** How much the label itself can be trusted, 0 to 1. */ trust: number;
}

/** Every candidate for a kind of label over the whole document. */
function gather(layout: Layout, roles: FieldLabel[]): Candidate[] {
  return layout.rows.flatMap((row) =>
    row.fields.filter((f) => roles.includes(f.role)).flatMap((label) => candidatesOf(layout, row, label)),
  );
}

/** The words of a candidate that cover a span of its text. */
function wordsAt(candidate: Candidate, index: number, length: number): Word[] {
  let at = 0;
  const words: Word[] = [];
  for (const word of candidate.words) {
    if (at < index + length && at + word.text.length > index) words.push(word);
    at += word.text.length + 1;
  }
  return words;
}

const markOf = (page: number, words: Word[]): Mark => ({ page, ...union(words) });
const place = (row: LabelledRow, layout: Layout): number => 1 - 0.3 * (row.index / Math.max(1, layout.rows.length));

/**
 * The best candidate with a raw confidence: how far its label is to be trusted, lowered where another value is nearly as good.
 * `calibration.ts` turns it into the measured one.
 */
function best(found: Scored[]): Read | null {
  const sorted = found.sort((a, b) => b.score - a.score);
  const first = sorted[0];
  if (!first) return null;
  const rival = sorted.find((s) => s.value !== first.value);
  const gap = rival ? first.score - rival.score : 1;
  const trust = Math.max(...sorted.filter((s) => s.value === first.value).map((s) => s.trust));
  const confidence = Math.max(0.2, trust * (gap < 0.04 ? 0.75 : gap < 0.12 ? 0.92 : 1));
  return { value: first.value, mark: first.mark, confidence: Number(confidence.toFixed(2)), proof: null };
}

/** Trust in a label: a word that only means this, or one with other meanings that stands among labels of the same block. */
function trustOf(c: Candidate, layout: Layout): number {
  const near = c.geometry < 0.7 ? 0.85 : 1;
  if (!c.label.weak) return 0.98 * near;
  const bare = c.label.text === '#';
  // "Invoice 2026/38" as a line of its own: the title and its number.
  if (
    /^(invoice|credit note|rechnung|facture|factuur|factura|fattura|faktura)$/.test(c.label.text) &&
    c.geometry === 1 &&
    c.words.length === 1
  )
    return 0.95;
  if (c.label.role === 'purchaseOrder' && /^P\.?O/i.test(c.text)) return 0.96 * near;
  const shaped = /^(?=.*\p{L}).*\d/u.test(c.words[0]?.text ?? '') || /\d[/-]\d/.test(c.words[0]?.text ?? '');
  const alone = bare ? 0.4 : /^our ref/.test(c.label.text) ? 0.6 : shaped ? 0.88 : 0.72;
  return (amongLabels(c, layout) ? Math.max(alone, bare ? 0.84 : 0.9) : alone) * near;
}

/** How an ambiguous label ranks as the invoice's number: "Number" in the block of labels before "Our ref". */
const weightOf = (c: Candidate, layout: Layout): number =>
  !c.label.weak ? 1 : c.label.text === '#' ? (amongLabels(c, layout) ? 0.86 : 0.6) : /^our ref/.test(c.label.text) ? 0.72 : 0.82;

/** True where another label of the head stands beside, above or below this one, in line with it. */
function amongLabels({ row, label }: Candidate, layout: Layout): boolean {
  if (row.fields.length >= 3 && row.segments.length >= 3) return true;
  return layout.rows
    .slice(Math.max(0, row.index - 3), row.index + 4)
    .some(
      (other) =>
        other.page === row.page &&
        other.fields.some(
          (f) =>
            f !== label &&
            !f.weak &&
            (other === row || Math.abs(f.box.x - label.box.x) < 3) &&
            Math.abs(other.y - row.y) < 4.5 * Math.max(8, row.h),
        ),
    );
}

const numberShape = /^#?\p{L}{0,6}[\p{L}\d]*[-/.]?\d[\p{L}\d]*(?:[-/.][\p{L}\d]+)*$/u;

/** An identifier at the start of a candidate's text: one word with a digit, not a date, amount or page count. */
function identifier(candidate: Candidate): { value: string; words: Word[] } | null {
  const words = candidate.words.filter((w) => /[\p{L}\p{N}]/u.test(w.text));
  const first = words[0];
  if (!first) return null;
  let value = first.text.replace(/^[#:(]+|[.,;:)]+$/g, '');
  const used = [first];
  // A short all-letter prefix may be set off by a space: "PO 4471".
  if (/^\p{L}{1,4}$/u.test(value) && words[1] && /^\d{3,}[\p{L}\d/-]*$/u.test(words[1].text.replace(/[.,;]+$/, ''))) {
    value = `${value} ${words[1].text.replace(/[.,;]+$/, '')}`;
    used.push(words[1]);
  }
  if (!/\d/.test(value) || value.length < 2 || value.length > 24) return null;
  if (!numberShape.test(value.replace(/\s/g, '')) || /^\d+[.,]\d{2}$/.test(value)) return null;
  const line = candidate.text;
  const dates = findDates(line);
  if (dates.some((d) => d.index <= line.indexOf(first.text) + 1 && d.length >= value.length)) return null;
  return { value, words: used };
}

export function readInvoiceNumber(layout: Layout, kind: Kind): Read | null {
  const roles: FieldLabel[] = kind === 'credit-note' ? ['creditNumber', 'invoiceNumber'] : ['invoiceNumber'];
  const found: Scored[] = [];
  for (const c of gather(layout, roles)) {
    const id = identifier(c);
    if (!id) continue;
    const wanted = c.label.role === roles[0] ? 0 : -0.12;
    found.push({
      value: id.value,
      mark: markOf(c.row.page, id.words),
      confidence: 0,
      proof: null,
      trust: trustOf(c, layout),
      score: 0.92 * c.geometry * weightOf(c, layout) * place(c.row, layout) + wanted,
    });
  }
  return best(found);
}

/** The number of the invoice or credit note to which pages belong, where a label says so beyond doubt. */
export function documentNumber(layout: Layout): string | null {
  const found = gather(layout, ['invoiceNumber', 'creditNumber'])
    .filter((c) => !c.label.weak && c.geometry > 0.75)
    .map(identifier)
    .find((id) => id !== null);
  return found?.value ?? null;
}

export function readPurchaseOrder(layout: Layout): Read | null {
  const found: Scored[] = [];
  for (const c of gather(layout, ['purchaseOrder'])) {
    const id = identifier(c);
    if (!id) continue;
    const shaped = /^p\.?o/i.test(id.value) ? 0.08 : 0;
    found.push({
      value: id.value,
      mark: markOf(c.row.page, id.words),
      confidence: 0,
      proof: null,
      trust: trustOf(c, layout),
      score: 0.88 * c.geometry * (c.label.weak ? 0.85 : 1) * place(c.row, layout) + shaped,
    });
  }
  return best(found.filter((f) => f.score > 0.45));
}

/**
 * Whether the day or the month stands first, from the dates that allow only one, else from the country's habit:
 * month first only where dollars and US wording appear.
 */
export function dateOrderOf(layout: Layout): DateOrder {
  let day = 0,
    month = 0;
  for (const row of layout.rows)
    for (const found of findDates(row.text)) {
      if (found.dates['day-first'] && !found.dates['month-first']) day++;
      if (found.dates['month-first'] && !found.dates['day-first']) month++;
    }
  if (day !== month) return month > day ? 'month-first' : 'day-first';
  // American letter paper beside dollars, or words of an American address.
  const letter = layout.pages.some(
    (p) => Math.abs(Math.min(p.width, p.height) - 612) < 3 && Math.abs(Math.max(p.width, p.height) - 792) < 3,
  );
  return /\bUSD\b|\bUSA\b|\bUS dollars\b|, [A-Z]{2} \d{5}\b/.test(layout.text) || (letter && layout.text.includes('$'))
    ? 'month-first'
    : 'day-first';
}

function dateIn(candidate: Candidate, order: DateOrder): { value: string; words: Word[]; late: number } | null {
  const found = findDates(candidate.text)[0];
  const value = found && (found.dates[order] ?? found.dates['day-first'] ?? found.dates['month-first']);
  return value ? { value, words: wordsAt(candidate, found.index, found.length), late: found.index } : null;
}

export function readDate(layout: Layout, roles: FieldLabel[], order: DateOrder): Read | null {
  const found: Scored[] = [];
  for (const c of gather(layout, roles)) {
    const date = dateIn(c, order);
    if (!date) continue;
    found.push({
      value: date.value,
      mark: markOf(c.row.page, date.words),
      confidence: 0,
      proof: null,
      trust: trustOf(c, layout),
      score: 0.94 * c.geometry * (c.label.weak ? 0.86 : 1) * (0.6 + 0.4 * place(c.row, layout)) - Math.min(0.3, date.late * 0.012),
    });
  }
  return best(found);
}

/** A date near the document's number or title without a label of its own ("Invoice 2026/38" above "13 July 2026"). */
export function readLooseDate(layout: Layout, order: DateOrder, near: Mark | null): Read | null {
  const labelled = new Set(
    layout.rows.flatMap((row) =>
      row.fields
        .filter((f) => f.role === 'otherDate' || f.role === 'dueDate')
        .flatMap((f) => candidatesOf(layout, row, f).map((c) => c.words[0])),
    ),
  );
  const found: Scored[] = [];
  for (const row of layout.rows.slice(0, 40))
    for (const segment of row.segments) {
      const date = findDates(segment.text)[0];
      const value = date && (date.dates[order] ?? date.dates['day-first']);
      if (!value || date.length < segment.text.length - 2 || labelled.has(segment.words[0])) continue;
      const distance = near && near.page === row.page ? Math.abs(row.y - near.y) / (10 * segment.size) : 1;
      found.push({
        value,
        mark: { page: row.page, ...union(segment.words) },
        confidence: 0,
        proof: null,
        trust: 0.75,
        score: 0.85 - 0.1 * Math.min(3, distance),
      });
    }
  return best(found);
}

/** Payment terms in the trade's words: behind their label, or a sentence about payment anywhere. */
export function readTerms(layout: Layout, inTable: (row: LabelledRow) => boolean): Read | null {
  const found: Scored[] = [];
  for (const c of gather(layout, ['terms'])) {
    const sentence = c.text.split(/(?<=\p{L})\.\s/u)[0]!;
    if (parseTerms(sentence))
      found.push({ value: sentence.replace(/\.$/, ''), mark: c.mark, confidence: 0, proof: null, trust: 0.95, score: 0.9 * c.geometry });
  }
  // Sentences about payment carry no prices; rows of the line table do.
  const text = layout.rows.map((r) => ({ row: r, text: inTable(r) || /\d[.,]\d{2}(?!\d)/.test(r.text) ? '' : r.text }));
  for (const [i, { row, text: line }] of text.entries()) {
    const joined = `${line} ${text[i + 1]?.row.page === row.page ? text[i + 1]!.text : ''}`;
    for (const sentence of joined.split(/(?<=[\p{L}\d)])\.\s+/u)) {
      if (
        !/\b(pay|paid|payable|payment|terms|due|net|days from|days of|betaling|betalen|zahlbar|zahlung|paiement|reglement|betala|pago|pagamento)\b/i.test(
          sentence,
        )
      )
        continue;
      if (
        /\b(shortages?|returned?|claims?|reported|kept|interest|overdue|late)\b/i.test(sentence) &&
        !/\b(pay|payable|terms)\b/i.test(sentence)
      )
        continue;
      if (!line || !line.includes(sentence.split(' ')[0]!) || !parseTerms(sentence)) continue;
      found.push({
        value: sentence.replace(/\.$/, '').replace(/^.*?:\s*/, ''),
        mark: markOf(row.page, row.words),
        confidence: 0,
        proof: null,
        trust: 0.8,
        score: /\bdays? net\b|\bterms\b|\bpay|date of|betaling|zahl|paiement/i.test(sentence) ? 0.8 : 0.6,
      });
    }
  }
  return best(found.filter((f) => f.value.length < 160));
}

/** The due date as printed, or as the terms make it. */
export function readDueDate(layout: Layout, order: DateOrder, issued: Read | null, terms: Read | null, kind: Kind): Read | null {
  const printed = readDate(layout, ['dueDate'], order);
  const parsed = terms ? parseTerms(terms.value) : null;
  const counted = issued && parsed ? dueDate(issued.value, parsed) : null;
  const late = (read: Read) => !issued || read.value >= issued.value;
  if (printed && late(printed)) {
    return counted === printed.value ? { ...printed, confidence: 0.99, proof: `${terms!.value} from ${issued!.value}` } : printed;
  }
  if (!counted || kind === 'credit-note') return null;
  return {
    value: counted,
    mark: terms!.mark,
    confidence: Math.min(0.95, issued!.confidence, terms!.confidence + 0.1),
    proof: `${terms!.value} from ${issued!.value}`,
  };
}
