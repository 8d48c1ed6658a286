import fc from 'fast-check';
import { expect, it } from 'vitest';
import { suggest, type Coding, type PastLine, type RateCode } from './index.ts';

const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null });
const description = fc
  .array(fc.constantFrom('compost', 'peat-free', 'garden', 'fork', '50', 'l', 'Pépinière', 'delivery'), { maxLength: 4 })
  .map((words) => words.join(' '));
const coding: fc.Arbitrary<Coding> = fc.record({
  accountId: maybe(fc.constantFrom('media', 'tools')),
  costCentreId: maybe(fc.constantFrom('c1', 'c2')),
  taxCodeId: maybe(fc.constantFrom('s20', 'r5', 'rc')),
});
const code = maybe(fc.constantFrom('X-1', 'X-2'));
const past: fc.Arbitrary<PastLine[]> = fc.array(
  fc.record({ description, code, coding }).map((p) => ({ description: p.description, code: p.code, ...p.coding })),
  { maxLength: 6 },
);
const codes: RateCode[] = [
  { id: 's20', rate: '20', reverseCharge: false },
  { id: 'r5', rate: '5', reverseCharge: false },
  { id: 'rc', rate: '20', reverseCharge: true },
];
const line = fc.record({ description, code, taxRate: maybe(fc.constantFrom('20', '5.00', '7', '0')) });

it('account and cost centre come together from one line of the past, or from what is usual: never a mixture', () =>
  fc.assert(
    fc.property(line, past, maybe(coding), (of, before, usual) => {
      const found = suggest(of, before, usual, codes);
      if (!found?.accountId) return;
      const sources = usual ? [...before, usual] : before;
      expect(sources.some((s) => s.accountId === found.accountId && s.costCentreId === found.costCentreId)).toBe(true);
    }),
  ));
it('a rate that the page states and we have a code for is the rate of the code', () =>
  fc.assert(
    fc.property(line, past, maybe(coding), (of, before, usual) => {
      const found = suggest(of, before, usual, codes);
      const stated = of.taxRate !== null && codes.some((c) => Number(c.rate) === Number(of.taxRate));
      if (stated) expect(Number(codes.find((c) => c.id === found!.taxCodeId)!.rate)).toBe(Number(of.taxRate));
    }),
  ));
it('a line just as before is coded just as before, where the past agrees', () =>
  fc.assert(
    fc.property(fc.constantFrom('peat-free compost', 'garden fork'), coding, fc.integer({ min: 1, max: 5 }), (text, as, times) => {
      const before = Array.from({ length: times }, () => ({ description: text, code: null, ...as }));
      const found = suggest({ description: text, code: null, taxRate: null }, before, null, codes);
      expect(found).toMatchObject({ ...as, reason: `${times} of ${times} lines like this from this supplier` });
    }),
  ));
it('always says why', () =>
  fc.assert(
    fc.property(line, past, maybe(coding), (of, before, usual) => void expect(suggest(of, before, usual, codes)?.reason).not.toBe('')),
  ));
