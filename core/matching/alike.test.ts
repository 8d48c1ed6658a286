import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { numberKey, numbersAlike } from './alike.ts';

describe('numbers that may be one', () => {
  it.each([
    ['MGM-20410', 'MGM 20410', 'written otherwise'],
    ['mgm-20410', 'MGM-20410', 'written otherwise'],
    ['MGM-20410', 'MGM-2O410', 'with a letter for a digit'],
    ['INV-20416', '20416', 'with another prefix'],
    ['0031904', '31904', 'with zeros before it'],
    ['MGM-20410', 'MGM-204100', 'with a zero more or less'],
    ['MGM-20410', 'MGM-2410', 'with a zero more or less'],
    ['20410', '20410', null],
    ['R-2026-01', 'R-2026-10', null],
    ['1001', '11', null],
    ['Q-1', 'Q-10', null],
    ['N-1', 'TWIN-1', null],
    ['20416', '20461', null],
    ['', '0', null],
  ])('%s and %s: %s', (a, b, how) => {
    expect(numbersAlike(a, b)).toBe(how);
    expect(numbersAlike(b, a)).toBe(how);
  });
  it('whatever they are: both ways the same, with one key, and none is another of itself', () => {
    const number = fc.stringMatching(/^[A-Z]{0,3}-?[0-9OIL ]{1,8}$/);
    fc.assert(
      fc.property(number, number, (a, b) => {
        expect(numbersAlike(a, b)).toBe(numbersAlike(b, a));
        if (numbersAlike(a, b)) expect(numberKey(a)).toBe(numberKey(b));
        expect(numbersAlike(a, a)).toBeNull();
      }),
    );
  });
  it('a zero put in anywhere among the digits is found', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1000, max: 99_999_999 }), fc.nat({ max: 7 }), (n, i) => {
        const text = String(n),
          at = Math.min(i, text.length);
        expect(numbersAlike(text, `${text.slice(0, at)}0${text.slice(at)}`)).not.toBeNull();
      }),
    );
  });
});
