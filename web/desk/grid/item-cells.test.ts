import { describe, expect, it } from 'vitest';
import { codingOf, emptyCells } from '@ledgerline/core/bills';
import type { BillLine, Choice } from '@ledgerline/contract';
import { itemCells } from './item-cells';

const bulbs: Choice = {
  id: 'i1',
  code: 'BULB-9',
  name: 'Lamp, 9 W',
  detail: null,
  unit: 'piece',
  price: '4.25',
  currency: 'GBP',
  going: [
    { field: 'accountId', id: 'energy', code: '6200', name: 'Energy' },
    { field: 'taxCodeId', id: 's20', code: 'S20', name: 'Standard' },
  ],
};
const taken = (line: Partial<BillLine>, currency = 'GBP') =>
  Object.fromEntries(
    itemCells({ id: 'l', kind: 'line', ...emptyCells(), ...codingOf(null), ...line } as BillLine, bulbs, currency).map((op) =>
      op.do === 'set-cell' ? [op.field, op.value] : [],
    ),
  );

describe('a row that takes an item', () => {
  it('has all of it where it was empty', () =>
    expect(taken({})).toEqual({
      code: 'BULB-9',
      description: 'Lamp, 9 W',
      unit: 'piece',
      quantity: '1',
      unitPrice: '4.25',
      amount: '4.25',
      accountId: 'energy',
      taxCodeId: 's20',
    }));
  it('reckons the amount with the quantity that stands there', () => {
    const { quantity, amount } = taken({ quantity: '3' });
    expect([quantity, amount]).toEqual([undefined, '12.75']);
  });
  it('reckons it in the currency’s own units', () => expect(taken({ quantity: '0.333' })['amount']).toBe('1.42'));
  it('keeps what stands there, and the page’s price', () =>
    expect(taken({ code: 'L-77', description: 'Lamps', amount: '40.00', accountId: 'repairs' })).toEqual({
      unit: 'piece',
      taxCodeId: 's20',
    }));
  it('is bought into stock where the item is kept there, unless an order has it', () => {
    const pots = { ...bulbs, stocked: true },
      row = { id: 'l', kind: 'line', ...emptyCells(), ...codingOf(null) } as BillLine;
    expect(itemCells(row, pots, 'GBP')[0]).toEqual({ do: 'set-kind', line: 'l', kind: 'stock' });
    for (const ops of [
      itemCells(row, bulbs, 'GBP'),
      itemCells(row, pots, 'GBP', true),
      itemCells({ ...row, kind: 'asset' }, pots, 'GBP'),
      itemCells({ ...row, kind: 'stock' }, pots, 'GBP'),
    ])
      expect(ops.filter((o) => o.do === 'set-kind')).toEqual([]);
  });
  it('takes no price in another currency', () => expect(Object.keys(taken({}, 'EUR'))).not.toContain('unitPrice'));
});
