import { dec, sum, zero, type Decimal } from './decimal.ts';
import { minorUnits } from './currency.ts';

/**
 * Splits an amount by weights so that the parts add up to it exactly: each part is cut to the minor unit
 * and the units left over go to the largest remainders (Hamilton's method; ties to the earlier part).
 * All weights zero: equal parts. No weights: no parts. Weights must not be negative.
 */
export function allocate(amount: Decimal, weights: Decimal[], currency: string): Decimal[] {
  if (weights.length === 0) return [];
  if (weights.some((w) => w.isNegative())) throw new RangeError('A share cannot be negative');
  const total = sum(weights);
  const shares = total.isZero() ? weights.map(() => dec(1)) : weights;
  const whole = sum(shares);
  const unit = dec(10).pow(-minorUnits(currency));
  const exact = shares.map((share) => amount.times(share).div(whole).div(unit));
  const parts = exact.map((value) => value.trunc());
  const left = amount.div(unit).minus(sum(parts));
  const step = left.isNegative() ? -1 : 1;
  const order = exact
    .map((value, index) => ({ index, rest: value.minus(parts[index] ?? zero).abs() }))
    .sort((a, b) => b.rest.comparedTo(a.rest) || a.index - b.index);
  for (let k = 0; k < left.abs().toNumber(); k++) {
    const { index } = order[k % order.length]!;
    parts[index] = parts[index]!.plus(step);
  }
  return parts.map((value) => value.times(unit));
}
