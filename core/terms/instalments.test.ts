import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec, sum } from '../money/index.ts';
import { dueDate, dueOf, inParts, instalments, parseTerms } from './index.ts';

const shown = (text: string) => inParts(text)?.map((p) => [p.percent, p.terms.days]) ?? null;
const uk = { country: 'GB', dueOn: 'next' } as const;

describe('instalments', () => {
  it('are read in the trade’s words', () => {
    expect(shown('30% on receipt, 70% 30 days')).toEqual([['30', 0], ['70', 30]]); // prettier-ignore
    expect(shown('50 % in 30 days and 50 % in 60 days')).toEqual([['50', 30], ['50', 60]]); // prettier-ignore
    expect(shown('33,3% 30 days; 33,3% 60 days; 33,4% 90 days')).toEqual([['33.3', 30], ['33.3', 60], ['33.4', 90]]); // prettier-ignore
    expect(shown('30/60/90 days')).toEqual([['33.34', 30], ['33.33', 60], ['33.33', 90]]); // prettier-ignore
  });
  it.each([
    '30 days',
    '2/10 n30',
    '2% 10 days, net 30',
    '50% 30 days, 40% 60 days',
    '50% 30 days, 50% whenever',
    '60/30 days',
    '100% 30 days',
  ])('%s is none', (text) => expect(inParts(text)).toBeNull());
  it('fall due as their parts do, each day once, on working days where that is wanted', () => {
    const of = (terms: string, amount: string) =>
      instalments('2026-11-25', terms, dec(amount), 'GBP', uk)!.map((i) => [i.dueDate, i.amount.toFixed(2)]);
    // 25 December is a holiday in England, and so is Monday 28 as the substitute for Boxing Day.
    expect(of('50% 30 days, 50% 60 days', '100.01')).toEqual([['2026-12-29', '50.01'], ['2027-01-25', '50.00']]); // prettier-ignore
    expect(of('50% 30 days, 50% 31 days', '80')).toEqual([['2026-12-29', '80.00']]);
    expect(instalments('2026-11-25', '30 days', dec(80), 'GBP')).toBeNull();
    expect(dueOf('2026-11-25', '30% on receipt, 70% 30 days')).toBe('2026-11-25');
    expect(dueOf('2026-11-25', 'as agreed')).toBeNull();
  });
  it('add up to the amount, whatever it is and however many', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -1_000_000, max: 1_000_000 }),
        fc.uniqueArray(fc.integer({ min: 1, max: 180 }), { minLength: 2, maxLength: 8 }),
        fc.constantFrom('GBP', 'JPY', 'TND'),
        (units, days, currency) => {
          const amount = dec(units).div(currency === 'JPY' ? 1 : currency === 'TND' ? 1000 : 100);
          const text = `${days.sort((a, b) => a - b).join('/')} days`;
          const parts = instalments('2026-03-02', text, amount, currency)!;
          expect(sum(parts.map((p) => p.amount)).eq(amount)).toBe(true);
          expect(parts.map((p) => p.dueDate)).toEqual([...new Set(parts.map((p) => p.dueDate))].sort());
        },
      ),
    ));
});

describe('working days of terms', () => {
  const due = (text: string, calendar?: typeof uk) => dueDate('2026-12-18', parseTerms(text)!, calendar);
  it('are counted where the terms say so', () => {
    expect(due('5 days')).toBe('2026-12-23');
    expect(due('within 5 working days')).toBe('2026-12-25');
    expect(due('5 business days', uk)).toBe('2026-12-29');
    expect(due('binnen 5 werkdagen')).toBe('2026-12-25');
  });
  it('are where a due day goes that is none', () => {
    expect(due('7 days', uk)).toBe('2026-12-29');
    expect(dueDate('2026-12-18', parseTerms('7 days')!, { country: 'GB', dueOn: 'before' })).toBe('2026-12-24');
    expect(dueDate('2026-12-18', parseTerms('7 days')!, { country: 'GB', dueOn: 'stays' })).toBe('2026-12-25');
  });
});
