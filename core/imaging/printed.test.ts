import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Word } from '../page/index.ts';
import { identity, project, rotation } from './geometry.ts';
import { withPrinted } from './printed.ts';

const word = (text: string, x: number, y: number, sure?: number): Word => ({
  text,
  x,
  y,
  w: 30,
  h: 8,
  size: 10,
  font: '',
  ...(sure === undefined ? {} : { sure }),
});

describe('a page of text with a picture on it', () => {
  it('keeps its text as it was printed, and has from the ink what stood in the picture', () => {
    const out = withPrinted(
      [word('lnvoice', 41, 50.5, 0.8), word('256.80', 400, 300, 0.95)],
      [word('Invoice', 40, 50), word('QGR-20611', 100, 50)],
      identity,
    );
    expect(out.map((w) => w.text)).toEqual(['Invoice', 'QGR-20611', '256.80']);
  });
  it('has its text where the cleaned page shows it', () => {
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), (degrees) => {
        const back = rotation(degrees, { x: 297, y: 421 }),
          [moved] = withPrinted([], [word('Invoice', 40, 50)], back),
          { x, y } = project(back, moved!);
        expect([x, y].map((v) => Math.round(v * 1000) / 1000)).toEqual([40, 50]);
      }),
    );
  });
});
