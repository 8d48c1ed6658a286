import { describe, expect, it } from 'vitest';
import type { Compared } from '../matching/index.ts';
import { orderChecks } from './orders.ts';
import type { CheckedBill, CheckedLine, Facts } from './types.ts';

const row = (id: string, more: Partial<CheckedLine> = {}) => ({ id, kind: 'line', description: 'Pots', quantity: '40', unitPrice: '0.25', priceQuantity: '1', discountPercent: null, amount: '10.00', ...more }) as CheckedLine; // prettier-ignore
const bill = { currency: 'GBP', pricesIncludeTax: false, lines: [row('a'), row('b', { description: 'Delivery, Tuesday' })] } as CheckedBill;
const line = (more: Partial<Compared> = {}): Compared => ({ id: 'l', order: 'PO-1', place: 2, description: 'Pots', unit: 'pc', unitPrice: '0.22', ordered: '100', received: '100', billed: '0', rows: ['a'], onBill: '40', price: '0.25', overOrdered: null, overReceived: null, overPrice: [], state: 'part-billed', ...more }); // prettier-ignore
const none: Facts['orders'] = { unknown: null, closed: [], otherCurrency: null, compared: [], beside: [] };
const found = (orders: Partial<Facts['orders']>, of: CheckedBill = bill) =>
  orderChecks.flatMap((c) => c.run(of, { orders: { ...none, ...orders } } as Facts).map((f) => ({ code: c.code, ...f })));
const said = (orders: Partial<Facts['orders']>) => found(orders).map((f) => f.sentence);

describe('what a bill says beyond its order', () => {
  it('nothing where all is as ordered', () => {
    expect(found({ compared: [line()] })).toEqual([]);
  });
  it('a dearer row, with the order’s price as a change: the amount less what is over, and the price that it makes', () => {
    const [one] = found({ compared: [line({ overPrice: [{ row: 'a', each: '0.03', total: '1.2' }] })] });
    expect(one!.sentence).toBe('Row 1 costs 0.25 each; order PO-1, line 2 says 0.22: 1.20 more.');
    expect(one!.changes).toEqual([
      {
        kind: 'operations',
        label: 'Take the order’s price',
        operations: [
          { do: 'set-cell', line: 'a', field: 'unitPrice', value: '0.22' },
          { do: 'set-cell', line: 'a', field: 'amount', value: '8.80' },
        ],
      },
    ]);
  });
  it('no such change where amounts include tax; a discount goes with it', () => {
    const over = { compared: [line({ overPrice: [{ row: 'a', each: '0.03', total: '1.2' }] })] };
    expect(found(over, { ...bill, pricesIncludeTax: true })[0]!.changes).toEqual([]);
    const [one] = found(over, { ...bill, lines: [row('a', { discountPercent: '10' })] });
    expect(one!.changes![0]).toMatchObject({ operations: [{}, { field: 'discountPercent', value: null }, {}] });
  });
  it('quantities in sentences: beyond the order, beyond what has come, taken back too many', () => {
    expect(said({ compared: [line({ overOrdered: '10', billed: '70' })] })).toEqual(['Row 1 bills 40 pc; order PO-1, line 2 is for 100 pc, and 70 pc were billed before.']); // prettier-ignore
    expect(said({ compared: [line({ overReceived: '40', received: '0' })] })).toEqual(['Row 1 bills 40 pc; of order PO-1, line 2, nothing has come so far.']); // prettier-ignore
    expect(said({ compared: [line({ overOrdered: '20', overReceived: '20', onBill: '120' })] })).toHaveLength(1);
    expect(said({ compared: [line({ overOrdered: '-10', onBill: '-40', billed: '30' })] })).toEqual(['Row 1 takes back 40 pc; of order PO-1, line 2, 30 pc were billed.']); // prettier-ignore
  });
  it('a number that is no order, with the one that it may be; closed; another currency', () => {
    expect(said({ unknown: { number: 'PO-9', of: null, maybe: 'PO-1' } })).toEqual(['There is no order PO-9 with this supplier. All rows are those of PO-1.']); // prettier-ignore
    expect(found({ unknown: { number: 'PO-9', of: 'Fernwick', maybe: null } })[0]).toMatchObject({ sentence: 'Order PO-9 is with Fernwick, not with this supplier.', changes: [] }); // prettier-ignore
    expect(said({ closed: ['PO-1'], otherCurrency: { order: 'PO-1', currency: 'USD' } })).toEqual([
      'Order PO-1 is closed: no bill of it was expected any more.',
      'This bill is in GBP; order PO-1 is in USD.',
    ]);
  });
  it('rows in none of its orders; carriage among them may become a charge', () => {
    const [one, two] = found({ beside: ['a', 'b'] });
    expect([one!.sentence, one!.changes]).toEqual(['Row 1 is in none of its orders.', []]);
    expect(two!.sentence).toBe('Row 2 looks like carriage, which its orders do not have.');
    expect(two!.changes).toMatchObject([{ operations: [{ do: 'set-kind', line: 'b', kind: 'charge' }] }]);
  });
});
