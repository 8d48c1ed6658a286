import { cellPath } from '@ledgerline/core/bills';
import type { Bill, StoredMark } from '@ledgerline/contract';
import type { ShownMark } from './sheet';

const names: Record<string, string> = {
  supplierId: 'Supplier',
  invoiceNumber: 'Number',
  issueDate: 'Date',
  dueDate: 'Due',
  terms: 'Terms',
  currency: 'Currency',
  purchaseOrder: 'Order',
  net: 'Net',
  tax: 'Tax',
  gross: 'Total',
  kind: 'Kind',
  pricesIncludeTax: 'Amounts with tax',
};
const cells: Record<string, string> = {
  quantity: 'qty',
  unitPrice: 'price',
  accountId: 'account',
  costCentreId: 'cost centre',
  taxCodeId: 'tax',
  code: 'item code',
  serviceDate: 'delivered',
  taxRate: 'tax rate',
  discountPercent: 'discount',
  priceQuantity: 'price for how many',
};
/** A cell of a row as people call it: "Row 2 price". */
export const cellName = (row: number, field: string, dimensions: Bill['dimensions']): string =>
  `Row ${row + 1} ${cells[field] ?? dimensions.find((d) => d.field === field)?.name ?? field}`;

/** A path of a bill as people call it: "Total", "Row 2 price", "Row 2". */
export function pathName(bill: Pick<Bill, 'lines' | 'dimensions'>, path: string): string {
  if (names[path]) return names[path];
  const [id, cell] = path.split('.');
  const row = bill.lines.findIndex((l) => l.id === id);
  if (row < 0) return 'A row';
  return cell ? cellName(row, cell, bill.dimensions) : `Row ${row + 1}`;
}

/** Every value's place on the page with its field's path. A currency is often read off an amount: it lies below that, so that a click takes the amount. */
export function marksOf(bill: Bill): ShownMark[] {
  const of = (path: string, label: string, stored: StoredMark | undefined): ShownMark[] =>
    stored?.mark ? [{ path, label, mark: stored.mark, unsure: bill.unsure.includes(path), repaired: stored.repaired }] : [];
  const header = Object.entries(bill.marks).sort(([a], [b]) => Number(b === 'currency') - Number(a === 'currency'));
  return [
    ...header.flatMap(([path, stored]) => of(path, names[path] ?? path, stored)),
    ...bill.lines.flatMap((line, i) =>
      Object.entries(line.marks).flatMap(([cell, stored]) => of(cellPath(line.id, cell), cellName(i, cell, bill.dimensions), stored)),
    ),
  ];
}
