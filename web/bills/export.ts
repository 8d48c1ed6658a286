import { formatCsv } from '@ledgerline/core/clipboard';
import { billCells, billHeads, type BillRow } from '@ledgerline/contract';

/** Bills as a CSV file. */
export const csvOf = (rows: readonly BillRow[]): string => formatCsv([billHeads, ...rows.map(billCells)]);

/** Hands a text to the browser as a file. */
export function download(name: string, text: string, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
