import fc from 'fast-check';
import { expect, it } from 'vitest';
import { beingNamed, fitting, namedIn } from './named';

const people = [
  { id: '1', name: 'Marguerite Sable' },
  { id: '2', name: 'Tobias Fenn' },
];
it('a name is begun by @ at the beginning of a word', () => {
  expect(beingNamed('Is it @mar', 10)).toEqual({ at: 6, letters: 'mar' });
  expect(beingNamed('@', 1)).toEqual({ at: 0, letters: '' });
  expect(beingNamed('ines@mar', 8)).toBeNull();
  expect(beingNamed('@Tobias Fenn, is', 16)).toBeNull();
});
it('is looked for by any of its words', () => {
  expect(fitting(people, 'sab').map((p) => p.id)).toEqual(['1']);
  expect(fitting(people, 'abl')).toEqual([]);
  expect(fitting(people, '')).toHaveLength(2);
});
it('counts once it is whole', () => expect(namedIn('@Tobias Fenn and @Marg', people).map((p) => p.id)).toEqual(['2']));
it('whatever is typed, a begun name is what stands between @ and cursor', () =>
  fc.assert(
    fc.property(fc.string({ unit: fc.constantFrom('@', 'a', ' ', '\n', '.') }), fc.nat(30), (text, cursor) => {
      const found = beingNamed(text, cursor);
      if (found) expect(text.slice(found.at, Math.min(cursor, text.length))).toBe(`@${found.letters}`);
    }),
  ));
