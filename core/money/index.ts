export { Decimal, dec, decOrNull, sum, zero } from './decimal.ts';
export { minorUnits, roundTo, fixed, formatAmount, grouped } from './currency.ts';
export { allocate } from './allocate.ts';
export { calculate } from './calculator.ts';
