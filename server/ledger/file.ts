import type { Company, EntryRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { allRows } from '../imports/saved.ts';
import type { Sheet } from '../imports/sheet.ts';
import { listEntries } from './search.ts';

const atOnce = 1000;

/** Journal entries as they are found, the newest first, as a table. */
export async function entryTable(
  db: Executor,
  company: Pick<Company, 'id' | 'baseCurrency'>,
  asked: { q?: string | undefined; account?: string | undefined },
): Promise<Sheet> {
  type Place = { year: number; number: number };
  const rows = await allRows<EntryRow, Place>(async (after) => {
    const found = await listEntries(db, company.id, { q: asked.q, account: asked.account, limit: atOnce }, after);
    const last = found[found.length - 1];
    return { rows: found.map((f) => f.row), next: last && found.length === atOnce ? { year: last.year, number: last.number } : null };
  });
  return {
    heads: ['Entry', 'Date', 'Text', `Amount ${company.baseCurrency}`, 'Posted by', 'Posted on'],
    rows: rows.map((r) => [r.number, r.entryDate, r.description, r.total, r.postedBy, r.postedAt.slice(0, 10)]),
  };
}
