import { describe, expect, it } from 'vitest';
import type { Bill, StoredMark } from '@ledgerline/contract';
import { cellName, fillFrom, marksOf, plainNumber, typedOver } from './marks';

const mark = { page: 1, x: 1, y: 2, w: 3, h: 4 };
const line = {
  id: 'l',
  kind: 'line',
  code: null,
  description: 'Pots',
  quantity: '1',
  unit: null,
  unitPrice: null,
  priceQuantity: '1',
  discountPercent: null,
  taxRate: null,
  amount: '5.00',
  accountId: null,
  costCentreId: null,
  taxCodeId: null,
  marks: { amount: { mark, confidence: 1, proof: null } },
};
const bill = {
  currency: 'GBP',
  unsure: ['lines[0].amount'],
  marks: { gross: { mark, confidence: 1, proof: null }, tax: { mark: null, confidence: 1, proof: null } },
  lines: [line],
} as unknown as Bill;

describe('a click on the page', () => {
  it.each([
    ['£1,234.50', '1234.5'],
    ['1.234,50', '1234.5'],
    ['-12', '-12'],
    ['PO', null],
  ])('%s is the number %s', (text, value) => expect(plainNumber(text)).toBe(value));
  it('fills an amount with the currency’s decimals and its mark', () =>
    expect(fillFrom(bill, 'gross', '£6', mark)?.header).toMatchObject({ gross: '6.00', marks: { gross: { mark } } }));
  it('fills a cell of a row', () =>
    expect(fillFrom(bill, 'lines[0].quantity', '12', mark)?.line).toMatchObject({
      index: 0,
      field: 'quantity',
      change: { quantity: '12' },
    }));
  it('joins words to a description', () =>
    expect(fillFrom(bill, 'lines[0].description', 'terracotta', mark)?.line?.change.description).toBe('Pots terracotta'));
  it('does not fit a word into an amount or a date', () =>
    expect([
      fillFrom(bill, 'gross', 'Total', mark),
      fillFrom(bill, 'issueDate', 'Total', mark),
      fillFrom(bill, 'lines[7].amount', '5', mark),
    ]).toEqual([null, null, null]));
  it('shows a mark for every value that has a place, dashed where unsure', () =>
    expect(marksOf(bill).map((m) => [m.path, m.unsure])).toEqual([
      ['gross', false],
      ['lines[0].amount', true],
    ]));
});

describe('a cell of a row', () => {
  it('is called what its heading says', () =>
    expect([cellName(1, 'unitPrice'), cellName(0, 'accountId'), cellName(0, 'amount')]).toEqual([
      'Row 2 price',
      'Row 1 account',
      'Row 1 amount',
    ]));
});

describe('what is typed over a value that was read', () => {
  const read: { net: string; gross: string; marks: Record<string, StoredMark> } = {
    net: '10.00',
    gross: '12.00',
    marks: {
      gross: { mark, confidence: 0.995, proof: '10.00 + 2.00 = 12.00', repaired: 'read 1200, 12.00 makes 10.00 + 2.00 = 12.00' },
      net: { mark, confidence: 0.995, proof: '10.00 + 2.00 = 12.00' },
    },
  };
  it('keeps its place on the page, and is neither proven nor put right', () => {
    const { marks } = typedOver(read, { gross: '14.00' });
    expect(marks).toEqual({ gross: { mark, confidence: 1, proof: null }, net: read.marks['net'] });
  });
  it('is still proven where it is the same', () => expect(typedOver(read, { gross: '12.00' })).toEqual({ gross: '12.00' }));
  it('has the marks that come with it', () => {
    const change = { gross: '14.00', marks: {} };
    expect(typedOver(read, change)).toBe(change);
  });
});
