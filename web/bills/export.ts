import { formatCsv } from '@ledgerline/core/clipboard';
import type { BillRow } from '@ledgerline/contract';

const heads = ['Stage', 'Kind', 'Supplier', 'Number', 'Dated', 'Due', 'Currency', 'Total', 'Entry', 'In the hands of', 'Arrived'];

/** Bills as a CSV file: amounts as plain decimals, credit notes below zero, days as 2026-11-26. */
export function csvOf(rows: readonly BillRow[]): string {
  const lines = rows.map((r) => [
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
  ]);
  return formatCsv([heads, ...lines.map((line) => line.map((value) => value ?? ''))]);
}

/** Hands a text to the browser as a file. */
export function download(name: string, text: string, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
