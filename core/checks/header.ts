import { dec } from '../money/index.ts';
import type { Check, CheckedBill, Facts } from './types.ts';

/** A check of the head that posting itself needs: found where the sentence is not null. */
const needed = (
  code: string,
  path: string,
  what: string,
  sentence: (bill: CheckedBill, facts: Facts) => string | null,
  needs: Check['needs'] = [],
): Check => ({
  code,
  scope: 'header',
  needs,
  severity: 'stops',
  adjustable: false,
  settledBy: [],
  what,
  run(bill, facts) {
    const said = sentence(bill, facts);
    return said === null ? [] : [{ path, sentence: said }];
  },
});

/** A field that a company may want on its bills, and that posting does not need: off until it says so. */
const wanted = (code: string, path: string, what: string, sentence: (bill: CheckedBill) => string | null): Check => ({
  ...needed(code, path, what, sentence),
  severity: 'off',
  adjustable: true,
  settledBy: ['overrule'],
});

export const headerChecks: Check[] = [
  needed('supplier-missing', 'supplierId', 'The supplier is chosen', (b) =>
    b.supplierId
      ? null
      : b.supplierName
        ? `${b.supplierName} is not among the suppliers. Choose one or make it new.`
        : 'Choose the supplier.',
  ),
  needed('number-missing', 'invoiceNumber', 'The invoice number is there', (b) =>
    b.invoiceNumber ? null : 'The invoice number is missing.',
  ),
  needed('date-missing', 'issueDate', 'The invoice date is there', (b) => (b.issueDate ? null : 'The invoice date is missing.')),
  needed('due-missing', 'dueDate', 'An invoice has a due date', (b) =>
    b.dueDate || b.kind === 'credit-note' ? null : 'The due date is missing. Type a date or the terms, such as net 30.',
  ),
  {
    ...needed('due-early', 'dueDate', 'The due date is not before the invoice date', (b) =>
      b.issueDate && b.dueDate && b.dueDate < b.issueDate ? 'The due date is before the invoice date.' : null,
    ),
    adjustable: true,
  },
  wanted('order-missing', 'purchaseOrder', 'The order number is there', (b) =>
    b.purchaseOrder ? null : 'The order number is missing. This company wants one on every bill.',
  ),
  wanted('terms-missing', 'terms', 'The payment terms are there', (b) => (b.terms ? null : 'The payment terms are missing.')),
  needed('total-missing', 'gross', 'The invoice total is there', (b) => (b.gross ? null : 'The invoice total is missing.')),
  needed('total-negative', 'gross', 'The total is not negative', (b) =>
    b.gross && dec(b.gross).isNegative() && !dec(b.gross).isZero()
      ? 'The total is negative. Make this a credit note with a positive total.'
      : null,
  ),
  needed('total-zero', 'gross', 'There is something to pay', (b) =>
    b.gross && dec(b.gross).isZero() ? 'The total is zero: there is nothing to post. Discard the bill, or correct the total.' : null,
  ),
  needed('tax-missing', 'tax', 'The tax is there, or 0', (b) =>
    b.tax === null && b.gross !== null ? 'Tax is missing. Type 0 if there is none.' : null,
  ),
  needed(
    'rate-missing',
    'currency',
    'A foreign bill has an exchange rate',
    (b, f) =>
      b.currency !== f.baseCurrency && !f.hasRate
        ? `There is no exchange rate from ${b.currency} to ${f.baseCurrency} for the invoice date.`
        : null,
    ['baseCurrency', 'hasRate'],
  ),
];
