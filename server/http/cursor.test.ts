import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeCursor, nextOf } from './cursor.ts';

const id = '01900000-0000-7000-8000-000000000001';
const cursorOf = (key: string) => nextOf([key], 1, (last) => [last, id])!;
describe('a place in a list', () => {
  it('comes back as it was given, whatever the text', () =>
    fc.assert(
      fc.property(fc.string(), (key) => {
        expect(decodeCursor(cursorOf(key), 'text')).toEqual([key, id]);
      }),
    ));
  it.each([
    ['moment', '2026-11-23T10:00:00.000Z', true],
    ['moment', '2026-11-23 10:00:00.123456+00', true],
    ['moment', '2026-02-30T10:00:00Z', false],
    ['moment', 'now()', false],
    ['day', '2026-02-28', true],
    ['day', '2026-02-30', false],
    ['number', '-12.50', true],
    ['number', '1e9', false],
    ['whole', '2026000000001', true],
    ['whole', '-1', false],
    ['text', 'a\0b', false],
  ] as const)('as %s: %s', (kind, key, good) => {
    const decode = () => decodeCursor(cursorOf(key), kind);
    if (good) expect(decode()).toEqual([key, id]);
    else expect(decode).toThrow('This place in the list is not known any more.');
  });
  it('is refused in words, whatever is made up', () =>
    fc.assert(
      fc.property(fc.string({ minLength: 1 }), fc.constantFrom('text' as const, 'day' as const, 'moment' as const), (made, kind) => {
        try {
          decodeCursor(made, kind);
        } catch (error) {
          expect(error).toMatchObject({ status: 400 });
        }
      }),
    ));
  it('is the last row of a full page; a page that is not full is the end', () => {
    expect(
      decodeCursor(
        nextOf(['a', 'b'], 2, (last) => [last, id])!,
        'text',
      ),
    ).toEqual(['b', id]);
    expect([nextOf(['a'], 2, (last) => [last, id]), nextOf([], 2, (last) => [last, id])]).toEqual([null, null]);
  });
  it('is none where there is none', () => expect([decodeCursor(undefined, 'day'), decodeCursor('', 'day')]).toEqual([null, null]));
});
