import { union, type Word } from '../page/index.ts';
import { findIbans, labelledIban } from './iban.ts';
import { findEmails } from './identifiers.ts';
import type { Layout } from './layout.ts';
import type { Read } from './types.ts';

/** The account to be paid to: the first that is none of ours. */
export function supplierIban(layout: Layout, ours: readonly string[]): Read | null {
  for (const [i, row] of layout.rows.entries()) {
    const next = layout.rows[i + 1];
    const hit = findIbans(row.text)[0] ?? (/\bIBAN\b[ :]*$/i.test(row.text) && next ? findIbans(next.text)[0] : undefined);
    const found = hit ? { iban: hit.iban, words: row.words } : overRows(layout, i);
    if (found && !ours.includes(found.iban))
      return { value: found.iban, mark: { page: row.page, ...union(found.words) }, confidence: 0.99, proof: null };
  }
  // One whose check digits do not hold is told, for a person to look at.
  for (const row of layout.rows) {
    const iban = labelledIban(row.text);
    if (iban && !ours.includes(iban)) return { value: iban, mark: { page: row.page, ...union(row.words) }, confidence: 0.5, proof: null };
  }
  return null;
}

/** An account number that goes on in the row below, under where it began. */
function overRows({ rows }: Layout, at: number): { iban: string; words: Word[] } | undefined {
  const row = rows[at]!;
  for (const s of row.segments) {
    if (!/^[A-Z]{2}\d{2} ?[A-Z\d]{4}/.test(s.text)) continue;
    const below = rows
      .slice(at + 1, at + 4)
      .flatMap((r) => (r.page === row.page ? r.segments : []))
      .find((o) => Math.abs(o.x - s.x) < 3 && o.y - s.y < 2 * s.size + s.h && /^[A-Z\d ]+$/.test(o.text));
    const hit = below && findIbans(`${s.text} ${below.text}`)[0];
    if (hit) return { iban: hit.iban, words: [...s.words, ...below.words] };
  }
  return undefined;
}

const domainOf = (email: string): string => email.slice(email.indexOf('@') + 1).toLowerCase();

/** Mail addresses on the document, each once, and none at our own domains. */
export function emailsOf(layout: Layout, ours: readonly string[]): string[] {
  const own = new Set(ours.map(domainOf));
  return [...new Set(findEmails(layout.text))].filter((email) => !own.has(domainOf(email)));
}
