import type { BillRow, BillsQuery } from '@ledgerline/contract';
import type { Asker } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { nextOf } from '../http/cursor.ts';
import { allRows } from '../imports/saved.ts';
import type { Sheet } from '../imports/sheet.ts';
import { listBills } from './search.ts';

const heads = ['Stage', 'Kind', 'Supplier', 'Number', 'Dated', 'Due', 'Currency', 'Total', 'Entry', 'In the hands of', 'Arrived'];
const atOnce = 1000;

/** Bills as they are found and sorted, as a table: amounts as plain decimals, credit notes below zero, days as 2026-11-26. */
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
  return {
    heads,
    rows: rows.map((r) =>
      [
        r.stage,
        r.kind,
        r.supplier,
        r.invoiceNumber,
        r.issueDate,
        r.dueDate,
        r.currency,
        r.gross && r.kind === 'credit-note' ? `-${r.gross}` : r.gross,
        r.entry,
        r.assignee,
        r.arrivedAt.slice(0, 10),
      ].map((value) => value ?? ''),
    ),
  };
}
