import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codingFields, codingOf } from '../bills/index.ts';
import { contextsOf, Memory, remembered, suggest, type Coding, type LineSaid, type RateCode } from './index.ts';

const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null });
const day = fc.integer({ min: 0, max: 700 }).map((d) => new Date(Date.UTC(2025, 0, 1) + d * 86_400_000).toISOString().slice(0, 10));
const said: fc.Arbitrary<LineSaid & { day: string }> = fc.record({
  supplierId: maybe(fc.constantFrom('moss', 'quill')),
  code: maybe(fc.constantFrom('X-1', 'X-2')),
  description: fc
    .array(fc.constantFrom('compost', 'peat-free', 'garden', 'fork', '50', 'l', 'Pépinière', 'delivery'), { maxLength: 4 })
    .map((words) => words.join(' ')),
  amount: maybe(fc.constantFrom('4.00', '40.00', '4000.00')),
  day,
});
const coding: fc.Arbitrary<Coding> = fc
  .record({
    accountId: maybe(fc.constantFrom('media', 'tools')),
    costCentreId: maybe(fc.constantFrom('c1', 'c2')),
    taxCodeId: maybe(fc.constantFrom('s20', 'r5', 'rc')),
    dimension2: maybe(fc.constantFrom('f1', 'f2')),
  })
  .map(codingOf);
const past = fc.array(fc.tuple(said, coding), { maxLength: 12 });
const codes: RateCode[] = [
  { id: 's20', rate: '20', reverseCharge: false },
  { id: 'r5', rate: '5', reverseCharge: false },
  { id: 'rc', rate: '20', reverseCharge: true },
];
const learned = (lines: readonly (readonly [LineSaid & { day: string }, Coding])[]): Memory => {
  const memory = new Memory();
  for (const [line, as] of lines) memory.learn(line, as);
  return memory;
};

describe('whatever was posted', () => {
  it('shares fall from the first to the last and are never more than one in all, and each says why', () =>
    fc.assert(
      fc.property(said, past, maybe(coding), maybe(fc.constantFrom('20', '5.00', '7')), (line, before, usual, taxRate) => {
        const [found] = suggest([{ ...line, taxRate }], learned(before), usual, codes, ['dimension2']);
        for (const field of codingFields) {
          const shares = found![field].map((o) => o.share);
          expect(shares).toEqual([...shares].sort((a, b) => b - a));
          expect(shares.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(1 + 1e-9);
          expect(new Set(found![field].map((o) => o.id)).size).toBe(shares.length);
          for (const o of found![field]) expect(o.why).not.toBe('');
        }
      }),
    ));
  it('only what was posted, is usual, or has the stated rate is suggested', () =>
    fc.assert(
      fc.property(said, past, maybe(coding), maybe(fc.constantFrom('20', '5.00', '7')), (line, before, usual, taxRate) => {
        const [found] = suggest([{ ...line, taxRate }], learned(before), usual, codes, ['dimension2']);
        for (const field of codingFields)
          for (const { id } of found![field])
            expect(
              before.some(([, as]) => as[field] === id) ||
                usual?.[field] === id ||
                (field === 'taxCodeId' && Number(codes.find((c) => c.id === id)!.rate) === Number(taxRate)),
            ).toBe(true);
      }),
    ));
  it('lines of one bill get what each would get by itself', () =>
    fc.assert(
      fc.property(fc.array(said, { maxLength: 4 }), past, (lines, before) => {
        const memory = learned(before),
          asked = lines.map((l) => ({ ...l, taxRate: null }));
        expect(suggest(asked, memory, null, codes)).toEqual(asked.map((l) => suggest([l], memory, null, codes)[0]));
      }),
    ));
});

describe('the memory', () => {
  const numbered = (n: number): Coding => codingOf({ accountId: String(n) });
  it('has in each context the lines that stand in it, the latest first', () =>
    fc.assert(
      fc.property(fc.array(said, { maxLength: 12 }), (lines) => {
        const memory = learned(lines.map((line, i) => [line, numbered(i)]));
        for (const line of lines)
          for (const { keys } of contextsOf(line).contexts)
            for (const key of keys) {
              const wanted = lines.flatMap((other, i) => (contextsOf(other).contexts.some((c) => c.keys.includes(key)) ? [String(i)] : []));
              expect(memory.of(key).map((c) => c.accountId)).toEqual(wanted.reverse());
            }
      }),
    ));
  it('holds so many lines of a context and no more', () => {
    const line = { supplierId: 'moss', code: null, description: 'compost', amount: null, day: '2026-11-01' };
    const memory = learned(Array.from({ length: remembered + 5 }, (_, i) => [line, numbered(i)]));
    expect(memory.of('s:moss').map((c) => c.accountId)).toEqual(Array.from({ length: remembered }, (_, i) => String(remembered + 4 - i)));
  });
});
