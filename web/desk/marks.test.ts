import { describe, expect, it } from 'vitest';
import type { Bill } from '@ledgerline/contract';
import type { ShownPage } from '../ui/page-view';
import { fillFrom, wantsDigits } from './fill';
import { cellName, marksOf, pathName } from './marks';
import { printOf, type Print } from './print';

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
  unsure: ['l.amount'],
  marks: { gross: { mark, confidence: 1, proof: null }, tax: { mark: null, confidence: 1, proof: null } },
  dimensions: [],
  lines: [line],
} as unknown as Bill;
const british: Print = { numbers: { decimal: '.' }, order: 'day-first' };
const dutch: Print = { numbers: { decimal: ',' }, order: 'day-first' };
const american: Print = { numbers: { decimal: '.' }, order: 'month-first' };
const value = (path: string, text: string, print = british) => {
  const op = fillFrom(bill, path, text, mark, print);
  return op && 'value' in op ? op.value : null;
};

describe('a click on the page', () => {
  it.each([
    ['£1,234.50', british, '1234.50'],
    ['1.234,50', british, '1234.50'],
    ['1.234,50', dutch, '1234.50'],
    ['1.234', dutch, '1234'],
    ['1.234', british, '1.234'],
    ['0,125', british, '0.125'],
    ['0,125', dutch, '0.125'],
    ['-12', british, '-12'],
    ['12,', british, '12'],
    ['PO', british, null],
  ])('%s is the quantity it says', (text, print, number) => expect(value('l.quantity', text, print)).toBe(number));
  it('fills an amount with the currency’s decimals and its place', () =>
    expect(fillFrom(bill, 'gross', '£6', mark, british)).toEqual({ do: 'set', field: 'gross', value: '6.00', mark }));
  it('fills a cell of a row by the row’s id', () =>
    expect(fillFrom(bill, 'l.quantity', '12', mark, british)).toEqual({ do: 'set-cell', line: 'l', field: 'quantity', value: '12', mark }));
  it('joins words to a description; a drawn box takes its place', () => {
    expect(value('l.description', 'terracotta')).toBe('Pots terracotta');
    expect(fillFrom(bill, 'l.description', 'Terracotta pots', mark, british, true)).toMatchObject({ value: 'Terracotta pots' });
  });
  it('takes a date in the order of the document', () => {
    expect([value('issueDate', '03/11/2026'), value('issueDate', '03/11/2026', american)]).toEqual(['2026-11-03', '2026-03-11']);
    expect(value('issueDate', '31/12/2026', american)).toBe('2026-12-31');
  });
  it('does not fit a word into an amount or a date, nor anything into a row that is gone', () =>
    expect([value('gross', 'Total'), value('issueDate', 'Total'), value('x.amount', '5'), value('stage', 'approved')]).toEqual([
      null,
      null,
      null,
      null,
    ]));
  it('knows where only digits can stand', () =>
    expect(['gross', 'l.amount', 'l.unitPrice', 'terms', 'l.description', 'proof'].map(wantsDigits)).toEqual([
      true,
      true,
      true,
      false,
      false,
      false,
    ]));
});

describe('how a document prints', () => {
  const word = (text: string, x: number, y: number) => ({ text, x, y, w: 50, h: 10, size: 10, bold: false });
  const page = {
    number: 1,
    width: 500,
    height: 700,
    words: [word('03/11/2026', 10, 10), word('1.234,50', 10, 40)],
  } as unknown as ShownPage;
  const dated = (issueDate: string) => ({
    issueDate,
    dueDate: null,
    marks: { issueDate: { mark: { page: 1, x: 10, y: 10, w: 50, h: 10 }, confidence: 1, proof: null } },
  });
  it('follows from a date that was read and from its amounts', () => {
    expect(printOf(dated('2026-11-03'), [page])).toEqual({ numbers: { decimal: ',' }, order: 'day-first' });
    expect(printOf(dated('2026-03-11'), [page]).order).toBe('month-first');
  });
  it('is day first where nothing says otherwise', () =>
    expect(printOf({ issueDate: null, dueDate: null, marks: {} }, [page]).order).toBe('day-first'));
});

describe('places and names', () => {
  it('shows a mark for every value that has a place, dashed where unsure', () =>
    expect(marksOf(bill).map((m) => [m.path, m.unsure])).toEqual([
      ['gross', false],
      ['l.amount', true],
    ]));
  it('calls a cell what its heading says', () => {
    const own = [{ field: 'dimension2' as const, name: 'Fund', always: false }];
    expect([cellName(1, 'unitPrice', []), cellName(0, 'accountId', own), cellName(0, 'dimension2', own)]).toEqual([
      'Row 2 price',
      'Row 1 account',
      'Row 1 Fund',
    ]);
    expect([pathName(bill, 'gross'), pathName(bill, 'l.unitPrice'), pathName(bill, 'l'), pathName(bill, 'gone.amount')]).toEqual([
      'Total',
      'Row 1 price',
      'Row 1',
      'A row',
    ]);
  });
});

it('a currency lies below the amount that it was read off, wherever it stands among the marks', () => {
  const at = { mark, confidence: 1, proof: null };
  const paths = marksOf({ ...bill, lines: [], marks: { gross: at, currency: at, net: at } } as unknown as Bill).map((m) => m.path);
  expect(paths).toEqual(['currency', 'gross', 'net']);
});
