import { dec, type Decimal } from './decimal.ts';

/** Currencies whose minor unit is not a hundredth (ISO 4217, exponent column). */
const exponents: Record<string, number> = {
  JPY: 0,
  KRW: 0,
  VND: 0,
  CLP: 0,
  ISK: 0,
  XAF: 0,
  XOF: 0,
  PYG: 0,
  UGX: 0,
  BHD: 3,
  IQD: 3,
  JOD: 3,
  KWD: 3,
  LYD: 3,
  OMR: 3,
  TND: 3,
};

/** Decimal places of a currency's minor unit, 2 unless ISO 4217 says otherwise. */
export function minorUnits(currency: string): number {
  return exponents[currency] ?? 2;
}

/** Rounds half up (commercial rounding) to the currency's minor unit. */
export function roundTo(amount: Decimal, currency: string): Decimal {
  return amount.toDecimalPlaces(minorUnits(currency));
}

/** The amount as a string with exactly the currency's decimals: "1627.50", or "1628" in yen. */
export function fixed(amount: Decimal | string, currency: string): string {
  return dec(amount).toFixed(minorUnits(currency));
}

/** A decimal as text with its thousands parted, its digits as they are: "5037.62" is "5,037.62". Anything else stays. */
export function grouped(text: string): string {
  const [, sign = '', whole, fraction = ''] = /^([-−]?)(\d+)(\.\d+)?$/.exec(text) ?? [];
  return whole ? `${sign ? '−' : ''}${whole.replace(/\B(?=(\d{3})+$)/g, ',')}${fraction}` : text;
}

/** For people: thousands by comma, decimals by point, a true minus. */
export function formatAmount(amount: Decimal | string, currency: string): string {
  const text = fixed(dec(amount).abs(), currency);
  const [whole = '', fraction] = text.split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ',') + (fraction ? `.${fraction}` : '');
  return dec(amount).isNegative() && !dec(amount).isZero() ? `−${grouped}` : grouped;
}
