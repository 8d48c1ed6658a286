import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ShownPage } from '../ui/page-view';
import { cleanedBox, lies, sizeOf, wordsIn } from './place';

const flat = { number: 1, width: 600, height: 800, words: [], image: 'pdf', source: null, scan: null } as unknown as ShownPage;
/** A page that lay turned by some degrees about its middle, and shifted. */
function askew(degrees: number, dx = 0, dy = 0): ShownPage {
  const a = (degrees * Math.PI) / 180,
    [c, s] = [Math.cos(a), Math.sin(a)],
    [mx, my] = [300, 400];
  const back = [c, -s, mx - c * mx + s * my + dx, s, c, my - s * mx - c * my + dy, 0, 0, 1];
  return { ...flat, scan: { width: 620, height: 830, back, skew: degrees, squared: false, language: 'eng' } } as unknown as ShownPage;
}
const near = (a: number, b: number) => expect(Math.abs(a - b)).toBeLessThan(0.01);

describe('where a box of the cleaned page lies', () => {
  it('is itself on a page that was not a picture, and on the cleaned page', () => {
    const box = { x: 10, y: 20, w: 30, h: 8 };
    expect(lies(flat, 'came', box)).toEqual({ ...box, turn: 0 });
    expect(lies(askew(5), 'cleaned', box)).toEqual({ ...box, turn: 0 });
    expect([sizeOf(askew(5), 'came').width, sizeOf(askew(5), 'cleaned').width]).toEqual([620, 600]);
  });
  it('is turned about its middle on a page that lay askew', () => {
    const { turn, w, h } = lies(askew(7), 'came', { x: 100, y: 100, w: 40, h: 10 });
    near(turn, 7);
    near(w, 40);
    near(h, 10);
  });
  it('keeps its size and follows the shift, however the page lay', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -20, max: 20 }),
        fc.integer({ min: -50, max: 50 }),
        fc.integer({ min: 0, max: 400 }),
        (degrees, shift, x) => {
          const box = { x, y: 50, w: 60, h: 12 };
          const still = lies(askew(degrees), 'came', box),
            moved = lies(askew(degrees, shift, 2 * shift), 'came', box);
          near(moved.w, box.w);
          near(moved.h, box.h);
          near(moved.x - still.x, shift);
          near(moved.y - still.y, 2 * shift);
        },
      ),
    ));
  it('a box drawn on the page as it came holds the words that lie under it on the cleaned page', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -15, max: 15 }),
        fc.integer({ min: 60, max: 400 }),
        fc.integer({ min: 60, max: 500 }),
        (degrees, x, y) => {
          const page = askew(degrees, 11, -7);
          const word = { x, y, w: 50, h: 10 };
          const at = lies(page, 'came', word);
          const middle = { x: at.x + at.w / 2, y: at.y + at.h / 2 };
          const drawn = cleanedBox(page, 'came', { x: middle.x - 20, y: middle.y - 20, w: 40, h: 40 });
          expect(drawn.x < x + 25 && x + 25 < drawn.x + drawn.w && drawn.y < y + 5 && y + 5 < drawn.y + drawn.h).toBe(true);
        },
      ),
    ));
});
describe('the words inside a box', () => {
  const word = (text: string, x: number, y: number) => ({ text, x, y, w: 20, h: 10, size: 10, bold: false });
  const page = {
    ...flat,
    words: [word('second', 60, 11), word('first', 10, 10), word('below', 10, 40), word('outside', 300, 10)],
  } as ShownPage;
  it('come in reading order, those alone whose middle lies inside', () => {
    expect(wordsIn(page, { x: 0, y: 0, w: 100, h: 60 })).toBe('first second below');
    expect(wordsIn(page, { x: 0, y: 0, w: 19, h: 30 })).toBe('');
    expect(wordsIn(page, { x: 295, y: 5, w: 40, h: 40 })).toBe('outside');
  });
});
