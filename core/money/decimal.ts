import { Decimal as DecimalJs } from 'decimal.js';

/** Exact decimals for every amount, quantity and rate. Nothing else in the product does arithmetic on them. */
export const Decimal = DecimalJs.clone({ precision: 40, rounding: DecimalJs.ROUND_HALF_UP });
export type Decimal = DecimalJs;

/** A decimal from its string form, "1234.50". Throws a RangeError for anything else. */
export function dec(value: string | number | Decimal): Decimal {
  try {
    return new Decimal(value);
  } catch {
    throw new RangeError(`“${String(value)}” is not a number`);
  }
}

/** The decimal a string holds, or null when it holds none. */
export function decOrNull(value: string | null | undefined): Decimal | null {
  if (value === null || value === undefined || !/^-?\d+(\.\d+)?$/.test(value)) return null;
  return new Decimal(value);
}

export const zero = new Decimal(0);

export function sum(values: Iterable<Decimal>): Decimal {
  let total: Decimal = zero;
  for (const value of values) total = total.plus(value);
  return total;
}
