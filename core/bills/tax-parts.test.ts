import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec, sum } from '../money/index.ts';
import { applyAll, emptyCells, partTax, type WorkingBill, type WorkingLine } from './index.ts';

const row = (id: string, amount: string | null, over: Partial<WorkingLine> = {}): WorkingLine => ({
  ...emptyCells(),
  id,
  kind: 'line',
  amount,
  taxCodeId: 'S20',
  marks: {},
  ...over,
});
const bill = (...lines: WorkingLine[]) => ({ marks: {}, unsure: [], lines }) as unknown as WorkingBill;
const done = (lines: WorkingLine[], parting: Parameters<typeof partTax>[1]) =>
  applyAll(bill(...lines), partTax(lines, parting, 'GBP', 'new')).lines.map((l) => [l.id, l.amount, l.taxCodeId]);

describe('what carries tax and what does not', () => {
  it('a row is split in two, each with its code', () =>
    expect(done([row('a', '100.00')], { taxCodeId: 'S20', freeCodeId: 'Z0', lines: [], parted: { line: 'a', amount: '30.00' } })).toEqual([
      ['a', '30.00', 'S20'],
      ['new', '70.00', 'Z0'],
    ]));
  it('rows as a whole get one code or the other; text keeps none', () =>
    expect(
      done([row('a', '92.50'), row('b', '45.00'), row('t', null, { kind: 'text', taxCodeId: null })], {
        taxCodeId: 'S20',
        freeCodeId: 'Z0',
        lines: ['a'],
        parted: null,
      }),
    ).toEqual([
      ['a', '92.50', 'S20'],
      ['b', '45.00', 'Z0'],
      ['t', null, null],
    ]));
  it('nothing is done where the row has changed meanwhile and no longer has more than the part, or is gone', () => {
    const parting = { taxCodeId: 'S20', freeCodeId: 'Z0', lines: [], parted: { line: 'a', amount: '30.00' } };
    for (const amount of ['30.00', '12.00', '-40.00', null])
      expect(done([row('a', amount), row('b', '5.00')], parting), String(amount)).toEqual([
        ['a', amount, 'S20'],
        ['b', '5.00', 'S20'],
      ]);
    expect(done([row('b', '5.00')], parting)).toEqual([['b', '5.00', 'S20']]);
  });
  it('a row in the negative is parted like any other', () =>
    expect(done([row('a', '-100.00')], { taxCodeId: 'S20', freeCodeId: 'Z0', lines: [], parted: { line: 'a', amount: '-30.00' } })).toEqual(
      [
        ['a', '-30.00', 'S20'],
        ['new', '-70.00', 'Z0'],
      ],
    ));
  it('no cent is gained or lost', () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 2, max: 99_999 }), { minLength: 1, maxLength: 5 }), fc.nat(99_998), (cents, at) => {
        const lines = cents.map((c, i) => row(`l${i}`, (c / 100).toFixed(2))),
          first = cents[0]!,
          amount = ((1 + (at % (first - 1))) / 100).toFixed(2);
        const after = done(lines, { taxCodeId: 'S20', freeCodeId: 'Z0', lines: [], parted: { line: 'l0', amount } });
        expect(sum(after.map(([, a]) => dec(a!))).eq(sum(lines.map((l) => dec(l.amount!))))).toBe(true);
        expect(after[0]).toEqual(['l0', amount, 'S20']);
      }),
    ));
});
