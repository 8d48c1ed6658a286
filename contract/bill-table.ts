import type { BillRow } from './bills.ts';

/** The heads of bills as a table, for a file. */
export const billHeads = [
  'Stage',
  'Kind',
  'Supplier',
  'Number',
  'Dated',
  'Due',
  'Currency',
  'Total',
  'Entry',
  'In the hands of',
  'Arrived',
];

/** A bill as a row of it: amounts as plain decimals, credit notes below zero, days as 2026-11-26. */
export const billCells = (r: BillRow): string[] =>
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
  ].map((value) => value ?? '');
