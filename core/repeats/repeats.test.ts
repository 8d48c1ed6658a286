import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyCells } from '../bills/index.ts';
import { fitsTurn, nextTurn, turnOf, type Every, type Rhythm } from './index.ts';

const rhythm = (every: Every, begins: string, more: Partial<Rhythm> = {}): Rhythm => ({ every, weeks: null, begins, until: null, ...more });
const turns = (r: Rhythm, n: number): (string | null)[] => {
  const all: (string | null)[] = [];
  for (let at = nextTurn(r, null); all.length < n; at = at && nextTurn(r, at)) all.push(at);
  return all;
};

describe('the turns of a bill', () => {
  it('keep their day; a month that does not have it gives its last', () => {
    expect(turns(rhythm('month', '2026-01-31'), 4)).toEqual(['2026-01-31', '2026-02-28', '2026-03-31', '2026-04-30']);
    expect(turns(rhythm('quarter', '2026-11-30'), 3)).toEqual(['2026-11-30', '2027-02-28', '2027-05-30']);
    expect(turns(rhythm('year', '2024-02-29'), 3)).toEqual(['2024-02-29', '2025-02-28', '2026-02-28']);
    expect(turns(rhythm('weeks', '2026-11-02', { weeks: 2 }), 3)).toEqual(['2026-11-02', '2026-11-16', '2026-11-30']);
  });
  it('end with their last day', () =>
    expect(turns(rhythm('month', '2026-01-15', { until: '2026-02-20' }), 3)).toEqual(['2026-01-15', '2026-02-15', null]));
  it('after any day are the first one after it', () =>
    fc.assert(
      fc.property(
        fc.constantFrom<Every>('month', 'quarter', 'year', 'weeks'),
        fc.integer({ min: 1, max: 9 }),
        fc.date({ min: new Date('2020-01-01'), max: new Date('2030-12-31'), noInvalidDate: true }),
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: 0, max: 30 }),
        (every, weeks, begins, n, off) => {
          const r = rhythm(every, begins.toISOString().slice(0, 10), { weeks });
          const all = turns(r, n + 2) as string[];
          const between = new Date(Date.parse(all[n]!) + off * 86_400_000).toISOString().slice(0, 10);
          const next = nextTurn(r, between)!;
          expect(next > between).toBe(true);
          expect(next).toBe(between < all[n + 1]! ? all[n + 1] : next);
        },
      ),
    ));
});
it('what is to be filled in has no amounts; the coding stays', () => {
  const line = { kind: 'line' as const, ...emptyCells(), amount: '10', quantity: '2', accountId: 'k' };
  const head = { kind: 'invoice' as const, terms: null, currency: 'GBP', purchaseOrder: null, net: '10', tax: '2', gross: '12', pricesIncludeTax: false }; // prettier-ignore
  expect(turnOf({ head, lines: [line] }, true)).toEqual({ head, lines: [line] });
  expect(turnOf({ head, lines: [line] }, false)).toMatchObject({ head: { gross: null }, lines: [{ amount: null, quantity: null, accountId: 'k' }] }); // prettier-ignore
});
it('a document fits a turn by its date, and by its total where that is fixed', () => {
  const turn = { day: '2026-11-01', within: 10, fixed: true, gross: '120.00' };
  expect(fitsTurn(turn, { issueDate: '2026-11-11', gross: '120' })).toBe(true);
  expect(fitsTurn(turn, { issueDate: '2026-11-12', gross: '120' })).toBe(false);
  expect(fitsTurn(turn, { issueDate: '2026-11-01', gross: '121' })).toBe(false);
  expect(fitsTurn({ ...turn, fixed: false }, { issueDate: '2026-10-25', gross: '99' })).toBe(true);
  expect(fitsTurn(turn, { issueDate: null, gross: '120' })).toBe(false);
});
