import { billCells, billHeads, type BillRow, type BillsQuery } from '@ledgerline/contract';
import type { Asker } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { nextOf } from '../http/cursor.ts';
import { allRows } from '../imports/saved.ts';
import type { Sheet } from '../imports/sheet.ts';
import { listBills } from './search.ts';

const atOnce = 1000;

/** Bills as they are found and sorted, as a table. */
export async function billTable(
  db: Executor,
  asker: Asker,
  query: Pick<BillsQuery, 'q' | 'sort' | 'order'>,
  today: string,
): Promise<Sheet> {
  const rows = await allRows<BillRow, string>(async (cursor) => {
    const found = await listBills(db, asker, { ...query, limit: atOnce, ...(cursor ? { cursor } : {}) }, today);
    return { rows: found.map((f) => f.row), next: nextOf(found, atOnce, (last) => [last.key, last.row.id]) };
  });
  return { heads: billHeads, rows: rows.map(billCells) };
}
