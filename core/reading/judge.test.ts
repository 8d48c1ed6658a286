import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec, sum } from '../money/index.ts';
import type { NamedAmount } from './amounts.ts';
import { judge } from './judge.ts';
import type { TotalLabel } from './lexicon/index.ts';
import { sketchLine } from './sketch.ts';

let row = 0;
const amount = (value: string, roles: Partial<Record<TotalLabel, number>> = {}, rate: string | null = null, label = 'x'): NamedAmount => ({
  value: dec(value),
  text: value,
  label,
  roles: new Map(Object.entries(roles) as [TotalLabel, number][]),
  mark: { page: 1, x: row, y: row, w: 1, h: 1 },
  row: row++,
  rate,
});
const line = (value: string, taxRate: string | null = null) => sketchLine(value, { taxRate });
const cents = (n: number) => (n / 100).toFixed(2);

describe('the judge', () => {
  it('chooses what adds up, and says by which sums', () => {
    const v = judge(
      [amount('100.00', { net: 1 }), amount('20.00', { tax: 1 }, '20'), amount('120.00', { gross: 1 })],
      [],
      [line('60.00'), line('40.00')],
    );
    expect([v.net?.text, v.tax?.value.toFixed(2), v.gross?.text]).toEqual(['100.00', '20.00', '120.00']);
    expect(v.proofs).toEqual({ total: '100.00 + 20.00 = 120.00', lines: '2 lines 100.00 = 100.00' });
  });
  it('takes charges and discounts that make the lines the net', () => {
    const v = judge(
      [
        amount('45.00', { charge: 1 }),
        amount('10.00', { discount: 1 }),
        amount('135.00', { net: 1 }),
        amount('27.00', { tax: 1 }, '20'),
        amount('162.00', { gross: 1 }),
      ],
      [],
      [line('100.00')],
    );
    expect([v.charges.map((c) => c.value.toFixed(2)), v.linesHold, v.proofs.lines]).toEqual([
      ['45.00', '-10.00'],
      true,
      '1 line 100.00 + charges 35.00 = 135.00',
    ]);
  });
  it('takes a charge by a percentage for a charge, beside the tax that is one', () => {
    const v = judge(
      [
        amount('24.24', { tax: 0.93 }, '2.5', 'Environmental charge 2.5% on hire'),
        amount('1635.92', { net: 1 }),
        amount('327.18', { tax: 1 }, '20'),
        amount('1963.10', { gross: 1 }),
        amount('1611.68'),
      ],
      [],
      [line('1611.68')],
    );
    expect([v.net?.text, v.tax?.value.toFixed(2), v.charges.map((c) => c.text), v.linesHold]).toEqual([
      '1635.92',
      '327.18',
      ['24.24'],
      true,
    ]);
  });
  it('takes no sum at a rate of nothing for a tax, and none of half the total', () => {
    const base = judge(
      [
        amount('284.40', { tax: 0.86 }, '0'),
        amount('942.75', { tax: 1 }, '10'),
        amount('9711.90', { net: 0.9 }),
        amount('10654.65', { gross: 1 }),
      ],
      [],
      [],
    );
    expect([base.net?.text, base.tax?.value.toFixed(2)]).toEqual(['9711.90', '942.75']);
    const half = judge(
      [amount('932.72', { tax: 1 }, '22'), amount('764.52', { net: 0.9 }), amount('168.20', { tax: 1 }), amount('932.72', { gross: 0.99 })],
      [],
      [],
    );
    expect([half.net?.text, half.tax?.value.toFixed(2), half.gross?.text]).toEqual(['764.52', '168.20', '932.72']);
  });
  it('adds the taxes of several rates', () => {
    const v = judge(
      [
        amount('100.00', { net: 1 }),
        amount('10.00', { tax: 1 }, '20'),
        amount('2.50', { tax: 1 }, '5'),
        amount('0.00', { tax: 1 }, '0'),
        amount('112.50', { gross: 1 }),
      ],
      [],
      [line('100.00')],
    );
    expect([v.tax?.value.toFixed(2), v.totalHolds]).toEqual(['12.50', true]);
  });
  it('knows prices that include the tax', () => {
    const v = judge(
      [amount('120.00', { gross: 1 }), amount('20.00', { tax: 1 }, '20'), amount('100.00', { net: 1 })],
      [],
      [line('120.00')],
    );
    expect([v.includesTax, v.net?.text]).toEqual([true, '100.00']);
  });
  it('the total is before a deposit, not what is left to pay', () => {
    const v = judge(
      [
        amount('100.00', { net: 1 }),
        amount('20.00', { tax: 1 }),
        amount('120.00', { gross: 1 }),
        amount('-30.00', { deposit: 1 }),
        amount('90.00', { gross: 1 }),
      ],
      [],
      [line('100.00')],
    );
    expect(v.gross?.text).toBe('120.00');
  });
  it('never repairs: a wrong printed total is taken as printed, and does not hold', () => {
    const v = judge(
      [amount('100.00', { net: 1 }), amount('20.00', { tax: 1 }, '20'), amount('130.00', { gross: 1 })],
      [],
      [line('100.00')],
    );
    expect([v.gross?.text, v.totalHolds, v.proofs.total]).toEqual(['130.00', false, null]);
  });
  it('a rate that does not make the tax is told', () => {
    const v = judge(
      [amount('100.00', { net: 1 }), amount('25.00', { tax: 1 }, '20'), amount('125.00', { gross: 1 })],
      [],
      [line('100.00')],
    );
    expect([v.totalHolds, v.rateHolds]).toEqual([true, false]);
  });
  it('a total that is the net as well is proven by its lines alone: no tax added to it makes it whatever it is', () => {
    const printed = [amount('0.00', { tax: 1 }, '0'), amount('90.00', { gross: 1 })];
    expect(judge(printed, [], [line('60.00'), line('30.00')]).proofs.total).toBe('2 lines 90.00 = 90.00');
    expect(judge(printed, [], [line('60.00')]).proofs).toEqual({ total: null, lines: null });
  });
  it('without any total nothing is chosen', () =>
    expect(judge([], [], [line('5.00')])).toMatchObject({ gross: null, net: null, tax: null, totalHolds: false }));
  it('finds net, tax and total among any other amounts, and every chosen amount is printed', () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 90_000 }), { minLength: 1, maxLength: 8 }),
        fc.constantFrom(5, 20, 25),
        fc.array(fc.integer({ min: 1, max: 900_000 }), { maxLength: 4 }),
        fc.boolean(),
        (prices, rate, others, labelled) => {
          const lines = prices.map((p) => line(cents(p)));
          const net = prices.reduce((t, p) => t + p, 0),
            tax = Math.round((net * rate) / 100),
            gross = net + tax;
          const amounts = [
            ...others.map((n) => amount(cents(n), {}, null, '')),
            amount(cents(net), labelled ? { net: 1 } : { goods: 1 }),
            amount(cents(tax), { tax: 1 }, String(rate)),
            amount(cents(gross), { gross: 1 }),
          ];
          const v = judge(amounts, [], lines);
          expect([v.net?.value.toFixed(2), v.tax?.value.toFixed(2), v.gross?.value.toFixed(2), v.totalHolds, v.linesHold]).toEqual([
            cents(net),
            cents(tax),
            cents(gross),
            true,
            true,
          ]);
          for (const chosen of [v.net, v.gross, ...(v.tax?.from ?? []), ...v.charges])
            expect(amounts.map((a) => a.row)).toContain(chosen!.row);
          expect(sum([v.net!.value, v.tax!.value]).eq(v.gross!.value)).toBe(true);
        },
      ),
    ));
});
