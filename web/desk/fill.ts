import { parsePath, type Operation } from '@ledgerline/core/bills';
import { findDates } from '@ledgerline/core/dates';
import { dec, minorUnits } from '@ledgerline/core/money';
import { numberAsPrinted } from '@ledgerline/core/numbers';
import type { Bill, Mark } from '@ledgerline/contract';
import type { Print } from './print';

const amounts = ['net', 'tax', 'gross'];
const figures = ['quantity', 'unitPrice', 'discountPercent', 'priceQuantity', 'taxRate'];

/** Whether only digits and their signs can stand in a field. */
export function wantsDigits(path: string): boolean {
  const at = parsePath(path);
  return at !== null && ('field' in at ? amounts.includes(at.field) : at.cell === 'amount' || figures.includes(at.cell));
}

/**
 * What a word or a drawn spot of the page is for the field in hand: the operation that puts it there with its place, or null where it
 * does not fit. Numbers and dates are taken as this document prints them.
 */
export function fillFrom(bill: Bill, path: string, text: string, mark: Mark, print: Print, spot = false): Operation | null {
  const at = parsePath(path);
  if (!at) return null;
  const number = (decimals?: number) => {
    const n = numberAsPrinted(text, print.numbers);
    if (n === null) return null;
    const value = decimals === undefined ? n : dec(n).toFixed(decimals);
    // A longer row of digits is a reference, not a figure.
    return /^-?\d{1,15}(\.\d{1,6})?$/.test(value) ? value : null;
  };
  if ('line' in at) {
    const line = bill.lines.find((l) => l.id === at.line);
    if (!line) return null;
    const set = (value: string): Operation => ({ do: 'set-cell', line: at.line, field: at.cell, value, mark });
    if (at.cell === 'amount' || figures.includes(at.cell)) {
      const n = number(at.cell === 'amount' ? minorUnits(bill.currency) : undefined);
      return n === null ? null : set(n);
    }
    if (at.cell === 'unit' || at.cell === 'code') return set(text.slice(0, at.cell === 'unit' ? 20 : 60));
    if (at.cell === 'description') return set((line.description && !spot ? `${line.description} ${text}` : text).slice(0, 500));
    return null;
  }
  const set = (value: string): Operation => ({ do: 'set', field: at.field, value, mark });
  if (amounts.includes(at.field)) {
    const n = number(minorUnits(bill.currency));
    return n === null ? null : set(n);
  }
  if (at.field === 'issueDate' || at.field === 'dueDate') {
    const dates = findDates(text)[0]?.dates;
    const day = dates?.[print.order] ?? dates?.['day-first'] ?? dates?.['month-first'];
    return day ? set(day) : null;
  }
  if (at.field === 'invoiceNumber' || at.field === 'purchaseOrder') {
    const number = text.replace(/[.,;:]$/, '').slice(0, 60);
    return number === '' ? null : set(number);
  }
  if (at.field === 'terms') return set(text.slice(0, 200));
  return null;
}
