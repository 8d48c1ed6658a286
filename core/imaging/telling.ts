import { piecesOf } from './components.ts';
import { histogramOf, inkOf, otsu, shrink } from './pixels.ts';
import type { Gray, Rule } from './types.ts';

/** No more of a line is looked at than this, in inches: three or four words, or the country of an account number. */
const enough = 1.5;

/** Resolution at which lines of text are told, in dots per inch: a letter is a few pixels. */
const coarse = 75;

/**
 * Lines that are likely to tell a page's language, as boxes in pixels: the longest, which are sentences and account numbers, and the
 * tallest, which are names and titles, in turns. Ink that follows closely in a row is smeared into one line (run-length smoothing; Wong,
 * Casey and Wahl, Document Analysis System, 1982). The page lies straight.
 */
export function tellingLines(gray: Gray, dpi: number, most: number): Rule[] {
  const factor = Math.max(1, Math.round(dpi / coarse)),
    thin = shrink(gray, factor),
    { width, height } = thin;
  // Thin strokes are pale once they are shrunk.
  const ink = inkOf(thin, Math.min(225, (otsu(histogramOf(thin.data)) + 255) >> 1)),
    reach = Math.round((dpi / factor) * 0.08);
  for (let y = 0; y < height; y++) {
    let last = -Infinity;
    for (let x = 0, i = y * width; x < width; x++, i++) {
      if (!ink[i]) continue;
      if (x - last <= reach) ink.fill(1, i - (x - last), i);
      last = x;
    }
  }
  const inch = dpi / factor;
  const lines = piecesOf(ink, width, height).pieces.filter(
    (p) => p.h >= inch * 0.07 && p.h <= inch * 0.45 && p.w >= inch * 0.7 && p.w > p.h * 3 && p.area > p.w * p.h * 0.4,
  );
  const longest = lines.filter((p) => p.h <= inch * 0.25).sort((a, b) => b.w - a.w),
    tallest = [...lines].sort((a, b) => b.h - a.h);
  const turns = longest.flatMap((p, i) => [p, ...tallest.slice(i, i + 1)]);
  return [...new Set(turns)]
    .slice(0, most)
    .map(({ x, y, w, h }) => ({ x: x * factor, y: y * factor, w: Math.min(w * factor, Math.round(dpi * enough)), h: h * factor }));
}
