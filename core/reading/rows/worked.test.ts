import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sketch, type Piece } from '../../page/sketch.ts';
import { layOut } from '../layout.ts';
import type { Weighed } from './described.ts';
import { itemFeatures } from './itemfeatures.ts';
import { printedRows } from './printed.ts';
import { workedFrom } from './worked.ts';

/** Lines of figures, each column with its right edges at one place; "" for none. */
function lines(rows: readonly (readonly string[])[]): Weighed[][] {
  const pieces = rows.flatMap((row, i) =>
    ['Clearing', ...row].flatMap((text, c): Piece[] => {
      if (text === '') return [];
      const { words } = sketch([[0, 20, text]]);
      return [[c === 0 ? 40 : 120 + c * 80 - words.at(-1)!.w, 100 + 20 * i, text]];
    }),
  );
  const layout = layOut([sketch(pieces)]),
    printed = printedRows(layout);
  const seen = itemFeatures(
    layout,
    printed,
    printed.map((_, row) => ({ row, parts: [] })),
  ) as Weighed[];
  return printed.map((_, line) => seen.filter((s) => s.line === line));
}
const worked = (rows: readonly (readonly string[])[]) => [...workedFrom(lines(rows))].map((w) => w.item.text).sort();

describe('figures that others are worked out from', () => {
  it('readings of a meter, not the quantity that is their difference and makes the amount', () =>
    expect(
      worked([
        ['10400', '10437', '37', '2.00', '74.00'],
        ['11131', '11140', '9', '4.00', '36.00'],
        ['11862', '11967', '105', '3.00', '315.00'],
      ]),
    ).toEqual(['10400', '10437', '11131', '11140', '11862', '11967']));
  it('work to date and billed before', () =>
    expect(
      worked([
        ['900.00', '600.00', '300.00'],
        ['250.00', '120.00', '130.00'],
      ]),
    ).toEqual(['120.00', '250.00', '600.00', '900.00']));
  it('days that add up to the quantity', () =>
    expect(
      worked([
        ['1', '2', '3', '6', '5.00', '30.00'],
        ['4', '4', '5', '13', '7.00', '91.00'],
      ]),
    ).toEqual(['1', '2', '3', '4', '4', '5']));
  it('one line by itself says nothing, nor do figures that make each other once', () => {
    expect(worked([['900.00', '600.00', '300.00']])).toEqual([]);
    expect(
      worked([
        ['900.00', '600.00', '300.00'],
        ['250.00', '120.00', '99.00'],
        ['70.00', '11.00', '50.00'],
      ]),
    ).toEqual([]);
  });
  it('never a factor of a product', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 2, max: 90 }), fc.integer({ min: 110, max: 9900 })), { minLength: 2, maxLength: 6 }),
        (of) => {
          const rows = of.map(([q, cents]) => [String(q), (cents / 100).toFixed(2), ((q * cents) / 100).toFixed(2)]);
          expect(worked(rows)).toEqual([]);
        },
      ),
      { numRuns: 60 },
    ));
});
