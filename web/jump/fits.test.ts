import fc from 'fast-check';
import { expect, it } from 'vitest';
import { fits, fitting } from './fits';

it('what begins with the letters comes before what has them in it', () => {
  expect(fitting(['Set aside', 'Settings', 'Bills', 'Undo the set'], 'set', (x) => x)).toEqual(['Set aside', 'Settings', 'Undo the set']);
  expect([fits('Add a row', 'row'), fits('Arrow', 'row'), fits('Bills', 'row')]).toEqual([1, 2, null]);
});
it('no letters fit everything; every piece of a text fits it', () => {
  fc.assert(
    fc.property(fc.string({ minLength: 1, maxLength: 20 }), fc.nat(20), fc.nat(20), (text, from, length) => {
      expect(fits(text, '')).toBe(0);
      const piece = text.slice(from % text.length, (from % text.length) + length).trim();
      // Some letters are other ones in lower case only within their word.
      if (text.toLowerCase().includes(piece.toLowerCase())) expect(fits(text, piece)).not.toBeNull();
    }),
  );
});
