import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../dates/index.ts';
import { chargedTwice, spanIn } from './index.ts';

describe('the days that a text says something is for', () => {
  it.each([
    ['Ground rent 01.11.2026 - 30.11.2026', '2026-11-01', '2026-11-30'],
    ['Lift service from 1 Nov 2026 to 31 Jan 2027', '2026-11-01', '2027-01-31'],
    ['Miete 01.10.2026 bis 31.12.2026', '2026-10-01', '2026-12-31'],
    ['Abonnement du 1 octobre 2026 au 31 octobre 2026', '2026-10-01', '2026-10-31'],
    ['Hosting 2026-11-01–2026-11-30, plan S', '2026-11-01', '2026-11-30'],
    ['Broadband, November 2026', '2026-11-01', '2026-11-30'],
    ['Onderhoud februari 2028', '2028-02-01', '2028-02-29'],
    ['Waste collection Q3 2026', '2026-07-01', '2026-09-30'],
  ])('%s', (text, from, to) => expect(spanIn(text)).toEqual({ from, to }));
  it.each([
    'Terracotta pot, 2 l',
    'Delivered on 12 November 2026',
    'Order 4711 of 2026',
    'Between 30.11.2026 - 01.11.2026',
    'Call-out 2 Nov 2026, report 9 Nov 2026',
    'Model 2026',
  ])('none in %s', (text) => expect(spanIn(text)).toBeNull());
});

describe('days that were charged before', () => {
  const before = [
    { id: 'a', description: 'Lift service 15 Oct 2026 to 14 Nov 2026' },
    { id: 'b', description: 'Door service 1 Nov 2026 to 30 Nov 2026' },
  ];
  const found = (description: string) => chargedTwice([{ description }], before).map((f) => [f.of.id, f.other.to]);
  it('are those of the same thing that overlap', () => {
    expect(found('Lift service 1 Nov 2026 to 30 Nov 2026')).toEqual([['a', '2026-11-14']]);
    expect(found('LIFT SERVICE, November 2026')).toEqual([['a', '2026-11-14']]);
    expect(found('Lift service 15 Nov 2026 to 14 Dec 2026')).toEqual([]);
    expect(found('Gate service 1 Nov 2026 to 30 Nov 2026')).toEqual([]);
    expect(found('Lift service')).toEqual([]);
  });
  it('are found exactly where the two have a day in common', () => {
    const day = fc.integer({ min: 0, max: 120 });
    fc.assert(
      fc.property(day, day, day, day, (a, n, b, m) => {
        const at = (k: number) => addDays('2026-06-01', k),
          text = (from: number, days: number) => `Rent ${at(from)} to ${at(from + days)}`;
        const twice = chargedTwice([{ description: text(a, n) }], [{ description: text(b, m) }]).length > 0;
        expect(twice).toBe(a <= b + m && b <= a + n);
      }),
    );
  });
});
