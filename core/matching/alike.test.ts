import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { numberKey, numberUnlike, numbersAlike } from './alike.ts';

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

describe('a number unlike a supplier’s others', () => {
  const usual = ['INV-998', 'INV-999', 'INV-1000', 'INV-1001', 'INV-1002', 'INV-1003'];
  it.each([
    ['INV-1004', false],
    ['inv 1004', false],
    ['inv-1004', false],
    ['INV-10040', false],
    ['INV-100401', true],
    ['884213', true],
    ['INV/26/11', false],
    ['C-1004', true],
  ])('%s: %s', (number, unlike) => expect(numberUnlike(number, usual)).toBe(unlike));
  it('is said only where the others are many and alike', () => {
    expect(numberUnlike('884213', usual.slice(1))).toBe(false);
    expect(numberUnlike('884213', [...usual, 'X/1', 'Y.2'])).toBe(false);
  });
  it('is none of its own, whatever it looks like', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ minLength: 1 }), { maxLength: 12 }), (all) =>
        all.every((n) => !numberUnlike(n, all) || all.length >= 6),
      ),
    );
    fc.assert(
      fc.property(fc.nat(99_999), (n) => {
        const run = Array.from({ length: 8 }, (_, i) => `R-${n + i}`);
        expect(numberUnlike(`R-${n + 8}`, run)).toBe(false);
      }),
    );
  });
});
