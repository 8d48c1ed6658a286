import { describe, expect, it } from 'vitest';
import { habitChecks } from './habits.ts';
import type { CheckedBill, CheckedLine, Facts, SupplierKnown } from './types.ts';

const line = { id: 'l1', kind: 'line', description: 'Pot', quantity: '10', unitPrice: '0.22', priceQuantity: '1', discountPercent: null, amount: '2.20' } as CheckedLine; // prettier-ignore
const bill = (more: Partial<CheckedBill> = {}) => ({ kind: 'invoice', currency: 'GBP', gross: '100.00', issueDate: '2026-11-02', supplierTaxId: null, supplierIban: null, lines: [line], ...more }) as CheckedBill; // prettier-ignore
const known = (more: Partial<SupplierKnown> = {}): SupplierKnown => ({ name: 'Fernwick', currency: 'GBP', taxIds: ['GB123456789'], habit: { bills: 24, least: '40.00', most: '120.00', totals: ['40.00', '120.00'] }, numbers: [], lastPrices: new Map(), ...more }); // prettier-ignore
const found = (of: Partial<CheckedBill>, facts: Partial<Facts> = {}) =>
  habitChecks.flatMap((c) => c.run(bill(of), { today: '2026-11-20', known: known(), ...facts } as Facts).map((f) => `${c.code}: ${f.sentence}`)); // prettier-ignore

describe('what is unlike what one knows', () => {
  it('nothing of a bill like the others', () => {
    expect(found({})).toEqual([]);
    expect(found({ gross: '360.00', issueDate: '2026-11-21' })).toEqual([]);
    expect(found({}, { known: null })).toEqual([]);
  });
  it.each<[Partial<CheckedBill>, Partial<Facts>, string]>([
    [{ issueDate: '2026-11-22' }, {}, 'date-future: The invoice date, 22 Nov 2026, is in the future.'],
    [{ issueDate: '2025-11-19' }, {}, 'date-old: The invoice date, 19 Nov 2025, is more than a year ago.'],
    [{ currency: 'EUR' }, {}, 'currency-unexpected: Fernwick is paid in GBP; this bill is in EUR.'],
    [
      { invoiceNumber: '884213' },
      { known: known({ numbers: ['FW-2046', 'FW-2045', 'FW-2044', 'FW-2043', 'FW-2042', 'FW-2041'] }) },
      'number-unlike: No bill of Fernwick had a number like 884213; the last were FW-2046 and FW-2045. Is it another number of the page?',
    ],
    [{ gross: '360.01' }, {}, 'amount-unusual: The total of 360.01 is far above the last 24 bills of Fernwick: 40.00 to 120.00.'],
    [
      {},
      { known: known({ lastPrices: new Map([['l1', { price: '0.19', on: '2026-10-02' }]]) }) },
      'price-up: Row 1 costs 16% more than on 2 Oct 2026: 0.19 then.',
    ],
  ])('%j, %j', (of, facts, sentence) => {
    expect(found(of, facts)).toEqual([sentence]);
  });
  it('nothing where nothing is known, or it is a credit note', () => {
    expect(found({ gross: '9000.00' }, { known: known({ habit: null }) })).toEqual([]);
    expect(found({ gross: '9000.00', kind: 'credit-note' })).toEqual([]);
    const numbers = ['FW-6', 'FW-5', 'FW-4', 'FW-3', 'FW-2', 'FW-1'];
    expect(found({ invoiceNumber: 'CR/1', kind: 'credit-note' }, { known: known({ numbers }) })).toEqual([]);
    expect(found({}, { known: known({ lastPrices: new Map([['l1', { price: '0.20', on: '2026-10-02' }]]) }) })).toEqual([]);
  });
});
