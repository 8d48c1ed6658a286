import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec, roundTo, sum } from '../money/index.ts';
import { taxParts, type TaxableLine } from './parts.ts';
import type { TaxRule } from './tax.ts';

const rule = (code: string, rate: string, reverseCharge = false): TaxRule => ({ id: code, code, rate, recoverable: '100', reverseCharge });
const rules = [rule('S20', '20'), rule('S10', '10'), rule('R5', '5'), rule('Z0', '0'), rule('RC', '20', true)];
const line = (id: string, amount: string, taxCodeId: string | null = null): TaxableLine => ({ id, amount: dec(amount), taxCodeId });
const said = (lines: TaxableLine[], tax: string, includesTax = false, of = rules) =>
  taxParts(lines, dec(tax), of, includesTax, 'GBP').map((p) => ({
    code: `${p.taxed.code} ${p.free.code}`,
    net: p.net.toFixed(2),
    gross: p.gross.toFixed(2),
    rest: p.rest.toFixed(2),
    lines: p.lines,
    parted: p.parted && `${p.parted.line} ${p.parted.amount.toFixed(2)}`,
  }));

describe('a tax that the rate does not explain', () => {
  it('of a phone bill, 5.00 on 100.00 at 10%: 55.00 with tax, 45.00 free of it', () =>
    expect(said([line('a', '100.00')], '5.00', true, [rule('S10', '10'), rule('Z0', '0')])).toEqual([
      { code: 'S10 Z0', net: '50.00', gross: '55.00', rest: '45.00', lines: [], parted: 'a 55.00' },
    ]));
  it('is tried with every rate that leaves a rest, that of the line first', () =>
    expect(said([line('a', '100.00', 'S10')], '5.00', true).map((p) => `${p.code} ${p.gross} + ${p.rest}`)).toEqual([
      'S10 Z0 55.00 + 45.00',
      'S20 Z0 30.00 + 70.00',
    ]));
  it('is that of just some lines where they make the part: a utility bill with zero-rated and standard-rated parts', () =>
    expect(said([line('power', '80.00', 'S20'), line('water', '45.00', 'S20'), line('levy', '12.50', 'S20')], '18.50')[0]).toEqual({
      code: 'S20 Z0',
      net: '92.50',
      gross: '111.00',
      rest: '45.00',
      lines: ['power', 'levy'],
      parted: null,
    }));
  it('leaves lines whole as far as the part goes, and parts one', () =>
    expect(said([line('a', '30.00'), line('b', '70.00', 'S20'), line('c', '50.00')], '15.00', false, [rules[0]!, rules[3]!])).toMatchObject(
      [{ net: '75.00', lines: ['b'], parted: 'a 5.00' }],
    ));
  it('is nothing to be parted where the rate would need more than there is, where no code is free of tax, or where there is no tax', () => {
    expect(said([line('a', '100.00')], '25.00')).toEqual([]);
    expect(said([line('a', '100.00')], '5.00', false, [rules[0]!])).toEqual([]);
    expect(said([line('a', '100.00')], '0.00')).toEqual([]);
  });
  it('whatever the bill: the parts make the whole, and the tax is that of the part to a minor unit for each point of the rate', () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 90_000 }), { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 1, max: 20_000 }),
        fc.boolean(),
        (cents, taxCents, includesTax) => {
          const lines = cents.map((c, i) => line(`l${i}`, (c / 100).toFixed(2))),
            tax = dec((taxCents / 100).toFixed(2)),
            whole = sum(lines.map((l) => l.amount));
          for (const p of taxParts(lines, tax, rules, includesTax, 'GBP')) {
            const part = includesTax ? p.gross : p.net;
            expect(part.plus(p.rest).eq(whole)).toBe(true);
            expect(p.rest.gt(0)).toBe(true);
            expect(p.net.plus(tax).eq(p.gross)).toBe(true);
            expect(roundTo(p.net.times(p.taxed.rate).div(100), 'GBP').minus(tax).abs().lte('0.01')).toBe(true);
            const carried = sum(lines.filter((l) => p.lines.includes(l.id)).map((l) => l.amount)).plus(p.parted?.amount ?? 0);
            expect(carried.eq(part)).toBe(true);
            if (p.parted) expect(p.parted.amount.lt(lines.find((l) => l.id === p.parted!.line)!.amount)).toBe(true);
          }
        },
      ),
    ));
});
