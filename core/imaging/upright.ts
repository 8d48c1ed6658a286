import { histogramOf, inkOf, otsu } from './pixels.ts';
import type { Gray } from './types.ts';

/**
 * Ink above the bodies of letters against ink below them, over all rows of text of a straight page. Latin text has more parts that rise
 * (capitals, b d f h k l t, digits beside small letters) than parts that hang (g p q y): above 1 the page is upright, below 1 upside down.
 */
export function rising(gray: Gray): number {
  const { width, height } = gray,
    ink = inkOf(gray, Math.min(190, otsu(histogramOf(gray.data)))),
    profile = new Float64Array(height),
    strips = 6;
  let above = 1,
    below = 1;
  // In strips, so that columns whose rows do not line up are not mixed.
  for (let s = 0; s < strips; s++) {
    const from = Math.floor((width * s) / strips),
      to = Math.floor((width * (s + 1)) / strips);
    for (let y = 0; y < height; y++) {
      let sum = 0;
      for (let i = y * width + from; i < y * width + to; i++) sum += ink[i]!;
      profile[y] = sum;
    }
    for (let y = 0; y < height;) {
      if (profile[y]! < 1) {
        y++;
        continue;
      }
      const top = y;
      let most = 0;
      while (y < height && profile[y]! >= 1) most = Math.max(most, profile[y++]!);
      const tall = y - top;
      if (tall < 6 || tall > height / 20 || most > (to - from) * 0.7) continue;
      let a = top,
        b = y - 1;
      while (profile[a]! < most * 0.5) a++;
      while (profile[b]! < most * 0.5) b--;
      for (let k = top; k < a; k++) above += profile[k]!;
      for (let k = b + 1; k < y; k++) below += profile[k]!;
    }
  }
  return above / below;
}

/** Whether a straight page stands on its head, and whether that could be told for sure. */
export function uprightness(straight: Gray): { down: boolean; sure: boolean } {
  const ratio = rising(straight);
  return { down: ratio < 0.8, sure: ratio > 1.3 || ratio < 0.7 };
}
