import type { BillRow } from '@ledgerline/contract';

const heads = ['Stage', 'Kind', 'Supplier', 'Number', 'Dated', 'Due', 'Currency', 'Total', 'Entry', 'In the hands of', 'Arrived'];

/** A cell of a CSV file (RFC 4180). Words that a spreadsheet would take for a formula are kept words. */
const cell = (value: string | null): string => {
  const text = value ?? '';
  const safe = /^[=+\-@\t\r]/.test(text) && !/^-?\d+(\.\d+)?$/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
};

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
  return [heads, ...lines].map((line) => line.map(cell).join(',')).join('\r\n') + '\r\n';
}

/** Hands a text to the browser as a file. */
export function download(name: string, text: string, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
