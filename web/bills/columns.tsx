import type { BillRow } from '@ledgerline/contract';
import type { Column } from '../ui/data-table';
import { money, showDay, showTime } from '../ui/format';
import { StageWord } from '../ui/stage';

/** What keeps a bill under review from going on, in two words. */
const toSettle = (row: BillRow): string | null =>
  row.stops > 0 ? `${row.stops} to settle` : row.asks > 0 ? `${row.asks} to look at` : null;

export const billColumns: Column<BillRow>[] = [
  { id: 'stage', head: 'Stage', width: 136, cell: (row) => <StageWord stage={row.stage} /> },
  {
    id: 'supplier',
    head: 'Supplier',
    cell: (row) => (
      <>
        {row.supplier ?? 'Unknown supplier'}
        {row.kind === 'credit-note' && <span className="ml-2 text-[12px] text-accent">credit note</span>}
        {['read', 'returned'].includes(row.stage) && toSettle(row) && <span className="ml-2 text-[12px] quiet">{toSettle(row)}</span>}
      </>
    ),
  },
  { id: 'number', head: 'Number', width: 136, minor: true, cell: (row) => row.invoiceNumber },
  { id: 'dated', head: 'Dated', width: 112, sort: 'dated', minor: true, cell: (row) => showDay(row.issueDate) },
  { id: 'due', head: 'Due', width: 112, sort: 'due', minor: true, cell: (row) => showDay(row.dueDate) },
  {
    id: 'total',
    head: 'Total',
    width: 140,
    num: true,
    sort: 'total',
    cell: (row) => (
      <>
        <span className="mr-1 text-[12px] quiet">{row.currency}</span>
        {row.kind === 'credit-note' ? '−' : ''}
        {money(row.gross, row.currency)}
      </>
    ),
  },
  {
    id: 'arrived',
    head: 'Arrived',
    width: 124,
    num: true,
    sort: 'arrived',
    minor: true,
    cell: (row) => <span className="text-[13px] quiet">{showTime(row.arrivedAt)}</span>,
  },
];
