import { findLabels } from './labels.ts';
import { kindBook, type KindLabel } from './lexicon/index.ts';
import type { Layout } from './layout.ts';
import type { Kind } from './types.ts';

/**
 * Invoice, credit note or something else: from the title (large, near the top, standing alone) and from the
 * labels in the head. An unmistakable invoice number weighs more than a word in the small print.
 */
export function kindOf(layout: Layout): { kind: Kind; confidence: number; /** Nothing on the page says what it is. */ untold?: boolean } {
  const score: Record<KindLabel, number> = { invoice: 0, creditNote: 0, other: 0 };
  const first = layout.pages[0];
  if (!first) return { kind: 'other', confidence: 0.5 };
  const body = median(first.words.map((w) => w.size));
  for (const row of layout.rows.filter((r) => r.page === first.number)) {
    const high = row.y < first.height * 0.5;
    for (const segment of row.segments) {
      for (const label of findLabels(segment.words, kindBook)) {
        const alone = label.to - label.from + 1 === segment.words.length;
        const large = segment.size > body * 1.15 || (alone && segment.text === segment.text.toUpperCase());
        if (large && high) score[label.role] += segment.size > body * 1.15 ? 4 : 2;
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
