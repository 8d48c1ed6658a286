import { expect, it } from 'vitest';
import { price } from './format';

it.each([
  ['0.0042', 'GBP', '0.0042'],
  ['4.5', 'GBP', '4.50'],
  ['4.5000', 'GBP', '4.50'],
  ['1234.567', 'EUR', '1,234.567'],
  ['12.5', 'JPY', '12.5'],
  ['12', 'JPY', '12'],
])('the price of one, %s %s, keeps its decimals: %s', (amount, currency, shown) => expect(price(amount, currency)).toBe(shown));
