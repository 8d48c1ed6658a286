import { dec, type Decimal } from './decimal.ts';

/**
 * What a person types into an amount field: "1,234.50", "12*21.4", "(100+20)/3".
 * Thousands commas are dropped. Returns null when it is not a sum; division by zero is null too.
 */
export function calculate(typed: string): Decimal | null {
  const text = typed
    .replace(/[\s\u00a0]/g, '')
    .replace(/×/g, '*')
    .replace(/÷/g, '/')
    .replace(/−/g, '-')
    .replace(/,(?=\d{3}(?!\d))/g, '');
  if (!text || text.length > 60 || !/^[\d.+\-*/()]+$/.test(text)) return null;
  let at = 0;
  const expression = (): Decimal => {
    let value = term();
    while (text[at] === '+' || text[at] === '-') value = text[at++] === '+' ? value.plus(term()) : value.minus(term());
    return value;
  };
  const term = (): Decimal => {
    let value = factor();
    while (text[at] === '*' || text[at] === '/') value = text[at++] === '*' ? value.times(factor()) : value.div(factor());
    return value;
  };
  const factor = (): Decimal => {
    if (text[at] === '-') {
      at++;
      return factor().negated();
    }
    if (text[at] === '(') {
      at++;
      const value = expression();
      if (text[at++] !== ')') throw new RangeError('bracket');
      return value;
    }
    const number = /^\d*\.?\d+|^\d+\.?/.exec(text.slice(at));
    if (!number) throw new RangeError('number');
    at += number[0].length;
    return dec(number[0].replace(/\.$/, ''));
  };
  try {
    const value = expression();
    return at === text.length && value.isFinite() ? value : null;
  } catch {
    return null;
  }
}
