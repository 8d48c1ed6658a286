import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placed, withoutGaps } from './gaps.ts';
import { blank } from './pixels.ts';
import type { SeenWord } from './seen.ts';
import type { Gray } from './types.ts';

const fill = (gray: Gray, x0: number, y0: number, x1: number, y1: number) => {
  for (let y = y0; y < y1; y++) gray.data.fill(30, y * gray.width + x0, y * gray.width + x1);
};
const word = (x0: number, y0: number, x1: number, y1: number): SeenWord => ({
  text: 'a',
  confidence: 1,
  x0,
  y0,
  x1,
  y1,
  base: y1,
  line: 0,
});

describe('a page without gaps', () => {
  it('keeps all ink, and every word leads back to where it stands', () => {
    const box = fc.record({
      x: fc.integer({ min: 0, max: 180 }),
      y: fc.integer({ min: 0, max: 380 }),
      w: fc.integer({ min: 1, max: 19 }),
      h: fc.integer({ min: 1, max: 19 }),
    });
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 8 }), fc.integer({ min: 2, max: 30 }), (boxes, keep) => {
        const page = blank(200, 400, 240);
        for (const { x, y, w, h } of boxes) fill(page, x, y, x + w, y + h);
        const dense = withoutGaps(page, keep),
          dark = (g: Gray) => g.data.reduce((n, v) => n + (v < 128 ? 1 : 0), 0);
        expect(dark(dense.gray)).toBe(dark(page));
        for (const { x, y, w, h } of boxes) {
          const top = dense.rows.indexOf(y),
            foot = dense.rows.indexOf(y + h - 1) + 1;
          const [back] = placed([word(x - dense.left, top, x + w - dense.left, foot)], dense);
          expect([back!.x0, back!.y0, back!.x1, back!.y1, back!.base]).toEqual([x, y, x + w, y + h, y + h]);
        }
      }),
    );
  });
  it('is as small as its text, with blocks apart', () => {
    const page = blank(400, 600, 240);
    fill(page, 100, 100, 300, 110);
    fill(page, 100, 500, 300, 510);
    const { gray, left, rows } = withoutGaps(page, 40);
    expect([gray.width, gray.height, left, rows[0]]).toEqual([280, 20 + 4 * 20, 60, 80]);
    // Between the two blocks twenty rows stay below the one and twenty above the other.
    expect([rows[49], rows[50]]).toEqual([129, 480]);
  });
  it('lines of one text stay as far apart as they are', () => {
    const page = blank(400, 600, 240);
    for (let y = 100; y < 300; y += 30) fill(page, 100, y, 300, y + 12);
    const { gray } = withoutGaps(page, 40);
    expect(gray.height).toBe(12 + 6 * 30 + 40);
  });
  it('without ink is left as it is', () => {
    const page = blank(40, 60, 240);
    expect(withoutGaps(page, 10).gray).toBe(page);
  });
});
