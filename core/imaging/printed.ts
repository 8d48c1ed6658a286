import type { Word } from '../page/index.ts';
import { invert, project } from './geometry.ts';
import type { Matrix } from './types.ts';

/**
 * Words of a page that was read as a picture, though a part of it was text: what is text stays as it was printed, letter by letter, and
 * only what stood in pictures is taken from the ink. `back` leads from the cleaned page, where the words were seen, to the page as it came.
 */
export function withPrinted(seen: Word[], printed: Word[], back: Matrix): Word[] {
  const there = invert(back),
    moved = printed.map((w) => ({ ...w, ...project(there, w) }));
  const covered = (w: Word) => moved.some((p) => overlap(w, p) > 0.3 * Math.min(w.w * w.h, p.w * p.h));
  return [...moved, ...seen.filter((w) => !covered(w))];
}

const overlap = (a: Word, b: Word): number =>
  Math.max(0, Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)) * Math.max(0, Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y));
