import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { allocate, calculate, dec, fixed, formatAmount, grouped, roundTo, sum } from './index.ts';

const cents = fc.integer({ min: -10_000_000, max: 10_000_000 }).map((n) => dec(n).div(100));

describe('allocation', () => {
  it('gives parts that add up to the amount exactly, whatever the weights', () => {
    fc.assert(
      fc.property(cents, fc.array(fc.nat(10_000), { minLength: 1, maxLength: 12 }), (amount, weights) => {
        const parts = allocate(amount, weights.map(dec), 'GBP');
        expect(sum(parts).toFixed()).toBe(amount.toFixed());
        expect(parts.every((p) => p.eq(roundTo(p, 'GBP')))).toBe(true);
      }),
    );
  });
  it('is never further than a penny from the exact share', () => {
    fc.assert(
      fc.property(cents, fc.array(fc.integer({ min: 1, max: 999 }), { minLength: 1, maxLength: 9 }), (amount, weights) => {
        const whole = sum(weights.map(dec));
        allocate(amount, weights.map(dec), 'GBP').forEach((part, i) =>
          expect(part.minus(amount.times(weights[i]!).div(whole)).abs().lte('0.01')).toBe(true),
        );
      }),
    );
  });
  it('shares equally when all weights are zero', () =>
    expect(allocate(dec('1'), [dec(0), dec(0), dec(0)], 'GBP').map(String)).toEqual(['0.34', '0.33', '0.33']));
  it('refuses a negative share', () => expect(() => allocate(dec(1), [dec(-1)], 'GBP')).toThrow('negative'));
});

describe('amounts', () => {
  it('round half up to the currency’s minor unit', () =>
    expect([roundTo(dec('2.345'), 'GBP'), roundTo(dec('2.5'), 'JPY'), roundTo(dec('1.0005'), 'KWD')].map(String)).toEqual([
      '2.35',
      '3',
      '1.001',
    ]));
  it('are written with thousands and a true minus', () =>
    expect([formatAmount('1234567.5', 'GBP'), formatAmount('-12', 'JPY'), formatAmount('-0', 'GBP')]).toEqual([
      '1,234,567.50',
      '−12',
      '0.00',
    ]));
  it('keep their decimals as text', () => expect(fixed('5', 'GBP')).toBe('5.00'));
});

describe('what is typed into an amount field', () => {
  it.each([
    ['12*21.4', '256.8'],
    ['1,234.50', '1234.5'],
    ['(100+20)/3', '40'],
    ['-5+2', '-3'],
    ['2 × 3', '6'],
    ['.5', '0.5'],
    ['12,5', '12.5'],
    ['1.234,50', '1234.5'],
    ['1,234', '1234'],
    ['1.234', '1.234'],
    ['1.234.567', '1234567'],
    ['12,34,567.89', '1234567.89'],
    ['2*12,50+1.000,25', '1025.25'],
    ['1 234,50', '1234.5'],
  ])('%s makes %s', (typed, result) => expect(calculate(typed)!.toFixed()).toBe(result));
  it.each(['', 'abc', '1/0', '2**3', '((1)', '1..2', '1,2,3', '1.2,3.4', '1,,234', 'alert(1)'])('%s is refused', (typed) =>
    expect(calculate(typed)).toBeNull(),
  );
  it('is the same figure in both styles of writing', () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 99_999_999_999 }), (cents) => {
        const figure = dec(cents).div(100).toFixed(2),
          british = grouped(figure),
          french = british.replace(/[.,]/g, (c) => (c === '.' ? ',' : '.'));
        expect([calculate(british)?.toFixed(2), calculate(french)?.toFixed(2)]).toEqual([figure, figure]);
      }),
    ));
  it('never throws', () =>
    fc.assert(
      fc.property(fc.string({ maxLength: 30, unit: fc.constantFrom(...'0123456789.+-*/() ,x') }), (typed) => {
        calculate(typed);
      }),
    ));
});

describe('a figure in a sentence', () => {
  it.each([
    ['5037.62', '5,037.62'],
    ['1234567', '1,234,567'],
    ['-1234.5', '−1,234.5'],
    ['12', '12'],
    ['0.125', '0.125'],
    ['INV-2026', 'INV-2026'],
    ['', ''],
  ])('%s is written %s', (text, written) => expect(grouped(text)).toBe(written));
  it('keeps its digits', () =>
    fc.assert(
      fc.property(cents, (amount) => {
        expect(dec(grouped(amount.toFixed(2)).replace(/,/g, '').replace('−', '-')).eq(amount)).toBe(true);
      }),
    ));
});
