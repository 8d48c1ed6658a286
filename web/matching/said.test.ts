import { describe, expect, it } from 'vitest';
import type { BillOrders } from '@ledgerline/contract';
import { amountOf, differencesOf, questionOf, summaryOf } from './said';

type Line = BillOrders['lines'][number];
const line = (more: Partial<Line> = {}): Line => ({ id: 'l', order: 'PO-1', orderId: 'o', place: 1, description: 'Pots', unit: 'pc', unitPrice: '0.22', ordered: '100', received: '100', billed: '0', rows: ['a'], onBill: '40', price: '0.22', overOrdered: null, overReceived: null, overPrice: [], state: 'part-billed', ...more }); // prettier-ignore
const row = (id: string, orderLineId: string | null = 'l') => ({ row: id, orderLineId, quantity: '1', why: 'same text', byHand: false });
const orders = (more: Partial<BillOrders> = {}): BillOrders => ({ withoutOrder: false, passedAlone: false, currency: 'GBP', lines: [line()], rows: [row('a'), row('b')], choices: [], debit: null, ...more }); // prettier-ignore
const dear = line({ overPrice: [{ row: 'a', each: '0.03', total: '1.2' }], overOrdered: '10', overReceived: '20' });

describe('a bill beside its orders, in words', () => {
  it('in one sentence: all of it, a part of it, what is off, none', () => {
    const said = (more: Partial<BillOrders>, goods = ['a', 'b']) => summaryOf(orders(more), goods);
    expect(said({})).toBe('Order PO-1: all 2 rows as ordered');
    expect(said({ rows: [row('a'), row('b', null)] })).toBe('Order PO-1: 1 of 2 rows as ordered');
    expect(said({ lines: [dear, line({ order: 'PO-2' })] })).toBe('Order PO-1, PO-2: all 2 rows found, 1 line is not as ordered');
    expect(said({ rows: [row('a')] }, ['a'])).toBe('Order PO-1: its row as ordered');
    expect(said({ passedAlone: true })).toBe('Order PO-1: went on by itself, all of it is as ordered');
    expect(said({ withoutOrder: true })).toBe('Of no order');
    expect(said({ lines: [] })).toBeNull();
    expect(said({ lines: [], choices: [line()] })).toBe('Of no order so far');
  });
  it('what of a line is off: price, ordered, received, taken back', () => {
    expect(differencesOf(line(), 'GBP')).toEqual([]);
    expect(differencesOf(dear, 'GBP')).toEqual(['0.03 each too dear, 1.20 in all', '10 pc not ordered', '20 pc not received']);
    expect(differencesOf(line({ overOrdered: '-5', unit: null }), 'GBP')).toEqual(['takes back 5 too many']);
    expect(amountOf('12.50000', null)).toBe('12.5');
  });
  it('a question names the invoice and only the lines that are off', () => {
    const asked = questionOf([dear, line({ place: 2 })], 'GBP', { invoiceNumber: 'INV-1', supplier: 'Fernwick' });
    expect(asked.split('\n')).toEqual([
      'Is this right on invoice INV-1 of Fernwick?',
      'PO-1, line 1, Pots: 0.03 each too dear, 1.20 in all; 10 pc not ordered; 20 pc not received.',
    ]);
  });
});
