import { describe, expect, it } from 'vitest';
import { alike } from './alike.ts';
import { blank } from './pixels.ts';
import type { Gray, Rule } from './types.ts';

/** Letters drawn as rows of strokes, five wide, each stroke four pixels. */
const shapes = {
  A: ['  x  ', ' x x ', 'x   x', 'xxxxx', 'x   x', 'x   x'],
  B: ['xxxx ', 'x   x', 'xxxx ', 'x   x', 'x   x', 'xxxx '],
};
function draw(page: Gray, letter: keyof typeof shapes, x: number, y: number, grain: (i: number) => number = () => 0): Rule {
  shapes[letter].forEach((row, r) =>
    [...row].forEach((c, k) => {
      for (let i = 0; i < 16; i++) {
        const at = (y + r * 4 + (i >> 2)) * page.width + x + k * 4 + (i & 3);
        page.data[at] = (c === 'x' ? 40 : 247) + grain(at);
      }
    }),
  );
  return { x, y, w: 20, h: 24 };
}

describe('letters that stand below each other', () => {
  const page = blank(120, 200, 247);
  const first = draw(page, 'A', 20, 10),
    second = draw(page, 'A', 20, 50, (i) => (i * 7) % 9),
    other = draw(page, 'B', 20, 90),
    beside = draw(page, 'A', 70, 10);
  it('are alike where they are one letter, with another grain or cut a pixel off', () => {
    expect(alike(page, first, second)).toBe(true);
    expect(alike(page, first, { ...second, x: second.x + 1, y: second.y - 1 })).toBe(true);
  });
  it('are not where they are two letters, or stand in two columns', () => {
    expect([alike(page, first, other), alike(page, first, beside)]).toEqual([false, false]);
  });
  it('are not where one is larger', () => expect(alike(page, first, { ...second, w: 24 })).toBe(false));
  it('may stand at the edge of the page', () => {
    const corner = { x: 110, y: 190, w: 10, h: 10 };
    expect(alike(page, corner, { ...corner, y: 189 })).toBe(false);
  });
});
