import { piecesOf } from './components.ts';
import { histogramOf, inkOf, otsu, shrink } from './pixels.ts';
import type { Gray } from './types.ts';

/** Places where letters stand: along and across the rows of text, in pixels. */
interface Dots {
  along: Float32Array;
  across: Float32Array;
  length: number;
  depth: number;
}

interface Feet {
  level: Dots;
  upright: Dots;
}

/**
 * The feet of all pieces of ink of a letter's size, once for rows that run level and once for rows that run upright. Lines, bands and
 * pictures are left out: their edges are straight too, but say nothing about the text.
 */
function feet(gray: Gray): Feet {
  const small = shrink(gray, Math.max(1, Math.floor(Math.max(gray.width, gray.height) / 1700)));
  const { width, height } = small,
    most = Math.max(width, height) / 40;
  const { pieces } = piecesOf(inkOf(small, Math.min(200, otsu(histogramOf(small.data)))), width, height);
  const letters = pieces.filter((p) => Math.max(p.w, p.h) >= 4 && p.w <= most && p.h <= most && p.w < p.h * 4 && p.h < p.w * 8);
  const dots = (along: number[], across: number[], length: number, depth: number): Dots => ({
    along: Float32Array.from(along, (v) => v - length / 2),
    across: Float32Array.from(across),
    length,
    depth,
  });
  const middle = (p: { x: number; w: number }) => p.x + p.w / 2;
  return {
    level: dots(
      letters.map(middle),
      letters.map((p) => p.y + p.h),
      width,
      height,
    ),
    // Turned clockwise by a quarter, what was on the right is at the foot.
    upright: dots(
      letters.map((p) => height - p.y - p.h / 2),
      letters.map((p) => p.x + p.w),
      height,
      width,
    ),
  };
}

/** How sharply the dots fall into rows when read at a slope: the sum of squares of their counts row by row. */
function sharpness({ along, across, length, depth }: Dots, degrees: number): number {
  const slope = Math.tan((degrees * Math.PI) / 180),
    pad = Math.ceil(length * Math.abs(slope)) + 2,
    bins = new Float64Array(Math.ceil(depth) + 2 * pad);
  for (let i = 0; i < along.length; i++) {
    // Shared between two rows, so that the measure changes smoothly with the angle.
    const at = across[i]! - slope * along[i]! + pad,
      low = Math.floor(at);
    bins[low]! += 1 - (at - low);
    bins[low + 1]! += at - low;
  }
  let sum = 0;
  for (const b of bins) sum += b * b;
  return sum;
}

const tooFew = 30;

/**
 * The angle in degrees by which a page's rows of text run down to the right (negative: up), within `most` either way, to about 0.05.
 * A page without text has none: 0.
 */
export const skewOf = (gray: Gray, most = 8): number => skewOfRows(feet(gray).level, most);

function skewOfRows(dots: Dots, most: number): number {
  if (dots.along.length < tooFew || most <= 0) return 0;
  let best = 0,
    score = sharpness(dots, 0);
  const scan = (from: number, to: number, step: number) => {
    for (let a = from; a <= to + 1e-9; a += step) {
      const s = sharpness(dots, a);
      if (s > score) {
        score = s;
        best = a;
      }
    }
  };
  scan(-most, most, 0.25);
  scan(best - 0.25, best + 0.25, 0.05);
  scan(best - 0.04, best + 0.04, 0.01);
  return Math.round(best * 100) / 100;
}

/** A page whose letters stand less clearly in level rows than this lies on its side. */
const lying = 0.8;

/** How clearly letters stand in level rows rather than upright ones: above 1 the page lies the right way or upside down, below 1 on its side. */
function levelness({ level, upright }: Feet): number {
  if (level.along.length < tooFew) return 1;
  const best = (d: Dots) => {
    let most = 0;
    for (let a = -6; a <= 6; a += 0.25) most = Math.max(most, sharpness(d, a));
    return most / d.along.length;
  };
  return best(level) / Math.max(1e-9, best(upright));
}

/** The skew of a page that does not lie on its side, as `skewOf` gives it; null where it does. */
export function skewUnlessLying(gray: Gray, most: number): number | null {
  const all = feet(gray);
  return levelness(all) < lying ? null : skewOfRows(all.level, most);
}
