import { foursOf } from './pixels.ts';
import type { SeenWord } from './seen.ts';
import type { Gray } from './types.ts';

/** A page without its margins and without the paper between its blocks, and where each row of it was. */
export interface Dense {
  gray: Gray;
  /** Columns that were left out on the left. */
  left: number;
  /** The row of the page that each row was. */
  rows: Int32Array;
}

/** Four pixels of paper have all their highest bits set: none is darker than 192, which no recogniser takes for ink. */
const paper = 0xc0c0c0c0 | 0;

/**
 * Leaves margins out, and of the rows without ink all but `keep` between two blocks, so that a recogniser has less to look over. What it
 * finds is the same: blocks stay farther apart than lines of one text, and columns are where they were.
 */
export function withoutGaps(page: Gray, keep: number): Dense {
  const { width, height, data } = page,
    fours = foursOf(data),
    inked = new Uint8Array(height);
  let left = width,
    right = 0;
  for (let y = 0; y < height; y++) {
    const end = (y + 1) * width;
    for (let i = y * width; i < end; i++) {
      if ((i & 3) === 0 && i + 4 <= end && (fours[i >> 2]! & paper) === paper) {
        i += 3;
        continue;
      }
      if (data[i]! >= 192) continue;
      inked[y] = 1;
      const x = i - y * width;
      if (x < left) left = x;
      if (x > right) right = x;
    }
  }
  if (right < left) return { gray: page, left: 0, rows: Int32Array.from({ length: height }, (_, y) => y) };
  left = Math.max(0, left - keep);
  right = Math.min(width, right + 1 + keep);
  const half = keep >> 1,
    rows: number[] = [];
  // A row stays that has ink, or ink within half of `keep` above it or below.
  for (let y = 0, before = -Infinity, next = -1; y < height; y++) {
    if (inked[y]) before = y;
    if (next < y) {
      next = y;
      while (next < height && !inked[next]) next++;
    }
    if (y - before <= half || (next < height && next - y <= half)) rows.push(y);
  }
  const out = new Uint8Array((right - left) * rows.length);
  rows.forEach((y, k) => out.set(data.subarray(y * width + left, y * width + right), k * (right - left)));
  return { gray: { width: right - left, height: rows.length, data: out }, left, rows: Int32Array.from(rows) };
}

/** Words that were seen on a page without gaps, where they stand on the page itself. */
export function placed(words: SeenWord[], { left, rows }: Dense): SeenWord[] {
  const last = rows.length - 1,
    row = (y: number) => rows[Math.min(last, Math.max(0, Math.floor(y)))]! + (y - Math.floor(y));
  // What ends at a row ends behind the one before it, which may stand elsewhere.
  return words.map((w) => ({
    ...w,
    x0: w.x0 + left,
    x1: w.x1 + left,
    y0: row(w.y0),
    y1: row(w.y1 - 1) + 1,
    base: row(w.base - 1) + 1,
  }));
}
