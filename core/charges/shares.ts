import { allocate, dec, formatAmount, sum, type Decimal } from '../money/index.ts';

/** By what a charge is shared over goods. */
export const bases = ['value', 'quantity', 'weight', 'volume', 'equally', 'by-hand'] as const;
export type Basis = (typeof bases)[number];

/** Goods that came, as far as sharing goes; what is not known is null. */
export interface Goods {
  /** In the order line's unit. */ quantity: string;
  /** At the ordered price without tax, in the company's currency. */ value: string | null;
  /** Of one unit, in kg. */ weight: string | null;
  /** Of one unit, in m³. */ volume: string | null;
  /** What they bear, where a person says so. */ amount: string | null;
}

/** How much goods weigh in a basis; null where that is not known of them. */
function weightOf({ quantity, value, weight, volume }: Goods, basis: Exclude<Basis, 'by-hand'>): Decimal | null {
  if (basis === 'equally') return dec(1);
  if (basis === 'quantity') return dec(quantity);
  if (basis === 'value') return value === null ? null : dec(value);
  const each = basis === 'weight' ? weight : volume;
  return each === null ? null : dec(each).times(quantity);
}

const lacking = { value: 'no exchange rate', weight: 'no weight', volume: 'no volume' } as const;

/** Why a charge cannot be shared like this, in a sentence; null where it can be. */
export function shareTrouble(amount: string | null, basis: Basis, goods: readonly Goods[], currency: string): string | null {
  if (amount === null) return 'The row has no amount to share.';
  if (goods.length === 0) return 'Choose what it is shared over.';
  if (basis === 'by-hand') {
    const rest = dec(amount).minus(sum(goods.map((g) => dec(g.amount ?? '0'))));
    if (rest.isZero()) return null;
    return `${formatAmount(rest.abs(), currency)} ${rest.isNegative() === dec(amount).isNegative() ? 'is still to be shared' : 'too much is shared'}.`;
  }
  const weights = goods.map((g) => weightOf(g, basis)),
    without = weights.filter((w) => w === null).length;
  if (without > 0)
    return `${without === 1 ? 'One of them has' : `${without} of them have`} ${lacking[basis as keyof typeof lacking]}. Give it at the order, or share by something else.`;
  // All alike would be shared equally, which is not what was asked for.
  if (sum(weights as Decimal[]).isZero()) return 'They come to nothing. Share by something else.';
  return null;
}

/**
 * What each of the goods bears of a charge, in their order; the parts add up to it to the cent. Null where it cannot be shared like this
 * (`shareTrouble` says why).
 */
export function sharesOf(amount: string | null, basis: Basis, goods: readonly Goods[], currency: string): Decimal[] | null {
  if (amount === null || shareTrouble(amount, basis, goods, currency) !== null) return null;
  if (basis === 'by-hand') return goods.map((g) => dec(g.amount ?? '0'));
  return allocate(dec(amount), goods.map((g) => weightOf(g, basis)!), currency); // prettier-ignore
}
