import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assign, matchOrderLines, orderNumber, orderNumbersIn, type Pair, type Wanted } from './index.ts';

const total = (pairs: readonly Pair[]) => pairs.reduce((n, p) => n + p.score, 0);
/** The best there is, by trying all. */
function best(pairs: readonly Pair[], from = 0, rows = new Set<number>(), columns = new Set<number>()): number {
  const pair = pairs[from];
  if (!pair) return 0;
  const without = best(pairs, from + 1, rows, columns);
  if (rows.has(pair.row) || columns.has(pair.column)) return without;
  return Math.max(without, pair.score + best(pairs, from + 1, new Set(rows).add(pair.row), new Set(columns).add(pair.column)));
}
const anyPairs = fc.uniqueArray(
  fc.record({ row: fc.nat(4), column: fc.nat(4), score: fc.integer({ min: -2, max: 20 }).map((n) => n / 10) }),
  { maxLength: 12, selector: (p) => `${p.row} ${p.column}` },
);

describe('an assignment', () => {
  it('is as good as the best of all, and takes nothing twice', () =>
    fc.assert(
      fc.property(anyPairs, (pairs) => {
        const chosen = assign(pairs);
        expect(total(chosen)).toBeCloseTo(best(pairs), 9);
        expect(new Set(chosen.map((p) => p.row)).size).toBe(chosen.length);
        expect(new Set(chosen.map((p) => p.column)).size).toBe(chosen.length);
        for (const p of chosen) expect(pairs).toContain(p);
      }),
    ));
  it('does not take what comes first', () => {
    const pairs = [{ row: 0, column: 0, score: 0.9 }, { row: 0, column: 1, score: 0.8 }, { row: 1, column: 0, score: 0.8 }]; // prettier-ignore
    expect(assign(pairs).map((p) => [p.row, p.column]).sort()).toEqual([[0, 1], [1, 0]]); // prettier-ignore
  });
});

const wanted = (id: string, description: string, more: Partial<Wanted> = {}): Wanted => ({ id, code: null, description, quantity: null, unitPrice: null, ...more }); // prettier-ignore
const matched = (rows: Wanted[], lines: Wanted[]) => Object.fromEntries(matchOrderLines(rows, lines).map((m) => [m.row, m.line]));

describe('rows and the lines of an order', () => {
  it('go together by code, text, price and quantity, in whatever order they stand', () => {
    const lines = [
      wanted('pots', 'Terracotta pot, 2 l', { quantity: '100', unitPrice: '0.22' }),
      wanted('pots5', 'Terracotta pot, 5 l', { quantity: '40', unitPrice: '0.55' }),
      wanted('soil', 'Peat-free compost 80 l', { code: 'CMP-80', quantity: '20', unitPrice: '8.40' }),
    ];
    const rows = [
      wanted('a', 'COMPOST PEATFREE', { code: 'cmp80', quantity: '20', unitPrice: '8.60' }),
      wanted('b', 'Terracotta pot 5 l', { quantity: '40', unitPrice: '0.55' }),
      wanted('c', 'Terracotta pot 2 l', { quantity: '60', unitPrice: '0.22' }),
      wanted('d', 'Delivery', { quantity: '1', unitPrice: '12.00' }),
    ];
    expect(matched(rows, lines)).toEqual({ a: 'soil', b: 'pots5', c: 'pots' });
    expect(matchOrderLines(rows, lines).find((m) => m.row === 'b')!.why).toBe('same text, same price, same quantity');
  });
  it('go together by what else suppliers call the line’s item, by code or in words', () => {
    const lines = [
      wanted('pots', 'Terracotta pot, 2 l', { quantity: '100', unitPrice: '0.22', also: ['POT-2L', 'container pot two litres', 'CT/200'] }),
      wanted('saucers', 'Saucer', { quantity: '100', unitPrice: '0.10' }),
    ];
    expect(matched([wanted('a', 'Clay ware', { code: 'ct 200', quantity: '60', unitPrice: '0.22' })], lines)).toEqual({ a: 'pots' });
    expect(matched([wanted('b', 'Container pot, two litres', { quantity: '60', unitPrice: '0.25' })], lines)).toEqual({ b: 'pots' });
    expect(matched([wanted('c', 'Watering can', { code: 'WC-9', quantity: '1', unitPrice: '9.00' })], lines)).toEqual({});
  });
  it('that are alike are told by price and quantity', () => {
    const lines = ['10', '20', '30'].map((q) => wanted(`l${q}`, 'Skip, 8 yards', { quantity: q, unitPrice: '245' }));
    const rows = ['30', '10', '20'].map((q) => wanted(`r${q}`, 'Skip 8 yards', { quantity: q, unitPrice: '245.00' }));
    expect(matched(rows, lines)).toEqual({ r30: 'l30', r10: 'l10', r20: 'l20' });
  });
  it('with a price for a hundred are compared by one', () => {
    const lines = [wanted('l', 'Labels', { quantity: '500', unitPrice: '0.041' })];
    expect(matchOrderLines([wanted('r', 'Labels', { quantity: '500', unitPrice: '4.10', priceQuantity: '100' })], lines)[0]!.why).toContain('same price'); // prettier-ignore
  });
  it('never stand twice, whatever they say', () =>
    fc.assert(
      fc.property(
        fc.array(fc.record({ description: fc.constantFrom('Pot', 'Pot large', 'Soil', ''), quantity: fc.constantFrom('1', '2', null), unitPrice: fc.constantFrom('1', '3', null), code: fc.constantFrom('A', 'B', null) }), { maxLength: 8 }), // prettier-ignore
        fc.array(fc.record({ description: fc.constantFrom('Pot', 'Pots', 'Soil bag', ''), quantity: fc.constantFrom('1', '2', null), unitPrice: fc.constantFrom('1', '3', null), code: fc.constantFrom('A', 'C', null) }), { maxLength: 8 }), // prettier-ignore
        (rows, lines) => {
          const found = matchOrderLines(rows.map((r, i) => ({ id: `r${i}`, ...r })), lines.map((l, i) => ({ id: `l${i}`, ...l }))); // prettier-ignore
          expect(new Set(found.map((m) => m.row)).size).toBe(found.length);
          expect(new Set(found.map((m) => m.line)).size).toBe(found.length);
          expect(found.every((m) => m.score >= 0.4 && m.score <= 1)).toBe(true);
        },
      ),
    ));
});

describe('an order’s number', () => {
  it('is one however it is printed', () =>
    expect(['PO-1001', 'po 1001', 'Order No. 1001', '001001', 'PURCHASE ORDER 1001'].map(orderNumber)).toEqual(Array(5).fill('1001')));
  it('is found among others', () => {
    expect(orderNumbersIn('PO-1001, PO-1002')).toEqual(expect.arrayContaining(['1001', '1002']));
    expect(orderNumbersIn('STANDING 118')).toEqual(['STANDING118', '118']);
    expect(orderNumbersIn(' - ')).toEqual([]);
  });
});
