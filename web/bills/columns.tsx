import { TriangleAlert } from 'lucide-react';
import type { BillRow, ViewRow } from '@ledgerline/contract';
import type { Column } from '../ui/data-table';
import { money, showDay, showTime, todayIso } from '../ui/format';
import { StageWord } from '../ui/stage';

export type BillColumn = ViewRow['columns'][number];

/** What keeps a bill under review from going on, in two words. */
const toSettle = (row: BillRow): string | null =>
  row.stops > 0 ? `${row.stops} to settle` : row.asks > 0 ? `${row.asks} to look at` : null;

/** Stages in which a bill is still to be paid: one that is past its day is late; nobody waits for a credit note. */
const unpaid = ['read', 'returned', 'coded', 'approved', 'posted', 'set-aside'];
export const isLate = (row: Pick<BillRow, 'dueDate' | 'stage' | 'kind'>, today = todayIso()): boolean =>
  row.kind !== 'credit-note' && row.dueDate !== null && row.dueDate < today && unpaid.includes(row.stage);
function Due({ row }: { row: BillRow }) {
  return isLate(row) ? (
    <span className="font-semibold text-error" title="Late">
      <TriangleAlert size={13} className="mr-1 inline align-[-2px]" aria-label="Late:" />
      {showDay(row.dueDate)}
    </span>
  ) : (
    showDay(row.dueDate)
  );
}

/** Columns that are shown unless somebody chooses others. */
export const usualColumns: BillColumn[] = ['stage', 'supplier', 'number', 'dated', 'due', 'total', 'arrived'];

export const billColumns: (Column<BillRow> & { id: BillColumn })[] = [
  { id: 'stage', head: 'Stage', width: 136, sort: 'stage', cell: (row) => <StageWord stage={row.stage} /> },
  {
    id: 'supplier',
    head: 'Supplier',
    sort: 'supplier',
    ascending: true,
    cell: (row) => (
      <>
        {row.supplier ?? 'Unknown supplier'}
        {row.kind === 'credit-note' && <span className="ml-2 text-[12px] text-accent">credit note</span>}
        {row.assignee && <span className="ml-2 text-[12px] text-accent">{row.assignee}</span>}
        {['read', 'returned'].includes(row.stage) && toSettle(row) && <span className="ml-2 text-[12px] quiet">{toSettle(row)}</span>}
      </>
    ),
  },
  { id: 'number', head: 'Number', width: 136, sort: 'number', ascending: true, minor: true, cell: (row) => row.invoiceNumber },
  { id: 'dated', head: 'Dated', width: 112, sort: 'dated', minor: true, cell: (row) => showDay(row.issueDate) },
  { id: 'due', head: 'Due', width: 124, sort: 'due', ascending: true, minor: true, cell: (row) => <Due row={row} /> },
  {
    id: 'discount',
    head: 'Discount until',
    width: 116,
    sort: 'discount',
    ascending: true,
    minor: true,
    cell: (row) => showDay(row.discountUntil),
  },
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
  { id: 'hands', head: 'In the hands of', width: 136, sort: 'hands', minor: true, cell: (row) => row.assignee },
  { id: 'aside', head: 'Comes back', width: 112, sort: 'aside', ascending: true, minor: true, cell: (row) => showDay(row.asideUntil) },
  { id: 'entry', head: 'Entry', width: 112, sort: 'entry', minor: true, cell: (row) => <span className="code">{row.entry}</span> },
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
