import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyAll, emptyCells, type Operation } from '@ledgerline/core/bills';
import { formatBlock, parseBlock } from '@ledgerline/core/clipboard';
import type { Bill, BillLine, Choice } from '@ledgerline/contract';
import { placeColumns, type Placed } from './columns';
import { clear, copyToAll, fillDown, moveRows, paste, toChoose, type Paste } from './edits';
import type { Block } from './selection';
import { plainOf, valueFrom } from './values';

const row = (id: string, over: Partial<BillLine> = {}): BillLine => ({ ...emptyCells(), id, kind: 'line', marks: {}, ...over });
const bill = (...lines: BillLine[]): Bill =>
  ({ currency: 'GBP', marks: {}, unsure: [], lines, dimensions: [], exceptions: [] }) as unknown as Bill;
const accounts: Record<string, Choice> = {
  '6040': { id: 'k40', code: '6040', name: 'Watering', detail: null },
  '6050': { id: 'k50', code: '6050', name: 'Soil', detail: null },
};
const columnsOf = (b: Bill): Placed[] =>
  placeColumns(
    b,
    () => null,
    900,
    (t) => t.length * 7,
  );
const three = bill(
  row('a', { description: 'Pump', quantity: '2', unitPrice: '5.00', amount: '10.00', accountId: 'k40' }),
  row('b', { description: 'Hose', amount: '7.00' }),
  row('c', { kind: 'text', description: 'Thank you' }),
);
const block = (top: number, left: string, bottom = top, right = left): Block => {
  const columns = columnsOf(three).map((c) => c.id as string);
  return { top, bottom, left: columns.indexOf(left), right: columns.indexOf(right) };
};
const cells = (b: Bill, ...ids: (keyof BillLine)[]) => b.lines.map((l) => ids.map((id) => l[id]));
const after = (ops: Operation[], b = three) => applyAll(b, ops);
const pasted = (text: string, at: Block, more: Partial<Paste> = {}) => {
  let n = 0;
  const { operations, troubles } = paste({
    bill: three,
    columns: columnsOf(three),
    block: at,
    cells: parseBlock(text),
    styles: [{ decimal: '.' }],
    today: '2026-11-26',
    order: 'day-first',
    choose: (_, t) => accounts[t] ?? null,
    newId: () => `new${++n}`,
    ...more,
  });
  return { bill: after(operations), troubles: troubles.map((t) => t.sentence) };
};

describe('what is done with a block', () => {
  it('clearing empties it', () => expect(cells(after(clear(three, columnsOf(three), block(0, 'quantity', 1, 'amount'))), 'description', 'quantity', 'amount')).toEqual([['Pump', null, null], ['Hose', null, null], ['Thank you', null, null]])); // prettier-ignore
  it('filling down repeats its first row; one row takes what is above it', () => {
    expect(cells(after(fillDown(three, columnsOf(three), block(0, 'accountId', 1))), 'accountId')).toEqual([['k40'], ['k40'], [null]]);
    expect(cells(after(fillDown(three, columnsOf(three), block(1, 'quantity'))), 'quantity')).toEqual([['2'], ['2'], [null]]);
    expect(fillDown(three, columnsOf(three), block(0, 'quantity'))).toEqual([]);
  });
  it('copying to all leaves rows of text alone as they are', () =>
    expect(cells(after(copyToAll(three, columnsOf(three), block(0, 'accountId'))), 'accountId')).toEqual([['k40'], ['k40'], [null]]));
  it('rows move together, and stop at the edges', () => {
    expect(after(moveRows(three, 1, 2, -1)).lines.map((l) => l.id)).toEqual(['b', 'c', 'a']);
    expect(after(moveRows(three, 0, 1, 1)).lines.map((l) => l.id)).toEqual(['c', 'a', 'b']);
    expect([moveRows(three, 0, 1, -1), moveRows(three, 1, 2, 1)]).toEqual([[], []]);
  });
});

describe('a paste', () => {
  it('goes from the first cell on, codes looked up, and adds the rows that it needs', () => {
    const { bill: b, troubles } = pasted('Clamp\t3\t2.50\t7.50\t6050\nTape\t1\t4\t4\t6040\n', block(1, 'description'));
    expect(cells(b, 'description', 'quantity', 'unitPrice', 'amount', 'accountId').slice(1)).toEqual([
      ['Clamp', '3', '2.5', '7.50', 'k50'],
      ['Tape', null, null, null, null],
    ]);
    expect(troubles).toHaveLength(4);
    const more = pasted('One\nTwo', block(2, 'description')).bill;
    expect(more.lines.map((l) => [l.id, l.description])).toEqual([['a', 'Pump'], ['b', 'Hose'], ['c', 'One'], ['new1', 'Two']]); // prettier-ignore
  });
  it('tells by row and column what it could not take, and takes the rest', () => {
    const { bill: b, troubles } = pasted('9999\tx\n6050\t\n', block(0, 'accountId'));
    expect(troubles).toEqual(['Row 1, account: “9999” is not on the list.', 'Row 1, cost centre: “x” is not on the list.']);
    expect(cells(b, 'accountId')).toEqual([['k40'], ['k50'], [null]]);
  });
  it('reads figures in the style of the document where only that fits', () =>
    expect(cells(pasted('1.234,50\n2.000', block(0, 'amount'), { styles: [{ decimal: '.' }, { decimal: ',' }] }).bill, 'amount').slice(0, 2)).toEqual([['1234.50'], ['2000.00']])); // prettier-ignore
  it('of one cell fills what is selected', () =>
    expect(cells(pasted('9', block(0, 'quantity', 1)).bill, 'quantity')).toEqual([['9'], ['9'], [null]]));
  it('asks for each code once', () =>
    expect(toChoose({ bill: three, columns: columnsOf(three), block: block(0, 'accountId'), cells: [['6040'], [' 6040'], ['']] })).toEqual([
      { of: 'accounts', text: '6040' },
    ]));
  it('of what was copied changes nothing, whatever stands there', () => {
    const text = fc.string({ unit: fc.constantFrom('a', '"', '\t', '\n', ' ', 'é'), maxLength: 8 }).map((t) => t.trim());
    const amount = fc.integer({ min: -99_999, max: 99_999 }).map((n) => (n / 100).toFixed(2));
    const line = fc.record({ description: text, amount, quantity: fc.option(amount), accountId: fc.constantFrom('k40', null) });
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 5 }), fc.constantFrom('.' as const, ',' as const), (lines, sign) => {
        const b = bill(...lines.map((l, i) => row(String(i), l)));
        const columns = columnsOf(b).filter((c) => ['description', 'amount', 'quantity', 'accountId'].includes(c.id));
        const byId = (id: string | null) => Object.values(accounts).find((c) => c.id === id) ?? null;
        const copied = formatBlock(b.lines.map((l) => columns.map((c) => plainOf(l, c, sign, byId))));
        const { operations, troubles } = paste({
          bill: b,
          columns,
          block: { top: 0, bottom: 0, left: 0, right: 0 },
          cells: parseBlock(copied),
          styles: [{ decimal: sign }],
          today: '2026-11-26',
          order: 'day-first',
          choose: (_, t) => accounts[t] ?? null,
          newId: () => 'never',
        });
        expect(troubles).toEqual([]);
        expect(applyAll(b, operations).lines.map((l) => [l.description, Number(l.amount), Number(l.quantity), l.accountId])).toEqual(
          b.lines.map((l) => [l.description, Number(l.amount), Number(l.quantity), l.accountId]),
        );
      }),
    );
  });
});

describe('what is typed into a cell', () => {
  const column = (id: string) => placeColumns(three, () => null, 900, () => 9, { widths: {}, hidden: [], shown: ['taxRate', 'serviceDate', 'priceQuantity'] }).find((c) => c.id === id)!; // prettier-ignore
  const typed = (text: string, id: string) => valueFrom(text, column(id), 'GBP', '2026-11-26', 'day-first');
  it('is computed, dated, or said to be wrong', () => {
    expect(typed('12*21.4', 'amount')).toEqual({ value: '256.80' });
    expect(typed('20%', 'taxRate')).toEqual({ value: '20' });
    expect(typed('3/11', 'serviceDate')).toEqual({ value: '2026-11-03' });
    expect(typed(' two \n lines ', 'description')).toEqual({ value: ' two \n lines' });
    expect(typed('abc', 'amount')).toEqual({ wrong: '“abc” is not a number' });
    expect(typed('0', 'priceQuantity')).toEqual({ wrong: 'a price is for one or more' });
    expect(typed('x'.repeat(501), 'description')).toEqual({ wrong: 'is longer than 500 letters' });
    expect([typed('', 'amount'), typed('', 'description'), typed('', 'priceQuantity')]).toEqual([{ value: null }, { value: '' }, { value: '1' }]); // prettier-ignore
  });
});
