import { describe, expect, it } from 'vitest';
import { suggest, type PastLine, type RateCode } from './index.ts';

const codes: RateCode[] = [
  { id: 's20', rate: '20', reverseCharge: false },
  { id: 'r5', rate: '5', reverseCharge: false },
  { id: 'rc', rate: '20', reverseCharge: true },
];
const past = (description: string, accountId: string, more: Partial<PastLine> = {}): PastLine => ({
  description,
  code: null,
  accountId,
  costCentreId: 'c1',
  taxCodeId: 's20',
  ...more,
});
const usual = { accountId: 'usual', costCentreId: 'c9', taxCodeId: 's20' };
const line = (description: string, more: { code?: string | null; taxRate?: string | null } = {}) => ({
  description,
  code: null,
  taxRate: null,
  ...more,
});

describe('a suggestion for a line', () => {
  it('is how this supplier’s lines like it were coded, and says how many', () =>
    expect(
      suggest(
        line('Peat-free compost, 50 l'),
        [past('Peat-free compost 40 l', 'media'), past('Compost, peat-free', 'media'), past('Delivery', 'carriage')],
        usual,
        codes,
      ),
    ).toEqual({ accountId: 'media', costCentreId: 'c1', taxCodeId: 's20', reason: '2 of 2 lines like this from this supplier' }));
  it('goes with the majority where they were coded differently', () => {
    const lines = [past('Garden fork', 'tools'), past('Garden fork', 'tools'), past('Garden fork', 'assets')];
    expect(suggest(line('Garden fork'), lines, null, codes)).toMatchObject({
      accountId: 'tools',
      reason: '2 of 3 lines like this from this supplier',
    });
  });
  it('weighs the item code over the words', () =>
    expect(
      suggest(
        line('Something new', { code: 'X-1' }),
        [past('Old name', 'coded', { code: 'X-1' }), past('Something new', 'worded')],
        null,
        codes,
      ),
    ).toMatchObject({ accountId: 'coded' }));
  it('is the supplier’s usual coding where no line is like it', () =>
    expect(suggest(line('Never seen before'), [past('Compost', 'media')], usual, codes)).toEqual({
      ...usual,
      reason: 'Usual for this supplier',
    }));
  it('takes the rate that the page states over the tax code of the past, and says so', () =>
    expect(suggest(line('Compost', { taxRate: '5.00' }), [past('Compost', 'media')], null, codes)).toEqual({
      accountId: 'media',
      costCentreId: 'c1',
      taxCodeId: 'r5',
      reason: '1 of 1 lines like this from this supplier; 5% on the page',
    }));
  it('leaves the tax code where the page’s rate is the same, and never takes reverse charge for a stated rate', () => {
    expect(suggest(line('Compost', { taxRate: '20' }), [past('Compost', 'media', { taxCodeId: 'rc' })], null, codes)).toMatchObject({
      taxCodeId: 'rc',
    });
    expect(suggest(line('Compost', { taxRate: '20' }), [], null, codes)).toMatchObject({
      accountId: null,
      taxCodeId: 's20',
      reason: '20% on the page',
    });
  });
  it('is none where nothing is known', () => {
    expect(suggest(line('Compost'), [], null, codes)).toBe(null);
    expect(suggest(line('Compost', { taxRate: '7' }), [], { ...usual, accountId: null }, codes)).toBe(null);
  });
  it('words of two letters, numbers and accents do not count', () =>
    expect(suggest(line('Pépinière à 12 l'), [past('pepiniere 99', 'media'), past('12 l of it', 'other')], null, codes)).toMatchObject({
      accountId: 'media',
    }));
});
