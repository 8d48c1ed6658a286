import { describe, expect, it } from 'vitest';
import type { GoodsRow } from '@ledgerline/contract';
import { tried } from './share';

const goods = (id: string, value: string): GoodsRow => ({
  id,
  receipt: 'GR-1',
  receivedOn: '2026-11-10',
  orderId: 'o',
  order: 'PO-1',
  supplier: 'Fernwick',
  code: null,
  description: 'Pots',
  quantity: '10',
  unit: 'pc',
  value,
  weight: null,
  volume: null,
  shown: [],
});
const two = [
  { goods: goods('b', '300.00'), typed: null },
  { goods: goods('a', '600.00'), typed: null },
];

describe('a charge tried on goods', () => {
  it('is shared as it will be kept: the cent left over goes to the first by id', () => {
    const { parts, trouble } = tried('0.01', 'equally', two, 'GBP');
    expect([parts.get('a'), parts.get('b'), trouble]).toEqual(['0.01', '0.00', null]);
    expect(Object.fromEntries(tried('90.00', 'value', two, 'GBP').parts)).toEqual({ a: '60.00', b: '30.00' });
  });
  it('by hand shows what is typed and says what is left', () => {
    const typed = [{ ...two[0]!, typed: '20.00' }, two[1]!];
    const { parts, trouble } = tried('90.00', 'by-hand', typed, 'GBP');
    expect([parts.get('b'), parts.get('a'), trouble]).toEqual(['20.00', undefined, '70.00 is still to be shared.']);
  });
  it('says why it cannot be shared by what is not known', () => {
    const { parts, trouble } = tried('90.00', 'weight', two, 'GBP');
    expect([parts.size, trouble]).toEqual([0, '2 of them have no weight. Give it at the order, or share by something else.']);
  });
});
