import { piecesOf, type Piece } from './components.ts';
import { histogramOf, inkOf, otsu } from './pixels.ts';
import type { SeenWord } from './seen.ts';
import type { Gray, Rule } from './types.ts';

/** All pieces of ink on a cleaned page. */
export const inkPieces = (gray: Gray): Piece[] =>
  piecesOf(inkOf(gray, Math.min(190, otsu(histogramOf(gray.data)))), gray.width, gray.height).pieces;

/**
 * Spots of ink of a letter's size that no word covers: what a recogniser passed over, mostly single digits that stand alone in their
 * column. Boxes in pixels, letters that belong together in one. `dpi` is the resolution of the cleaned page.
 */
export function uncoveredInk({ width, height }: Gray, pieces: Piece[], words: SeenWord[], dpi: number): Rule[] {
  const tall = usualHeight(words) ?? dpi * 0.1;
  const covered = new Uint8Array(Math.ceil(width / 4) * Math.ceil(height / 4)),
    across = Math.ceil(width / 4);
  // A box far taller than text is a line that was taken for a letter; it covers nothing.
  for (const w of words.filter((w) => w.y1 - w.y0 < tall * 4))
    for (let y = Math.max(0, w.y0 >> 2); y <= Math.min(Math.ceil(height / 4) - 1, w.y1 >> 2); y++)
      covered.fill(1, y * across + Math.max(0, w.x0 >> 2), y * across + Math.min(across - 1, w.x1 >> 2) + 1);
  const left = pieces.filter(
    (p) =>
      p.h >= tall * 0.6 &&
      p.h <= tall * 2.2 &&
      p.w <= tall * 3 &&
      p.w >= tall * 0.08 &&
      p.area > p.w * p.h * 0.08 &&
      p.area < Math.max(p.w * p.h * 0.9, p.w < tall * 0.35 ? Infinity : 0) &&
      !covered[((p.y + p.h / 2) >> 2) * across + ((p.x + p.w / 2) >> 2)],
  );
  const spots: Rule[] = [];
  for (const p of left.sort((a, b) => a.x - b.x)) {
    const near = spots.find(
      (s) => p.x - (s.x + s.w) < tall * 0.8 && Math.min(s.y + s.h, p.y + p.h) - Math.max(s.y, p.y) > Math.min(s.h, p.h) * 0.5,
    );
    if (!near) {
      spots.push({ x: p.x, y: p.y, w: p.w, h: p.h });
      continue;
    }
    const right = Math.max(near.x + near.w, p.x + p.w),
      foot = Math.max(near.y + near.h, p.y + p.h);
    near.y = Math.min(near.y, p.y);
    near.w = right - near.x;
    near.h = foot - near.y;
  }
  return spots;
}

/** The middle height of digits and capitals above their baseline, in pixels. */
function usualHeight(words: SeenWord[]): number | null {
  const heights = words
    .filter((w) => w.confidence > 0.6 && /[A-Z0-9]/.test(w.text))
    .map((w) => w.base - w.y0)
    .sort((a, b) => a - b);
  return heights.length < 5 ? null : heights[heights.length >> 1]!;
}
