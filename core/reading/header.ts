import { onlyDays, parseTerms } from '../terms/index.ts';
import { findDates, type DateOrder } from '../dates/index.ts';
import { union, type Mark, type Word } from '../page/index.ts';
import { candidatesOf, type Candidate } from './candidates.ts';
import type { FieldLabel } from './lexicon/index.ts';
import type { LabelledRow, Layout } from './layout.ts';
import type { Read } from './types.ts';

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

const markOf = (page: number, words: Word[]): Mark => ({ page, ...union(words) });

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

/** The number of the invoice or credit note to which pages belong, where a label says so beyond doubt. */
export function documentNumber(layout: Layout): string | null {
  const found = gather(layout, ['invoiceNumber', 'creditNumber'])
    .filter((c) => !c.label.weak && c.geometry > 0.75)
    .map(identifier)
    .find((id) => id !== null);
  return found?.value ?? null;
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

/** Words of payment in the languages that are read. */
const paying =
  /\b(pay|paid|payable|payment|terms|due|settlement|settle|net|nett?o|days from|days of|betaling\w*|betalen|betaalbaar|binnen|zahlbar|zahlung\w*|zahlen|fällig|innerhalb|frist|paiement|règlement|reglement|payable|échéance|betala|betalning\w*|betales|pago|vencimiento|transferencia|remit\w*|transfer|überweis\w*|virement|bonifico|przelew|pagamento|scadenza|prazo|termin|płatności|maksu\w*|splatno\w*)\b/i;

/** Lines of text that may run on below: each piece of a row with the one that stands under it, but for rows of figures. */
function lettered(layout: Layout, inTable: (row: LabelledRow) => boolean): { row: LabelledRow; text: string; words: Word[] }[] {
  return layout.rows.flatMap((row) =>
    inTable(row)
      ? []
      : row.segments.flatMap((s) => {
          if (/^\W*[\d.,]+\W*$/.test(s.text) || s.words.filter((w) => /\d[.,]\d{2}\D?$/.test(w.text)).length > 1) return [];
          const under = layout.rows
            .slice(row.index + 1, row.index + 4)
            .filter((r) => r.page === row.page && r.y - row.y < 2.2 * s.size)
            .flatMap((r) => r.segments)
            .find((o) => Math.abs(o.x - s.x) < 3 && Math.abs(o.size - s.size) < 0.8);
          return [{ row, text: under ? `${s.text} ${under.text}` : s.text, words: s.words }];
        }),
  );
}

/** Payment terms in the trade's words: behind their label, or a sentence about payment anywhere. */
export function readTerms(layout: Layout, inTable: (row: LabelledRow) => boolean): Read | null {
  const found: Scored[] = [];
  for (const c of gather(layout, ['terms'])) {
    const sentence = c.text.split(/(?<=\p{L})\.\s/u)[0]!;
    if (parseTerms(sentence))
      found.push({ value: sentence.replace(/\.$/, ''), mark: c.mark, confidence: 0, proof: null, trust: 0.95, score: 0.9 * c.geometry });
  }
  for (const { row, text, words } of lettered(layout, inTable))
    for (const sentence of text.split(/(?<=[\p{L}\d)])\.\s+/u)) {
      if (!paying.test(sentence) || !parseTerms(sentence)) continue;
      if (
        /\b(shortages?|returned?|returns|claims?|reported|kept|interest|overdue|late)\b/i.test(sentence) &&
        !/\b(pay|payable|payment|terms)\b/i.test(sentence)
      )
        continue;
      found.push({
        value: sentence.replace(/\.$/, '').replace(/^.*?:\s*/, ''),
        mark: markOf(row.page, words),
        confidence: 0,
        proof: null,
        trust: 0.8,
        score: /\bdays? net\b|\bterms\b|\bpay|date of|betaling|zahl|paiement/i.test(sentence) ? 0.8 : 0.6,
      });
    }
  // "14 days" by itself among the facts of the head.
  for (const row of layout.rows)
    if (!inTable(row))
      for (const s of row.segments)
        for (const part of s.text.split(/\s[|·•]\s/))
          if (onlyDays(part))
            found.push({ value: part.trim(), mark: markOf(row.page, s.words), confidence: 0, proof: null, trust: 0.7, score: 0.5 });
  return best(found.filter((f) => f.value.length < 160));
}
