import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codingFields } from '../bills/index.ts';
import { Memory, ruled, rules, suggest, withFollowing, withRules, type CodingRule, type LineToCode, type RateCode } from './index.ts';

const codes: RateCode[] = [
  { id: 's20', rate: '20', reverseCharge: false },
  { id: 'z0', rate: '0', reverseCharge: false },
];
const line = (description: string, more: Partial<LineToCode> = {}): LineToCode => ({
  supplierId: 'power',
  code: null,
  description,
  amount: '40.00',
  day: '2026-11-20',
  taxRate: null,
  ...more,
});
const rule = (id: string, supplierId: string | null, words: string | null, coding: CodingRule['coding']): CodingRule => ({
  id,
  supplierId,
  words,
  coding,
});
const suggested = (of: LineToCode, ...all: CodingRule[]) => {
  const memory = new Memory();
  memory.learn({ ...line('Standing charge'), day: '2026-11-01' }, { accountId: 'office' });
  return withRules([of], suggest([of], memory, null, codes), all, codes)[0]!;
};

describe('a rule is about a line', () => {
  const about = (words: string | null, description: string, more: Partial<LineToCode> = {}) =>
    rules({ supplierId: null, words }, line(description, more));
  it('where its text begins a word, whatever its case, accents and signs', () => {
    expect(about('electric', 'Electricity, May')).toBe(true);
    expect(about('lectric', 'Electricity, May')).toBe(false);
    expect(about('Standing-Charge', 'STANDING CHARGE 31 days')).toBe(true);
    expect(about('charge standing', 'Standing charge')).toBe(false);
    expect(about('pépinière', 'Pepiniere 12 l')).toBe(true);
  });
  it('where any of several texts is there, or the item code begins so', () => {
    expect(about('gas, water', 'Cold water')).toBe(true);
    expect(about('gas, water', 'Oil')).toBe(false);
    expect(about('AB-1', 'Something', { code: 'AB-12' })).toBe(true);
  });
  it('of its supplier alone; and of none, where it says nothing at all', () => {
    expect(rules({ supplierId: 'power', words: null }, line('x'))).toBe(true);
    expect(rules({ supplierId: 'power', words: null }, line('x', { supplierId: null }))).toBe(false);
    expect(about(null, 'x')).toBe(false);
    expect(about(' , ', 'x')).toBe(false);
  });
});

describe('what a rule says', () => {
  it('comes before what was posted, and says that it is a rule', () => {
    const found = suggested(line('Standing charge'), rule('1', 'power', 'standing', { accountId: 'energy' }));
    expect(found.accountId[0]).toEqual({ id: 'energy', share: ruled, why: 'By a rule for “standing” from this supplier', laidDown: true });
    expect(found.accountId[1]!.id).toBe('office');
  });
  it('is what the rule says that knows most of the line; of two alike the later', () => {
    const all = [
      rule('1', 'power', null, { accountId: 'a', costCentreId: 'c' }),
      rule('2', null, 'standing', { accountId: 'b' }),
      rule('3', 'power', 'standing', { accountId: 'd' }),
      rule('4', 'power', 'standing charge', { accountId: 'e' }),
    ];
    const best = (...of: CodingRule[]) => suggested(line('Standing charge'), ...of).accountId[0]!.id;
    expect([best(...all.slice(0, 1)), best(...all.slice(0, 2)), best(...all.slice(0, 3)), best(...all)]).toEqual(['a', 'b', 'd', 'e']);
    // What the best leaves open the next one says.
    expect(suggested(line('Standing charge'), ...all).costCentreId[0]!.id).toBe('c');
  });
  it('stays before what goes with the cost centre: somebody laid it down', () => {
    const own = rule('1', 'power', null, { costCentreId: 'c7', dimension1: 'pond' });
    const going = new Map([['c7', [{ field: 'dimension1' as const, id: 'roof' }, { field: 'dimension2' as const, id: 'appeal' }]]]); // prettier-ignore
    const [found] = withFollowing([line('x')], [suggested(line('x'), own)], going, codes);
    expect([found!.dimension1[0]!.id, found!.dimension2[0]!.id]).toEqual(['pond', 'appeal']);
  });
  it('is no tax code of another rate than the page states, nor one that is not in use', () => {
    const zero = rule('1', 'power', null, { taxCodeId: 'z0' });
    expect(suggested(line('x', { taxRate: '20' }), zero).taxCodeId[0]!.id).toBe('s20');
    expect(suggested(line('x', { taxRate: '0.00' }), zero).taxCodeId[0]!.id).toBe('z0');
    expect(suggested(line('x'), rule('1', 'power', null, { taxCodeId: 'gone' })).taxCodeId).toEqual([]);
  });
  it('leaves shares that fall and never make more than one, and what it does not say as it was', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            id: fc.string(),
            supplierId: fc.option(fc.constantFrom('power', 'other'), { nil: null }),
            words: fc.option(fc.constantFrom('standing', 'charge, x', 'gas'), { nil: null }),
            coding: fc.record({ accountId: fc.option(fc.constantFrom('office', 'energy'), { nil: null }) }),
          }),
        ),
        (all) => {
          const plain = suggested(line('Standing charge')),
            found = suggested(line('Standing charge'), ...all);
          for (const field of codingFields.slice(1)) expect(found[field]).toEqual(plain[field]);
          const shares = found.accountId.map((o) => o.share);
          expect(shares).toEqual([...shares].sort((a, b) => b - a));
          expect(shares.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(1 + 1e-9);
          expect(new Set(found.accountId.map((o) => o.id)).size).toBe(shares.length);
        },
      ),
    ));
});
