import { findDates } from '@ledgerline/core/dates';
import { calculate, minorUnits } from '@ledgerline/core/money';
import type { Bill, BillLine, Mark, StoredMark } from '@ledgerline/contract';
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
};

const cells: Record<string, string> = {
  quantity: 'qty',
  unitPrice: 'price',
  accountId: 'account',
  costCentreId: 'cost centre',
  taxCodeId: 'tax',
  taxRate: 'tax rate',
  discountPercent: 'discount',
};
/** A cell of a row as people call it: "Row 2 price". */
export const cellName = (row: number, field: string): string => `Row ${row + 1} ${cells[field] ?? field}`;

/** Every value's place on the page with its field's path. */
export function marksOf(bill: Bill): ShownMark[] {
  const of = (path: string, label: string, stored: StoredMark | undefined): ShownMark[] =>
    stored?.mark ? [{ path, label, mark: stored.mark, unsure: bill.unsure.includes(path), repaired: stored.repaired }] : [];
  return [
    ...Object.entries(bill.marks).flatMap(([path, stored]) => of(path, names[path] ?? path, stored)),
    ...bill.lines.flatMap((line, i) =>
      Object.entries(line.marks).flatMap(([cell, stored]) => of(`lines[${i}].${cell}`, cellName(i, cell), stored)),
    ),
  ];
}

const amounts = ['net', 'tax', 'gross'];
const clicked = (mark: Mark) => ({ mark, confidence: 1, proof: null });

/**
 * A change with the marks of what it types over: the place on the page stays, but no sum proves the new value and nothing was put right
 * in it. A change that brings its own marks is left as it is.
 */
export function typedOver<T extends { marks: Record<string, StoredMark> }>(now: T, change: Partial<T>): Partial<T> {
  if (change.marks) return change;
  const typed = Object.keys(change).filter((path) => now.marks[path]?.mark && now[path as keyof T] !== change[path as keyof T]);
  if (typed.length === 0) return change;
  return { ...change, marks: { ...now.marks, ...Object.fromEntries(typed.map((path) => [path, clicked(now.marks[path]!.mark!)])) } };
}

/** Whether only digits and their signs can stand in a field. */
export const wantsDigits = (path: string): boolean => amounts.includes(path) || /\.(quantity|unitPrice|amount)$/.test(path);

/** A number as a page prints it, as plain digits: the sign followed by two digits at the end parts the decimals. */
export function plainNumber(text: string): string | null {
  const bare = text.replace(/[^\d.,-]/g, '');
  const plain = /,\d{1,2}$/.test(bare) ? bare.replace(/\./g, '').replace(',', '.') : bare.replace(/,/g, '');
  return calculate(plain)?.toFixed() ?? null;
}

/** What a word on the page is for the field in hand: a change to the head or to a row, or null when it does not fit. */
export function fillFrom(
  bill: Bill,
  path: string,
  word: string,
  mark: Mark,
  /** A whole spot, not one word more. */ spot = false,
): { header?: Partial<Bill>; line?: { index: number; field: string; change: Partial<BillLine> } } | null {
  const row = /^lines\[(\d+)\]\.(\w+)$/.exec(path);
  const fixed = (n: string) => calculate(n)!.toFixed(minorUnits(bill.currency));
  if (row) {
    const index = Number(row[1]),
      field = row[2]!,
      line = bill.lines[index];
    if (!line) return null;
    const marks = { ...line.marks, [field]: clicked(mark) };
    if (['quantity', 'unitPrice', 'amount'].includes(field)) {
      const number = plainNumber(word);
      return number === null ? null : { line: { index, field, change: { [field]: field === 'amount' ? fixed(number) : number, marks } } };
    }
    if (field === 'unit') return { line: { index, field, change: { unit: word, marks } } };
    return field === 'description'
      ? { line: { index, field, change: { description: line.description && !spot ? `${line.description} ${word}` : word, marks } } }
      : null;
  }
  const marks = { ...bill.marks, [path]: clicked(mark) };
  if (amounts.includes(path)) {
    const number = plainNumber(word);
    return number === null ? null : { header: { [path]: fixed(number), marks } };
  }
  if (path === 'issueDate' || path === 'dueDate') {
    const date = findDates(word)[0]?.dates;
    const day = date?.['day-first'] ?? date?.['month-first'];
    return day ? { header: { [path]: day, marks } } : null;
  }
  if (path === 'invoiceNumber' || path === 'purchaseOrder') return { header: { [path]: word.replace(/[.,;:]$/, ''), marks } };
  return null;
}
