import { matchOrderLines, type Wanted } from '@ledgerline/core/matching';
import type { Ordered } from '@ledgerline/core/coding';
import type { Executor } from '../db/client.ts';
import { candidatesFor } from '../matching/candidates.ts';

/**
 * What the rows of a bill are of orders, row by row, as far as they are: of the orders that the page names, or of all that are open with
 * its supplier. Lines without any coding say nothing.
 */
export async function orderedRows(
  db: Executor,
  companyId: string,
  supplierId: string | null,
  named: string | null,
  rows: readonly Omit<Wanted, 'id'>[],
): Promise<(Ordered | null)[]> {
  const nothing = rows.map(() => null);
  if (supplierId === null || rows.length === 0) return nothing;
  const { told, lines } = await candidatesFor(db, companyId, supplierId, named);
  if (lines.length === 0) return nothing;
  const byId = new Map(lines.map((line) => [line.l.id, line]));
  const found = matchOrderLines(
    rows.map((row, i) => ({ ...row, id: String(i) })),
    lines.map(({ l: { id, code, description, quantity, unitPrice } }) => ({ id, code, description, quantity, unitPrice })),
  );
  const ordered: (Ordered | null)[] = [...nothing];
  for (const { row, line, score, why } of found) {
    const { l, number } = byId.get(line)!;
    // Where the page names no order, only what is very like counts.
    if (told || score >= 0.75) ordered[Number(row)] = { order: number, line: l.position + 1, why, coding: l };
  }
  return ordered;
}
