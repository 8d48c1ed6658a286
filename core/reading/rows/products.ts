import { dec } from '../../money/index.ts';
import { holds } from '../table/values.ts';
import type { Weighed } from './described.ts';
import { moneyLike } from './rowfeatures.ts';
import type { ItemTag } from './tags.ts';

/** A line's amount with what makes it: quantity × price ÷ per − discount + tax. */
export interface Parts {
  amount: Weighed;
  quantity: Weighed | null;
  price: Weighed | null;
  /** Percents, each of what the ones before it left. */ discounts: readonly Weighed[];
  /** The price is for so many. */ per: number;
  pence: boolean;
  /** The rate of tax that the amount has in it and the price has not. */ tax: Weighed | null;
  holds: boolean;
  score: number;
}
type Made = Pick<Parts, 'discounts' | 'per' | 'pence' | 'tax'>;

/** A figure as a plain decimal. */
export const plain = (w: Weighed): string => w.item.figure!.value;

/** A price is for one, or for so many pieces, or in pence. */
const one: (readonly [per: number, pence: boolean])[] = [[1, false]],
  perMany: typeof one = [
    [100, false],
    [1000, false],
    [10, false],
    [1, true],
  ];

const percent = (w: Weighed | null): number => (w ? Math.abs(Number(plain(w))) : 0);

/** Discounts one after another as one, in percent: 10 and 5 are 14.5. Null for none. */
export const together = (discounts: readonly Weighed[]): string | null =>
  discounts.length === 0
    ? null
    : dec(100)
        .minus(discounts.reduce((left, d) => left.times(dec(100).minus(dec(plain(d)).abs())).div(100), dec(100)))
        .toString();

/** A quick look whether it can hold, before it is computed exactly: floats are good for that and for nothing else. */
function nearly(q: Weighed, p: Weighed, { discounts, tax, per, pence }: Made, amount: Weighed): boolean {
  const many = pence ? 100 : per;
  const made =
    (Math.abs(Number(plain(q)) * Number(plain(p))) / many) *
    discounts.reduce((left, d) => left * (1 - percent(d) / 100), 1) *
    (1 + percent(tax) / 100);
  return Math.abs(made - Math.abs(Number(plain(amount)))) < 0.6;
}

function makes(q: Weighed, p: Weighed, made: Made, amount: Weighed, currency: string): boolean {
  if (!nearly(q, p, made, amount)) return false;
  const price = made.tax
    ? dec(plain(p))
        .times(dec(100).plus(percent(made.tax)))
        .div(100)
        .toString()
    : plain(p);
  return holds(plain(q), price, together(made.discounts), made.pence ? 100 : made.per, plain(amount), currency);
}

/** What it costs to think that a price is for many, in pence, without its tax, or less a discount that does not look like one. */
const costOf = ({ per, pence, tax, discounts }: Made): number =>
  (per > 1 ? 2 : 0) +
  (pence ? 1 : 0) +
  (tax ? 1.5 : 0) +
  discounts.reduce((cost, d, i) => cost + (d.shares.discount < likelyDiscount ? 2 : 0) + (i > 0 ? 0.5 : 0), 0);

/** From here on a figure looks like a discount, as a natural logarithm. */
const likelyDiscount = -1.2;
const simple: Made = { discounts: [], per: 1, pence: false, tax: null };

/** How much more a figure looks like this than like no factor. */
const gain = ({ shares }: Weighed, tag: ItemTag): number => shares[tag] - Math.max(shares.other, shares.description);
/** Figures that look most like this. */
const likely = (of: readonly Weighed[], tag: ItemTag): Weighed[] => [...of].sort((a, b) => b.shares[tag] - a.shares[tag]).slice(0, 4);

/** A line's amount, quantity and price: what the items look like, and what multiplies to what is printed. */
export function partsOf(
  items: Weighed[],
  row: number,
  currency: string,
  whole: boolean,
  edge: number | null,
  bulk: boolean,
  /** Figures that are no factors. */ worked: ReadonlySet<Weighed> = new Set(),
): Parts | null {
  const figures = items.filter((i) => i.item.figure);
  const amounts = figures.filter((i) => i.at === row && (moneyLike(i.item, whole) || i.shares.amount > -1));
  const onEdge = edge === null ? [] : amounts.filter((i) => Math.abs(i.item.end - edge) < 5);
  const usable = (onEdge.length > 0 ? onEdge : amounts.length > 0 ? amounts : figures.filter((i) => i.at === row))
    .sort((a, b) => b.shares.amount - a.shares.amount)
    .slice(0, 3);
  let best: Parts | null = null;
  for (const amount of usable) {
    // Nothing of something makes nothing.
    const nothing = Number(plain(amount)) === 0;
    const rest = figures.filter((i) => i !== amount && !worked.has(i) && !i.item.figure!.percent && (nothing || Number(plain(i)) !== 0));
    const [quantities, prices] = [likely(rest, 'quantity'), likely(rest, 'price')];
    const discounts = figures.filter((i) => i !== amount && i.shares.discount > likelyDiscount),
      maybe = figures.filter((i) => i !== amount && !discounts.includes(i) && percent(i) > 0 && percent(i) < 95),
      rates = figures.filter((i) => i !== amount && i.at === row && (i.item.figure!.percent || i.shares.rate > -1) && percent(i) < 40);
    const put = (quantity: Weighed | null, price: Weighed | null, made: Made, fits: boolean) => {
      const score =
        amount.shares.amount * 1.5 +
        (quantity ? Math.max(fits ? -2.5 : -9, gain(quantity, 'quantity')) : 0) +
        (price ? Math.max(fits ? -2.5 : -9, gain(price, 'price')) : 0) +
        // The more digits an amount has, the less it is made by chance.
        (fits
          ? 3 + 0.8 * plain(amount).replace(/\D/g, '').length - costOf(made) - (plain(quantity!) === '1' ? 1.5 : 0)
          : quantity && price
            ? -1
            : 0) +
        (made.discounts.length > 0 && !fits ? -0.5 : 0);
      if (!best || score > best.score) best = { amount, quantity, price, ...made, holds: fits, score };
    };
    put(null, null, simple, false);
    /** Whether it multiplies out so; then that is weighed. */
    const attempt = (q: Weighed, p: Weighed, made: Made): boolean => {
      const fits = makes(q, p, made, amount, currency);
      if (fits) put(q, p, made, true);
      return fits;
    };
    for (const q of quantities) put(q, null, simple, false);
    for (const p of prices) put(null, p, simple, false);
    for (const q of quantities)
      for (const p of prices) {
        if (q === p) continue;
        let fitting = false;
        const own = discounts.filter((w) => w !== q && w !== p);
        const singly = [[], ...own.map((d) => [d])];
        for (const some of singly)
          for (const [per, pence] of bulk ? one.concat(perMany) : one)
            if (attempt(q, p, { discounts: some, per, pence, tax: null })) fitting = true;
        if (!fitting && Number(plain(amount)) !== 0) {
          for (const [i, first] of own.entries())
            for (const second of own.slice(i + 1)) if (attempt(q, p, { ...simple, discounts: [first, second] })) fitting = true;
          for (const discount of maybe)
            if (discount !== q && discount !== p && attempt(q, p, { ...simple, discounts: [discount] })) fitting = true;
          for (const some of singly)
            for (const tax of rates)
              if (tax !== q && tax !== p && !some.includes(tax) && percent(tax) > 0 && attempt(q, p, { ...simple, discounts: some, tax }))
                fitting = true;
        }
        if (!fitting) put(q, p, { ...simple, discounts: own.slice(0, 1) }, false);
      }
  }
  return best;
}

/** In points: figures of a column end at the same place. */
const columnSlack = 5;

/**
 * What lines agree on. Where some multiply out, the others' quantity and price stand in the same columns: it is taken from there, and a
 * quantity alone elsewhere is none. Prices without a quantity in any line that are not the amounts either are other money.
 */
export function agreed(all: readonly (Parts | null)[], own: readonly (readonly Weighed[])[]): (Parts | null)[] {
  const holding = all.filter((p) => p?.holds);
  if (holding.length === 0) {
    const priced = all.filter((p) => p?.price),
      unlike = priced.filter((p) => plain(p!.price!) !== plain(p!.amount));
    const other = all.every((p) => !p?.quantity) && unlike.length > priced.length / 2;
    return other ? all.map((p) => p && { ...p, price: null }) : [...all];
  }
  const ends = (of: 'quantity' | 'price') => holding.flatMap((p) => (p![of] && p![of].at === p!.amount.at ? [p![of].item.end] : []));
  const [counting, pricing] = [ends('quantity'), ends('price')];
  const stands = (w: Weighed, at: readonly number[]) => at.filter((end) => Math.abs(end - w.item.end) < columnSlack).length;
  /** The line's figure in the column where most of the others have theirs. */
  const inColumn = (parts: Parts, items: readonly Weighed[], at: readonly number[], not: Weighed | null): Weighed | null =>
    at.length < 2
      ? null
      : (items.find(
          (w) =>
            w.item.figure &&
            !w.item.figure.percent &&
            w.at === parts.amount.at &&
            w !== parts.amount &&
            w !== not &&
            // A number among words is part of what they say.
            w.shares.description <= Math.max(w.shares.quantity, w.shares.price) &&
            stands(w, at) > at.length / 2,
        ) ?? null);
  return all.map((parts, line) => {
    if (!parts || parts.holds) return parts;
    const price = parts.price ?? inColumn(parts, own[line]!, pricing, parts.quantity);
    const alone = parts.quantity && !parts.price && counting.length > 0 && stands(parts.quantity, counting) === 0 ? null : parts.quantity;
    return { ...parts, price, quantity: alone ?? inColumn(parts, own[line]!, counting, price) };
  });
}
