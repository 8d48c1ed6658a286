import { resized, type Gray, type SeenWord } from '@ledgerline/core/imaging';
import type { Language } from '@ledgerline/core/page';
import type { Ocr } from './ocr.ts';

/** How sure the recogniser is of words on the whole, by their letters. */
export const mean = (seen: SeenWord[]): number =>
  seen.reduce((t, w) => t + w.confidence * w.text.length, 0) / (seen.reduce((t, w) => t + w.text.length, 0) || 1);

const spread = (seen: SeenWord[]): number =>
  seen.length === 0 ? 0 : Math.max(...seen.map((w) => w.x1)) - Math.min(...seen.map((w) => w.x0));

/** What a reading is worth where ink is so many pixels wide: one that leaves out a good part of it is hardly right, however sure. */
export const worth = (seen: SeenWord[], wide: number): number => (spread(seen) < wide * 0.75 ? 0.5 : 1) * mean(seen);

/** What is read with more worth than this needs no second try. */
export const plain = 0.85;

/**
 * Reads one line of text. Now and then a line that is plain to see makes no sense to the recogniser at one size, and does at another,
 * or in the model of another language: what is worth most is taken. `wide` is how wide the line's ink is, in pixels.
 */
export async function readLine(ocr: Ocr, gray: Gray, language: Language, dpi: number, wide: number): Promise<SeenWord[]> {
  let best: SeenWord[] = [];
  for (const model of new Set([language, 'eng' as const]))
    for (const by of [0.65, 1, 1.4]) {
      const drawn = by === 1 ? gray : resized(gray, by);
      const words = (await ocr.read(drawn, { language: model, dpi: Math.round(dpi * by), mode: 'line' })).map((w) => grown(w, 1 / by));
      if (worth(words, wide) > worth(best, wide)) best = words;
      if (worth(best, wide) >= plain) return best;
    }
  return best;
}

const grown = (w: SeenWord, by: number): SeenWord => ({
  ...w,
  x0: Math.round(w.x0 * by),
  x1: Math.round(w.x1 * by),
  y0: Math.round(w.y0 * by),
  y1: Math.round(w.y1 * by),
  base: w.base * by,
});
