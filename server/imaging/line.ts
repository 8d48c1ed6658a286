import { resized, type Gray, type SeenWord } from '@ledgerline/core/imaging';
import type { Language } from '@ledgerline/core/page';
import type { Ocr } from './ocr.ts';

/** How sure the recogniser is of words on the whole, by their letters. */
export const mean = (seen: SeenWord[]): number =>
  seen.reduce((t, w) => t + w.confidence * w.text.length, 0) / (seen.reduce((t, w) => t + w.text.length, 0) || 1);

const spread = (seen: SeenWord[]): number =>
  seen.length === 0 ? 0 : Math.max(...seen.map((w) => w.x1)) - Math.min(...seen.map((w) => w.x0));

/** Ink no wider than it is tall that was read as one broad letter: nothing can be left out, though the recogniser draws its box too narrow. */
const oneLetter = (seen: SeenWord[], ink: Ink): boolean =>
  seen.length === 1 && ink.wide < ink.tall * 1.1 && /^[A-HJ-Z02-9a-eghkm-su-z@&%€£$?+]$/.test(seen[0]!.text);

/** Size in pixels of the ink that is read, without the margin round it. */
export interface Ink {
  wide: number;
  tall: number;
}

/** What a reading of ink is worth: one that leaves out a good part of it is hardly right, however sure. */
export const worth = (seen: SeenWord[], ink: Ink): number =>
  (spread(seen) < ink.wide * 0.75 && !oneLetter(seen, ink) ? 0.5 : 1) * mean(seen);

/** What is read with more worth than this needs no second try. */
export const plain = 0.85;

/**
 * Reads one line of text. Now and then a line that is plain to see makes no sense to the recogniser at one size, and does at another,
 * or in the model of another language: what is worth most is taken. A single stroke is a one, an l or a bar in every model, so it gets
 * fewer tries.
 */
export async function readLine(ocr: Ocr, gray: Gray, language: Language, dpi: number, ink: Ink): Promise<SeenWord[]> {
  let best: SeenWord[] = [];
  const tries: SeenWord[][] = [];
  const stroke = ink.wide < ink.tall * 0.3;
  for (const model of stroke ? [language] : new Set([language, 'eng' as const]))
    for (const by of stroke ? [0.65, 1] : [0.65, 1, 1.4]) {
      const drawn = by === 1 ? gray : resized(gray, by);
      const read = (await ocr.read(drawn, { language: model, dpi: Math.round(dpi * by), mode: 'line' })).map((w) => grown(w, 1 / by)),
        words = agreeing(read, tries);
      tries.push(read);
      if (worth(words, ink) > worth(best, ink)) best = words;
      if (worth(best, ink) >= plain) return best;
    }
  return best;
}

/** No agreement of unsure readings makes a word surer than this: one mistake may be made twice. */
const agreed = 0.8;

/** Words that another try has read alike are surer than each try by itself. */
function agreeing(words: SeenWord[], tries: SeenWord[][]): SeenWord[] {
  const other = tries.find((t) => t.length === words.length && t.every((w, i) => w.text === words[i]!.text));
  if (!other) return words;
  return words.map((w, i) => ({
    ...w,
    confidence: Math.max(w.confidence, Math.min(agreed, 1 - (1 - w.confidence) * (1 - other[i]!.confidence))),
  }));
}

const grown = (w: SeenWord, by: number): SeenWord => ({
  ...w,
  x0: Math.round(w.x0 * by),
  x1: Math.round(w.x1 * by),
  y0: Math.round(w.y0 * by),
  y1: Math.round(w.y1 * by),
  base: w.base * by,
});
