import { union } from '../page/index.ts';
import { findEmails, findIbans, labelledIban } from './identifiers.ts';
import type { Layout } from './layout.ts';
import type { Read } from './types.ts';

/** The account to be paid to: the first that is none of ours. */
export function supplierIban(layout: Layout, ours: readonly string[]): Read | null {
  for (const [i, row] of layout.rows.entries()) {
    const next = layout.rows[i + 1];
    const hit = findIbans(row.text)[0] ?? (/\bIBAN\b[ :]*$/i.test(row.text) && next ? findIbans(next.text)[0] : undefined);
    if (hit && !ours.includes(hit.iban))
      return { value: hit.iban, mark: { page: row.page, ...union(row.words) }, confidence: 0.99, proof: null };
  }
  // One whose check digits do not hold is told, for a person to look at.
  for (const row of layout.rows) {
    const iban = labelledIban(row.text);
    if (iban && !ours.includes(iban)) return { value: iban, mark: { page: row.page, ...union(row.words) }, confidence: 0.5, proof: null };
  }
  return null;
}

/** Mail addresses on the document, each once. */
export const emailsOf = (layout: Layout): string[] => [...new Set(findEmails(layout.text))];
