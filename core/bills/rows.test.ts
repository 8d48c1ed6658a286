import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec, sum } from '../money/index.ts';
import { applyAll, emptyCells, joinRows, splitRow, type WorkingBill, type WorkingLine } from './index.ts';

const row = (id: string, over: Partial<WorkingLine> = {}): WorkingLine => ({ ...emptyCells(), id, kind: 'line', marks: {}, ...over });
const bill = (...lines: WorkingLine[]) => ({ marks: {}, unsure: [], lines }) as unknown as WorkingBill;

describe('a row parted', () => {
  it('by percent, to the cent, with its coding on each part and its own figures gone', () => {
    const one = row('a', {
      description: 'Rent',
      quantity: '1',
      unitPrice: '100',
      amount: '100.00',
      accountId: 'k',
      serviceDate: '2026-11-01',
    });
    const after = applyAll(bill(one, row('z')), splitRow(one, ['1', '1', '1'], ['b', 'c'], 'GBP'));
    expect(after.lines.map((l) => [l.id, l.amount, l.quantity, l.accountId, l.description])).toEqual([
      ['a', '33.34', null, 'k', 'Rent'],
      ['b', '33.33', null, 'k', 'Rent'],
      ['c', '33.33', null, 'k', 'Rent'],
      ['z', null, null, null, ''],
    ]);
  });
  it('over cost centres: each part has its own, to the penny', () => {
    const one = row('a', { description: 'Rent', amount: '1000.01', costCentreId: 'x', accountId: 'k' });
    const after = applyAll(
      bill(one),
      splitRow(one, ['1240', '310', '655', '420', '275'], ['b', 'c', 'd', 'e'], 'GBP', ['p', 'q', 'r', 's', 't']),
    );
    // Of 2,900: 1240 is 427.5905, 310 is 106.8976, 655 is 225.8643, 420 is 144.8290, 275 is 94.8285; the pennies left over go to the largest remainders.
    expect(after.lines.map((l) => [l.costCentreId, l.amount, l.accountId])).toEqual([
      ['p', '427.59', 'k'],
      ['q', '106.90', 'k'],
      ['r', '225.86', 'k'],
      ['s', '144.83', 'k'],
      ['t', '94.83', 'k'],
    ]);
  });
  it('always makes its amount, whatever the shares and the currency', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -1_000_000, max: 1_000_000 }),
        fc.array(fc.integer({ min: 1, max: 1000 }), { minLength: 2, maxLength: 9 }),
        fc.constantFrom('GBP', 'JPY'),
        (cents, shares, currency) => {
          const amount = currency === 'JPY' ? String(cents) : dec(cents).div(100).toFixed();
          const one = row('0', { amount });
          const ids = shares.slice(1).map((_, i) => `n${i}`);
          const { lines } = applyAll(bill(one), splitRow(one, shares.map(String), ids, currency));
          expect(lines.map((l) => l.id)).toEqual(['0', ...ids]);
          expect(sum(lines.map((l) => dec(l.amount!))).eq(amount)).toBe(true);
        },
      ),
    ));
});

describe('rows joined', () => {
  const join = (...lines: WorkingLine[]) => applyAll(bill(...lines), joinRows(lines, 'GBP')).lines;
  it('add amounts and put descriptions one under the other; what differs is left empty', () =>
    expect(
      join(
        row('a', { description: 'Pump', quantity: '2', unitPrice: '5', amount: '10.00', accountId: 'k', code: 'P' }),
        row('b', { description: 'Fitting', quantity: '1', unitPrice: '7', amount: '7.50', accountId: 'k', code: 'F' }),
      ),
    ).toMatchObject([
      { id: 'a', description: 'Pump\nFitting', quantity: null, unitPrice: null, amount: '17.50', accountId: 'k', code: null },
    ]));
  it('add quantities where unit and price are the same', () => {
    const same = { description: 'Hour', quantity: '2', unit: 'h', unitPrice: '5', amount: '10' };
    expect(join(row('a', same), row('b', { ...same, quantity: '3', amount: '15' }))).toMatchObject([
      { description: 'Hour', quantity: '5', unit: 'h', unitPrice: '5', amount: '25.00' },
    ]);
  });
  it('of text alone give their words to the row with figures, which stays a line', () =>
    expect(
      join(row('a', { kind: 'text', description: 'Delivered Tuesday' }), row('b', { description: 'Pump', amount: '4' })),
    ).toMatchObject([{ id: 'a', kind: 'line', description: 'Delivered Tuesday\nPump', amount: '4.00' }]));
});
