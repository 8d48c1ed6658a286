import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec, sum } from '../money/index.ts';
import { bases, shareTrouble, sharesOf, type Basis, type Goods } from './index.ts';

const goods = (over: Partial<Goods> = {}): Goods => ({ quantity: '10', value: '100', weight: '2', volume: '0.01', amount: null, ...over });
const shared = (amount: string, basis: Basis, all: Goods[]) => sharesOf(amount, basis, all, 'GBP')?.map((d) => d.toFixed(2)) ?? null;

describe('a charge shared over goods', () => {
  const two = [goods({ quantity: '30', value: '300', weight: '1', volume: '0.02' }), goods({ quantity: '10', value: '600', weight: '5' })];
  it('goes by what is asked for', () => {
    expect(shared('90.00', 'equally', two)).toEqual(['45.00', '45.00']);
    expect(shared('90.00', 'quantity', two)).toEqual(['67.50', '22.50']);
    expect(shared('90.00', 'value', two)).toEqual(['30.00', '60.00']);
    // 30 kg against 50 kg; 0.6 m³ against 0.1 m³.
    expect(shared('90.00', 'weight', two)).toEqual(['33.75', '56.25']);
    expect(shared('90.00', 'volume', two)).toEqual(['77.14', '12.86']);
    expect(shared('90.00', 'by-hand', [goods({ amount: '80.01' }), goods({ amount: '9.99' })])).toEqual(['80.01', '9.99']);
  });
  it('gives the cents left over to somebody', () => {
    expect(shared('100.00', 'equally', [goods(), goods(), goods()])).toEqual(['33.34', '33.33', '33.33']);
    expect(sharesOf('100', 'equally', [goods(), goods(), goods()], 'JPY')?.map(String)).toEqual(['34', '33', '33']);
  });
  it('says why it cannot be', () => {
    const why = (amount: string | null, basis: Basis, all: Goods[]) => shareTrouble(amount, basis, all, 'GBP');
    expect(why(null, 'value', two)).toBe('The row has no amount to share.');
    expect(why('1.00', 'value', [])).toBe('Choose what it is shared over.');
    expect(why('1.00', 'weight', [goods({ weight: null }), goods()])).toBe(
      'One of them has no weight. Give it at the order, or share by something else.',
    );
    expect(why('1.00', 'value', [goods({ value: null }), goods({ value: null })])).toContain('2 of them have no exchange rate');
    expect(why('1.00', 'value', [goods({ value: '0' })])).toBe('They come to nothing. Share by something else.');
    expect(why('10.00', 'by-hand', [goods({ amount: '8.00' })])).toBe('2.00 is still to be shared.');
    expect(why('10.00', 'by-hand', [goods({ amount: '12.00' })])).toBe('2.00 too much is shared.');
    expect(why('-10.00', 'by-hand', [goods({ amount: '-8.00' })])).toBe('2.00 is still to be shared.');
    expect(shared('10.00', 'by-hand', [goods({ amount: '8.00' })])).toBeNull();
  });
  it('adds up to what was to be shared, whatever the goods, and nobody bears the other way round', () => {
    const cents = fc.integer({ min: -9_999_999, max: 9_999_999 }).map((n) => dec(n).div(100).toFixed(2));
    const figure = fc.integer({ min: 0, max: 1_000_000 }).map((n) => dec(n).div(1000).toFixed());
    const any = fc.record({ quantity: figure, value: figure, weight: figure, volume: figure, amount: fc.constant(null) });
    fc.assert(
      fc.property(
        cents,
        fc.constantFrom(...bases.filter((b) => b !== 'by-hand')),
        fc.array(any, { minLength: 1, maxLength: 40 }),
        (amount, basis, all) => {
          const parts = sharesOf(amount, basis, all, 'GBP');
          expect(parts === null).toBe(shareTrouble(amount, basis, all, 'GBP') !== null);
          if (!parts) return;
          expect(sum(parts).toFixed(2)).toBe(dec(amount).toFixed(2));
          expect(parts.every((p) => p.isZero() || p.isNegative() === dec(amount).isNegative())).toBe(true);
          expect(parts.every((p) => p.toDecimalPlaces(2).eq(p))).toBe(true);
        },
      ),
      { numRuns: 500 },
    );
  });
});
