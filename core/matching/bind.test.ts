import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec, sum } from '../money/index.ts';
import { bindRows, factorOf, type LineToBind, type RowToBind } from './bind.ts';
import { unitFactor } from './units.ts';

const row = (id: string, more: Partial<RowToBind> = {}): RowToBind => ({ id, code: null, description: 'Terracotta pot, 2 l', quantity: '10', unitPrice: '0.22', unit: 'pc', amount: null, ...more }); // prettier-ignore
const line = (id: string, more: Partial<LineToBind> = {}): LineToBind => ({ id, code: null, description: 'Terracotta pot, 2 l', quantity: '10', unitPrice: '0.22', unit: 'pc', open: '10', ...more }); // prettier-ignore
const said = (rows: RowToBind[], lines: LineToBind[]) =>
  bindRows(rows, lines)
    .map((b) => [b.row, b.line, b.quantity])
    .sort();

describe('units', () => {
  it.each([
    ['box of 100', 'pcs', '100'],
    ['dozen', 'each', '12'],
    ['kg', 't', '0.001'],
    ['pack/50', 'piece', '50'],
    ['bag of 25 kg', 'kg', '25'],
    ['h', 'min', '60'],
    ['Rolls', 'rolls', '1'],
    ['kg', 'l', null],
    ['pallet', 'pc', null],
    [null, 'pc', null],
  ])('one %s is so many %s: %s', (from, to, times) => {
    expect(unitFactor(from, to)?.toFixed() ?? null).toBe(times);
  });
  it('that nobody knows are told by the price, where it makes what is open', () => {
    const carton = row('a', { unit: 'carton', quantity: '2', unitPrice: '22.00' });
    expect(factorOf(carton, line('1', { quantity: '200', open: '200' })).toFixed()).toBe('100');
    // Two hundred are more than the ten that are open: then it is a dear carton.
    expect(factorOf(carton, line('1')).toFixed()).toBe('1');
  });
  it('there and back is once', () => {
    const names = fc.constantFrom('pc', 'dozen', 'gross', 'box of 6', 'kg', 'g', 't', 'l', 'ml', 'm', 'mm', 'h', 'min');
    fc.assert(
      fc.property(names, names, (a, b) => {
        const [there, back] = [unitFactor(a, b), unitFactor(b, a)];
        expect(there === null).toBe(back === null);
        if (there && back) expect(there.times(back).minus(1).abs().lt('1e-15')).toBe(true);
      }),
    );
  });
});

describe('rows of a bill and lines of orders', () => {
  it('one to one, in the unit of the order', () => {
    expect(said([row('a', { unit: 'dozen', quantity: '2', unitPrice: '2.64' })], [line('1', { open: '24' })])).toEqual([['a', '1', '24']]);
  });
  it('one row bills two lines of the same thing, each as far as it is open', () => {
    const lines = [line('1', { open: '6' }), line('2', { open: '10' }), line('3', { description: 'Saucer' })];
    expect(said([row('a', { quantity: '12' })], lines)).toEqual([['a', '1', '6'], ['a', '2', '6']]); // prettier-ignore
  });
  it('what no line has room for stays with the first', () => {
    const lines = [line('1', { open: '6' }), line('2', { open: '2' })];
    expect(said([row('a', { quantity: '12' })], lines)).toEqual([['a', '1', '10'], ['a', '2', '2']]); // prettier-ignore
    expect(said([row('a', { quantity: '12' })], [line('1', { open: '6' })])).toEqual([['a', '1', '12']]);
  });
  it('two rows bill one line', () => {
    expect(said([row('a', { quantity: '4' }), row('b', { quantity: '6' })], [line('1')])).toEqual([['a', '1', '4'], ['b', '1', '6']]); // prettier-ignore
  });
  it('another thing joins nothing', () => {
    const other = row('b', { description: 'Carriage', unitPrice: '12', quantity: '1' });
    expect(said([row('a'), other], [line('1')])).toEqual([['a', '1', '10']]);
  });
  it('a row without a quantity bills what its amount makes', () => {
    expect(said([row('a', { quantity: null, unitPrice: null, amount: '1.10' })], [line('1')])).toEqual([['a', '1', '5']]);
  });
  it('never bills more than a row says, nor less', () => {
    const n = fc.integer({ min: 1, max: 40 }).map(String),
      thing = fc.constantFrom('Pot', 'Saucer', 'Compost 80 l', 'Compost 40 l');
    const rows = fc.array(fc.record({ description: thing, quantity: n }), { minLength: 1, maxLength: 8 }),
      lines = fc.array(fc.record({ description: thing, open: fc.integer({ min: -5, max: 30 }).map(String) }), { maxLength: 8 });
    fc.assert(
      fc.property(rows, lines, (rs, ls) => {
        const of = rs.map((r, i) => row(`r${i}`, r));
        const bound = bindRows(of, ls.map((l, i) => line(`l${i}`, l))); // prettier-ignore
        for (const r of of) {
          const own = bound.filter((b) => b.row === r.id);
          if (own.length > 0) expect(sum(own.map((b) => dec(b.quantity))).toFixed()).toBe(r.quantity);
          expect(new Set(own.map((b) => b.line)).size).toBe(own.length);
        }
      }),
    );
  });
});
