import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec, minorUnits, sum, type Decimal } from '../money/index.ts';
import { explainedTax, netOf, rateOnDay, taxByCode, taxTolerance, withheldOf, type TaxedLine, type TaxRule } from './index.ts';

const rule = (id: string, rate: string, more: Partial<TaxRule> = {}): TaxRule => ({
  id,
  code: id,
  rate,
  recoverable: '100',
  reverseCharge: false,
  ...more,
});
const S20 = rule('S20', '20'),
  R5 = rule('R5', '5'),
  R55 = rule('R55', '5.5'),
  Z0 = rule('Z0', '0'),
  N20 = rule('N20', '20', { recoverable: '0' }),
  H = rule('H', '20', { recoverable: '37.5' }),
  RC = rule('RC', '20', { reverseCharge: true });
const on = (amount: string, of: TaxRule): TaxedLine => ({ amount: dec(amount), rule: of });
const shares = (lines: TaxedLine[], inclusive = false, said: string | null = null, currency = 'GBP') =>
  taxByCode(lines, inclusive, said === null ? null : dec(said), currency).map((s) => [
    s.rule.id,
    s.net.toFixed(),
    s.tax.toFixed(),
    s.recoverable.toFixed(),
  ]);

const anyLines = fc.array(
  fc.record({
    amount: fc.integer({ min: -100_000, max: 1_000_000 }).map((n) => dec(n).div(100)),
    rule: fc.constantFrom(S20, R5, R55, Z0, N20, H, RC),
  }),
  { minLength: 1, maxLength: 12 },
);
const total = (list: Decimal[]) => sum(list);

describe('tax by code', () => {
  it('is the rate of each code’s net, rounded once a code', () =>
    expect(shares([on('10.01', S20), on('10.01', S20), on('10.01', S20), on('4.00', R5)])).toEqual([
      ['S20', '30.03', '6.01', '6.01'],
      ['R5', '4', '0.2', '0.2'],
    ]));
  it('takes tax out of amounts that include it', () =>
    expect(shares([on('120.00', S20), on('105.50', R55)], true)).toEqual([
      ['S20', '100', '20', '20'],
      ['R55', '100', '5.5', '5.5'],
    ]));
  it('gives a rounding difference of the invoice to the code with the most tax', () =>
    expect(shares([on('100.00', S20), on('100.00', R5)], false, '25.02')).toEqual([
      ['S20', '100', '20.02', '20.02'],
      ['R5', '100', '5', '5'],
    ]));
  it('with tax included, the difference leaves the totals as they are', () =>
    expect(shares([on('120.00', S20)], true, '20.01')).toEqual([['S20', '99.99', '20.01', '20.01']]));
  it('can be reclaimed as far as the code says', () =>
    expect(shares([on('100.00', N20), on('100.00', H)])).toEqual([
      ['N20', '100', '20', '0'],
      ['H', '100', '20', '7.5'],
    ]));
  it('is none on the invoice for reverse charge, whichever way amounts are written', () => {
    expect(shares([on('100.00', RC)])).toEqual([['RC', '100', '0', '0']]);
    expect(shares([on('100.00', RC)], true)).toEqual([['RC', '100', '0', '0']]);
  });
  it('knows currencies without pence', () =>
    expect(shares([on('1005', rule('J10', '10'))], false, null, 'JPY')).toEqual([['J10', '1005', '101', '101']]));

  it('adds up to what the invoice says, and net and tax to the amounts, whatever the lines', () =>
    fc.assert(
      fc.property(anyLines, fc.boolean(), fc.integer({ min: -5, max: 5 }), (lines, inclusive, pence) => {
        const explained = explainedTax(lines, inclusive, 'GBP');
        const taxed = lines.some((l) => !l.rule.reverseCharge);
        const said = taxed ? explained.plus(dec(pence).div(100)) : explained;
        const parts = taxByCode(lines, inclusive, said, 'GBP');
        expect(total(parts.map((p) => p.tax)).eq(said)).toBe(true);
        const amounts = total(lines.map((l) => l.amount));
        const whole = inclusive ? total(parts.map((p) => p.net.plus(p.tax))) : total(parts.map((p) => p.net));
        expect(whole.eq(amounts)).toBe(true);
      }),
    ));
  it('never has more than two decimals, nor reclaims more than there is', () =>
    fc.assert(
      fc.property(anyLines, fc.boolean(), (lines, inclusive) => {
        for (const p of taxByCode(lines, inclusive, null, 'GBP')) {
          for (const figure of [p.tax, p.recoverable]) expect(figure.decimalPlaces()).toBeLessThanOrEqual(minorUnits('GBP'));
          expect(p.recoverable.abs().lte(p.tax.abs())).toBe(true);
        }
      }),
    ));
  it('does not depend on the order of the lines', () =>
    fc.assert(
      fc.property(anyLines, fc.boolean(), (lines, inclusive) => {
        expect(explainedTax([...lines].reverse(), inclusive, 'GBP').eq(explainedTax(lines, inclusive, 'GBP'))).toBe(true);
      }),
    ));
});
describe('the net of a line', () => {
  it('is its amount, or its amount without the tax inside it', () =>
    expect(
      [netOf(on('120.00', S20), false, 'GBP'), netOf(on('120.00', S20), true, 'GBP'), netOf(on('120.00', RC), true, 'GBP')].map((d) =>
        d.toFixed(),
      ),
    ).toEqual(['120', '100', '120']));
});
it('rounding explains a penny a line, at least two', () =>
  expect([0, 1, 2, 9].map((n) => taxTolerance(n, 'GBP', null).toFixed())).toEqual(['0.02', '0.02', '0.02', '0.09']));
it('is of the currency’s own minor unit, or what the company lets pass where that is more', () => {
  expect([taxTolerance(3, 'JPY', null), taxTolerance(3, 'KWD', null)].map((t) => t.toFixed())).toEqual(['3', '0.003']);
  expect([taxTolerance(3, 'GBP', '0.50'), taxTolerance(3, 'GBP', '0.01')].map((t) => t.toFixed())).toEqual(['0.5', '0.03']);
});

it('the rate of a code is that of the day', () => {
  const later = [{ from: '2026-07-01', rate: '21' }, { from: '2025-01-01', rate: '19' }]; // prettier-ignore
  expect(['2024-12-31', '2025-01-01', '2026-06-30', '2026-07-01'].map((day) => rateOnDay('17.5', later, day))).toEqual([
    '17.5',
    '19',
    '19',
    '21',
  ]);
  expect(rateOnDay('17.5', [], '2026-07-01')).toBe('17.5');
});
it('what is withheld is of the net, to the minor unit', () => {
  const share = { rule: { ...rule('X', '20'), withheld: '12.5' }, net: dec('100.05') };
  expect(withheldOf(share, 'GBP').toFixed()).toBe('12.51');
  expect(withheldOf({ ...share, rule: rule('X', '20') }, 'GBP').isZero()).toBe(true);
});
