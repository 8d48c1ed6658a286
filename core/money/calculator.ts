import { dec, type Decimal } from './decimal.ts';

/**
 * A figure as it is typed, with a point: the last of two kinds of separator is the decimal one ("1,234.50", "1.234,50"); what stands more
 * than once groups ("1.234.567"); a lone comma groups before three digits and is decimal otherwise ("1,234", "12,5"). Empty where it is none.
 */
function withPoint(figure: string): string {
  const [point, comma] = [figure.lastIndexOf('.'), figure.lastIndexOf(',')];
  const many = (of: string) => figure.split(of).length > 2;
  const decimal =
    point >= 0 && comma >= 0
      ? Math.max(point, comma)
      : comma >= 0
        ? many(',') || /,\d{3}$/.test(figure)
          ? -1
          : comma
        : many('.')
          ? -1
          : point;
  const whole = (decimal < 0 ? figure : figure.slice(0, decimal)).split(/[.,]/),
    rest = decimal < 0 ? '' : figure.slice(decimal + 1);
  // Groups are of two or three digits, the last one of three.
  if (whole.length > 1 && (!whole[0] || whole.slice(1, -1).some((g) => !/^\d{2,3}$/.test(g)) || whole.at(-1)!.length !== 3)) return '';
  return `${whole.join('')}${rest ? `.${rest}` : ''}`;
}

/**
 * What a person types into an amount field: "1,234.50", "1.234,50", "12*21.4", "(100+20)/3".
 * Returns null when it is not a sum; division by zero is null too.
 */
export function calculate(typed: string): Decimal | null {
  const text = typed
    .replace(/[\s\u00a0]/g, '')
    .replace(/×/g, '*')
    .replace(/÷/g, '/')
    .replace(/−/g, '-')
    .replace(/\d[\d.,]*/g, (figure) => withPoint(figure) || '?');
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
