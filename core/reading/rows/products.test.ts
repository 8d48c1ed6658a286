import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec } from '../../money/index.ts';
import type { Weighed } from './described.ts';
import { agreed, partsOf, plain, together } from './products.ts';
import { itemTags, type ItemTag } from './tags.ts';

/** A figure of a line that looks like something, and is one of many things otherwise. */
function figure(value: string, looks: ItemTag, percent = false): Weighed {
  const decimals = value.split('.')[1]?.length ?? 0;
  const shares = Object.fromEntries(itemTags.map((tag) => [tag, tag === looks ? -0.1 : -4])) as Weighed['shares'];
  return {
    item: { words: [], text: value, x: 0, end: 0, left: 0, figure: { value, decimals, percent, money: false, unit: '' } },
    at: 0,
    line: 0,
    first: 0,
    shares,
  } as unknown as Weighed;
}
const parts = (...items: Weighed[]) => partsOf(items, 0, 'GBP', false, null, true)!;
const said = ({ quantity, price, discounts, tax, per, holds }: ReturnType<typeof parts>) => ({
  quantity: quantity && plain(quantity),
  price: price && plain(price),
  discounts: discounts.map(plain),
  tax: tax && plain(tax),
  per,
  holds,
});

describe('what makes a line’s amount', () => {
  it('quantity × price', () =>
    expect(said(parts(figure('12', 'quantity'), figure('21.40', 'price'), figure('256.80', 'amount')))).toEqual({
      quantity: '12',
      price: '21.40',
      discounts: [],
      tax: null,
      per: 1,
      holds: true,
    }));
  it('less a discount, though it does not look like one: 4 × 29.80 − 20% = 95.36', () =>
    expect(
      said(parts(figure('4', 'quantity'), figure('29.80', 'price'), figure('20.0', 'other'), figure('95.36', 'amount'))),
    ).toMatchObject({ discounts: ['20.0'], holds: true }));
  it('less two, one after another: 10 × 40.00 − 10% − 5% = 342.00', () => {
    const found = parts(
      figure('10', 'quantity'),
      figure('40.00', 'price'),
      figure('10', 'discount'),
      figure('5', 'discount'),
      figure('342.00', 'amount'),
    );
    expect(said(found)).toMatchObject({ discounts: ['10', '5'], holds: true });
    expect(together(found.discounts)).toBe('14.5');
  });
  it('with the tax of its row: 200 × 3.50 + 7% = 749.00', () =>
    expect(
      said(parts(figure('200', 'quantity'), figure('3.50', 'price'), figure('7', 'rate', true), figure('749.00', 'amount'))),
    ).toMatchObject({ tax: '7', discounts: [], holds: true }));
  it('for many, and no other quantity where one for one does it: 6 × 34.00 before 60 × 34.00 ÷ 10', () => {
    expect(said(parts(figure('5000', 'quantity'), figure('71.50', 'price'), figure('357.50', 'amount')))).toMatchObject({
      per: 1000,
      holds: true,
    });
    expect(
      said(parts(figure('60', 'quantity'), figure('6', 'quantity'), figure('34.00', 'price'), figure('204.00', 'amount'))),
    ).toMatchObject({ quantity: '6', per: 1 });
  });
  it('nothing that is made up: figures that do not multiply are said as they look', () =>
    expect(said(parts(figure('3', 'quantity'), figure('9.99', 'price'), figure('31.00', 'amount')))).toMatchObject({
      quantity: '3',
      price: '9.99',
      discounts: [],
      holds: false,
    }));
});

it('discounts one after another leave what each leaves of the rest, in any order', () =>
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 99 }), { minLength: 1, maxLength: 3 }), (percents) => {
      const list = percents.map((p) => figure(String(p), 'discount'));
      const left = percents.reduce((rest, p) => rest.times(100 - p).div(100), dec(1000));
      expect(
        dec(1000)
          .times(dec(100).minus(together(list)!))
          .div(100)
          .eq(left),
      ).toBe(true);
      expect(together([...list].reverse())).toBe(together(list));
    }),
  ));

describe('what lines agree on', () => {
  /** A figure whose column ends somewhere. */
  const at = (end: number, value: string, looks: ItemTag): Weighed => {
    const w = figure(value, looks);
    return { ...w, item: { ...w.item, end } };
  };
  const line = (...items: Weighed[]) => ({ items, parts: parts(...items) });
  const [sure, also] = [
    line(at(300, '12', 'quantity'), at(380, '2.00', 'price'), at(470, '24.00', 'amount')),
    line(at(300, '3', 'quantity'), at(380, '4.00', 'price'), at(470, '12.00', 'amount')),
  ];
  const agreement = (...of: ReturnType<typeof line>[]) =>
    agreed(
      of.map((l) => l.parts),
      of.map((l) => l.items),
    ).map((p) => [p!.quantity && plain(p!.quantity), p!.price && plain(p!.price)]);

  it('where others multiply out, a line’s quantity is what stands in their column', () => {
    const unsure = line(at(300, '7', 'other'), at(380, '9.00', 'price'), at(470, '50.00', 'amount'));
    expect(unsure.parts.quantity).toBeNull();
    expect(agreement(sure, also, unsure)[2]).toEqual(['7', '9.00']);
    expect(agreement(sure, unsure)[1]).toEqual([null, '9.00']);
  });
  it('a quantity alone beside their column is none', () => {
    const beside = line(at(120, '2026', 'quantity'), at(470, '50.00', 'amount'));
    expect(beside.parts.quantity).not.toBeNull();
    expect(agreement(sure, also, beside)[2]).toEqual([null, null]);
  });
  it('prices where no line has a quantity are other money, unless they are the amounts', () => {
    const to = (price: string, amount: string) => line(at(380, price, 'price'), at(470, amount, 'amount'));
    expect(agreement(to('900.00', '300.00'), to('250.00', '130.00')).map(([, p]) => p)).toEqual([null, null]);
    expect(agreement(to('300.00', '300.00'), to('130.00', '130.00')).map(([, p]) => p)).toEqual(['300.00', '130.00']);
  });
});
