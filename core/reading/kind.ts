import { findLabels } from './labels.ts';
import { plainWord } from './learned/features.ts';
import { kindBook, type KindLabel } from './lexicon/index.ts';
import { speaksOf, type Said } from './lexicon/stems.ts';
import type { Word } from '../page/index.ts';
import type { Layout } from './layout.ts';
import type { Kind } from './types.ts';

/** A sentence that says of a document that it asks for no money. */
const asksNothing =
  /\b(not an?|is no|keine|geen|pas une|ce n.est pas une|non e una|ikke en|inte en|nao e uma|nie jest)\b (tax |vat )?(invoice|bill|rechnung|factuur|nota|facture|fattura|factura|faktura|fatura)\b|no payment is (due|needed|required)|we have (today )?paid (the following|these)|nothing is (to be )?(paid|due|payable|owed)|please do not pay|bitte nicht zahlen/;

/** What a piece speaks of. Letters that are set apart are one word: "S T A T E M E N T". */
function saidBy({ words }: { words: readonly Word[] }): { said: ReadonlySet<Said>; apart: boolean } {
  const apart = words.filter((w) => w.text.length === 1).length > Math.max(4, 0.7 * words.length);
  if (!apart) return { said: new Set(words.flatMap((w) => speaksOf(plainWord(w.text)))), apart };
  const joined = plainWord(words.map((w) => w.text).join(''));
  return { said: new Set([...joined].flatMap((_, i) => speaksOf(joined.slice(i)).filter((s) => s in ofTitle))), apart };
}
const ofTitle: Partial<Record<Said, KindLabel>> = { invoice: 'invoice', credit: 'creditNote', other: 'other', quote: 'other' };

/**
 * Invoice, credit note or something else: from the title (large, near the top, standing alone) and from the
 * labels in the head. An unmistakable invoice number weighs more than a word in the small print.
 */
export function kindOf(layout: Layout): { kind: Kind; confidence: number; /** Nothing on the page says what it is. */ untold?: boolean } {
  const score: Record<KindLabel, number> = { invoice: 0, creditNote: 0, other: 0 };
  const first = layout.pages[0];
  if (!first) return { kind: 'other', confidence: 0.5 };
  const body = median(first.words.map((w) => w.size));
  let cells = 0;
  for (const row of layout.rows.filter((r) => r.page === first.number)) {
    const high = row.y < first.height * 0.5;
    for (const segment of row.segments) {
      for (const label of findLabels(segment.words, kindBook)) {
        const alone = label.to - label.from + 1 === segment.words.length;
        const large = segment.size > body * 1.15 || (alone && segment.text === segment.text.toUpperCase());
        if (large && high) score[label.role] += segment.size > body * 1.15 ? 4 : 2;
        else if (alone && label.role === 'invoice' && high) cells++;
        else if (
          high &&
          (alone || (label.from === 0 && segment.words.length === 2 && /\d/.test(segment.words[1]!.text) && segment.x > first.width * 0.4))
        )
          score[label.role] += alone ? 1.5 : 0.8;
      }
    }
    for (const field of row.fields) {
      if (field.role === 'creditNumber' && !field.weak) score.creditNote += 2.5;
      if (field.role === 'invoiceNumber' && !field.weak && high) score.invoice += 1.5;
    }
    for (const total of row.totals)
      if (/credited|credit total|credit note total|net credit|refund/.test(total.text)) score.creditNote += 1.5;
  }
  // One word "invoice" by itself is a title; several are a list of invoices, as statements and remittances have it.
  if (cells > 2) score.other += 2;
  else if (cells > 0) score.invoice += 1.5;
  // A title in words that no list has as a whole: "Weekly time sheet", "DUES REPORT".
  for (const row of layout.rows.filter((r) => r.page === first.number && r.y < first.height * 0.45))
    for (const segment of row.segments) {
      if (segment.size <= body * 1.15 && segment.text !== segment.text.toUpperCase()) continue;
      const { said, apart } = saidBy(segment);
      const kinds = new Set([...said].flatMap((s) => ofTitle[s] ?? []));
      if (apart && kinds.size === 1) score[[...kinds][0]!] += 4;
      else if (segment.words.length < 8 && kinds.size === 1 && kinds.has('other')) score.other += segment.size > body * 1.15 ? 3 : 1.5;
    }
  const plain = layout.text.replace(/\s+/g, ' ').normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
  if (asksNothing.test(plain)) score.other += 6;
  if (score.creditNote > 0 && score.creditNote >= score.invoice * 0.8 && score.creditNote >= score.other)
    return { kind: 'credit-note', confidence: score.creditNote > score.invoice + 1 ? 0.98 : 0.7 };
  if (score.other + score.invoice + score.creditNote === 0) return { kind: 'other', confidence: 0.5, untold: true };
  if (score.other > score.invoice || score.invoice + score.creditNote === 0)
    return { kind: 'other', confidence: score.other > score.invoice + 2 ? 0.95 : 0.6 };
  return { kind: 'invoice', confidence: score.invoice > score.other + 2 ? 0.98 : 0.8 };
}

/** True where a page bears a document's title: large, or alone in capitals, in its upper half. */
export function hasTitle(layout: Layout): boolean {
  const first = layout.pages[0]!,
    body = median(first.words.map((w) => w.size));
  return layout.rows.some(
    (row) =>
      row.y < first.height * 0.5 &&
      row.segments.some(
        (s) =>
          (s.size > body * 1.15 || s.text === s.text.toUpperCase()) &&
          s.words.length <= 5 &&
          findLabels(s.words, kindBook).some((l) => l.from <= 1 && l.to - l.from + 1 >= s.words.length - 2),
      ),
  );
}

function median(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 10;
}
