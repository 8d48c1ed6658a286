import { describe, expect, it } from 'vitest';
import { check, type CheckedBill, type CheckContext } from './index.ts';

const rules = new Map([['s20', { id: 's20', code: 'S20', rate: '20', recoverable: '100', reverseCharge: false }]]);
const context: CheckContext = { baseCurrency: 'GBP', taxRules: rules, needsCostCentre: new Set(['a']), duplicate: null, hasRate: true };
const good: CheckedBill = {
  kind: 'invoice',
  supplierId: 's',
  supplierName: null,
  invoiceNumber: '1',
  issueDate: '2026-11-03',
  dueDate: '2026-12-03',
  currency: 'GBP',
  net: '100.00',
  tax: '20.00',
  gross: '120.00',
  pricesIncludeTax: false,
  unsure: [],
  lines: [
    {
      kind: 'line',
      description: 'Pots',
      quantity: null,
      unitPrice: null,
      priceQuantity: '1',
      discountPercent: null,
      amount: '100.00',
      accountId: 'a',
      costCentreId: 'c',
      taxCodeId: 's20',
    },
  ],
};
const codes = (bill: Partial<CheckedBill>, more: Partial<CheckContext> = {}) =>
  check({ ...good, ...bill }, { ...context, ...more }).map((e) => e.code);
const oneLine = (change: Partial<CheckedBill['lines'][number]>) => ({ lines: [{ ...good.lines[0]!, ...change }] });

describe('what keeps a bill from being sent on', () => {
  it('is nothing for a whole bill', () => expect(codes({})).toEqual([]));
  it.each<[string, Partial<CheckedBill>]>([
    ['supplier-missing', { supplierId: null }],
    ['number-missing', { invoiceNumber: null }],
    ['date-missing', { issueDate: null }],
    ['due-missing', { dueDate: null }],
    ['due-early', { dueDate: '2026-11-01' }],
    ['total-missing', { gross: null }],
    ['tax-missing', { tax: null, gross: '100.00' }],
    ['proof-off', { gross: '121.00' }],
    ['lines-missing', { lines: [] }],
    ['account-missing', oneLine({ accountId: null })],
    ['cost-centre-missing', oneLine({ costCentreId: null })],
    ['tax-code-missing', oneLine({ taxCodeId: null })],
    ['amount-missing', oneLine({ amount: null })],
    ['description-missing', oneLine({ description: ' ' })],
    ['tax-unexplained', { tax: '10.00', gross: '110.00' }],
  ])('%s', (code, bill) => expect(codes(bill)).toContain(code));
  it('a credit note needs no due date', () => expect(codes({ kind: 'credit-note', dueDate: null })).toEqual([]));
  it('a number used before, or no rate for a foreign bill', () => {
    expect(codes({}, { duplicate: 'another bill' })).toEqual(['duplicate']);
    expect(codes({ currency: 'EUR' }, { hasRate: false })).toEqual(['rate-missing']);
  });
  it('a doubt is shown but keeps nothing back', () =>
    expect(check({ ...good, unsure: ['dueDate'] }, context)).toEqual([expect.objectContaining({ code: 'unsure', blocking: false })]));
});
