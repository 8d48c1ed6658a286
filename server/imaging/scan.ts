import {
  alike,
  crop,
  tellingLines,
  inkPieces,
  placed,
  prepare,
  sensible,
  spotOf,
  tornApart,
  turned,
  uncoveredInk,
  withoutGaps,
  usualCleanUp,
  wordsOfSeen,
  type CleanUp,
  type Gray,
  type Prepared,
  type Rule,
  type SeenWord,
} from '@ledgerline/core/imaging';
import { languageOf, likelyLanguage, type Language, type Page } from '@ledgerline/core/page';
import { fileType } from '../reading/filetype.ts';
import { decodePage, type Sheet } from './decode.ts';
import { mean, plain, readLine, worth } from './line.ts';
import { Ocr, type Mode } from './ocr.ts';
import { rasterPage } from './raster.ts';
import type { Look } from './result.ts';
import { isSeparator } from './separator.ts';

/** A page of a file as pixels. Throws UnreadablePicture or UnreadablePdf. */
export const sheetOf = (bytes: Uint8Array, page: number): Promise<Sheet> =>
  fileType(bytes) === 'pdf' ? rasterPage(bytes, page) : decodePage(bytes, page);

/** A page made ready for reading: upright as it was found to lie, or as a person turned it. */
export function prepareSheet(sheet: Sheet, turn: number | null, settings: CleanUp = usualCleanUp): Prepared {
  if (turn === null) return prepare(sheet.picture, sheet.points, settings);
  const lying = turn % 180 !== 0,
    { width, height } = sheet.points;
  const points = lying ? { width: height, height: width } : sheet.points;
  return { ...prepare(turned(sheet.picture, turn), points, { ...settings, upright: false }), turn };
}

export type ScannedSheet = Omit<Page, 'number'> & { turn: number };

/**
 * Reads a page from pixels: cleaned, recognised, single characters that stood alone looked for again, in the language of the page.
 * `likely` is the language of the pages beside it, where that is known.
 */
export async function scanSheet(
  ocr: Ocr,
  sheet: Sheet,
  turn: number | null,
  likely: Language | null,
  tell: (doing: string) => void,
): Promise<ScannedSheet> {
  tell('straightening');
  let ready = prepareSheet(sheet, turn);
  tell('recognising');
  let found = await recognise(ocr, ready.gray, ready.dpi, likely);
  if (turn === null && !ready.upright && mean(found.seen) < 0.6) {
    // Upside down could not be told from the look of the page; the better reading tells.
    const other = prepareSheet(sheet, (ready.turn + 180) % 360),
      again = await recognise(ocr, other.gray, other.dpi, likely);
    if (mean(again.seen) > mean(found.seen)) [ready, found] = [other, again];
  }
  const { seen, language } = found;
  // A separator sheet has a few words beside its code, so other pages need not be searched for one.
  const separator = seen.length < mostOnSeparator && (await isSeparator(sheet.picture));
  return {
    width: ready.width,
    height: ready.height,
    turn: ready.turn,
    words: separator ? [] : wordsOfSeen(seen, ready.dpi),
    scan: { ...ready.came, back: ready.back, skew: ready.skew, squared: ready.squared, language, ...(separator ? { separator } : {}) },
  };
}

/** The language that a few lines make likely; English where they tell none. A guess: the whole page makes it good. */
async function guessed(ocr: Ocr, gray: Gray, dpi: number): Promise<Language> {
  const words: string[] = [];
  for (const box of tellingLines(gray, dpi, mostProbed)) {
    const seen = await ocr.read(crop(gray, box, Math.round(dpi / 40)).gray, { dpi, mode: 'line' });
    words.push(...seen.map((w) => w.text));
    const language = likelyLanguage(words);
    if (language) return language;
  }
  return 'eng';
}

/** The language that the sure words of a page tell. */
const told = (seen: SeenWord[]): Language | null => languageOf(seen.filter((w) => w.confidence > 0.6).map((w) => w.text));

/**
 * Words of a cleaned page: all text in sparse mode, in the language of the pages beside it or in what a few lines tell, once more if the
 * whole page tells another; then each spot of ink that was passed over as a line of its own; last, lines that were torn apart as one.
 */
export async function recognise(
  ocr: Ocr,
  page: Gray,
  dpi: number,
  likely: Language | null,
): Promise<{ seen: SeenWord[]; language: Language }> {
  const dense = withoutGaps(page, Math.round(dpi * gap)),
    { gray } = dense;
  let pieces: ReturnType<typeof inkPieces> = [];
  const look = () => void (pieces = inkPieces(gray));
  const whole = async (language: Language, meanwhile?: () => void) => sensible(await ocr.read(gray, { language, dpi }, meanwhile), dpi);
  let language = likely ?? (await guessed(ocr, gray, dpi)),
    seen = await whole(language, look);
  const other = told(seen) ?? language;
  if (other !== language) seen = await whole((language = other));
  let lines = seen.length ? Math.max(...seen.map((w) => w.line)) + 1 : 0;
  const line = async (box: Rule, pad: number): Promise<SeenWord[]> => {
    const part = crop(gray, box, pad),
      number = lines++;
    return (await readLine(ocr, part.gray, language, dpi, { wide: box.w, tall: box.h })).map((w) => ({
      ...w,
      x0: w.x0 + part.x,
      x1: w.x1 + part.x,
      y0: w.y0 + part.y,
      y1: w.y1 + part.y,
      base: w.base + part.y,
      line: number,
    }));
  };
  // The same letter on every row, a tax code, is read once or twice. Digits are each read by themselves.
  const letters: { spot: Rule; word: SeenWord; tries: number }[] = [];
  for (const spot of uncoveredInk(gray, pieces, seen, dpi).slice(0, mostSpots)) {
    const known = letters.find((l) => alike(gray, l.spot, spot));
    if (known && (known.word.confidence > 0.8 || known.tries > 1)) {
      seen.push(filling(spot, { ...known.word, line: lines++ }));
      continue;
    }
    const words = besides(seen, await line(spot, Math.round(spot.h / 2))),
      [word] = words;
    if (words.length === 1) seen.push(filling(spot, word!));
    else seen.push(...words);
    if (words.length !== 1 || !/^\p{L}$/u.test(word!.text)) continue;
    if (!known) letters.push({ spot, word: word!, tries: 1 });
    else {
      known.tries++;
      if (word!.confidence > known.word.confidence) known.word = word!;
    }
  }
  for (const { box, lines: old } of tornApart(seen).slice(0, mostSpots)) {
    const before = seen.filter((w) => old.has(w.line)),
      rest = seen.filter((w) => !old.has(w.line));
    const better = besides(rest, sensible(await line(box, Math.round(box.h * 0.3)), dpi));
    if (better.length > 0 && mean(better) > mean(before) - 0.15) seen = [...rest, ...better];
  }
  return { seen: placed(seen, dense), language };
}

/** So much paper is left between blocks and as a margin, in inches. */
const gap = 0.16;

/** A word that fills its spot, whose place is known better than the recogniser tells it. */
const filling = ({ x, y, w, h }: Rule, word: SeenWord): SeenWord => ({ ...word, x0: x, y0: y, x1: x + w, y1: y + h, base: y + h });

/** Words that stand where none has been seen yet: the margin round a spot shows a part of its neighbours. */
const besides = (seen: SeenWord[], words: SeenWord[]): SeenWord[] => words.filter((w) => !seen.some((o) => sameSpot(o, w)));

function sameSpot(a: SeenWord, b: SeenWord): boolean {
  const across = Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0),
    down = Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0);
  // The recogniser draws a box too narrow now and then.
  const wide = a.text === b.text ? Math.min(a.x1 - a.x0, b.x1 - b.x0) : b.x1 - b.x0;
  return across > 0.6 * wide && down > 0.5 * Math.min(a.y1 - a.y0, b.y1 - b.y0);
}

/** Lines that are read to guess a page's language. */
const mostProbed = 8;

const mostOnSeparator = 60;

/** A page with more torn lines or passed-over spots than this is dirt. */
const mostSpots = 150;

/**
 * Reads one spot of a page again, drawn anew from the picture at a higher resolution, at others too where the recogniser makes little of it.
 * Words come with boxes on the page it was asked for.
 */
export async function readSpot(ocr: Ocr, sheet: Sheet, look: Look): Promise<ScannedSheet['words']> {
  const picture = turned(sheet.picture, look.turn),
    lying = look.turn % 180 !== 0,
    { box } = look;
  const points = lying ? { width: sheet.points.height, height: sheet.points.width } : sheet.points;
  // The recogniser is surest of digits in a row of about 22 pixels; letters and the digits they are like are told apart at twice that.
  const usual = Math.min(600, look.digits ? (22 * 72) / Math.max(4, box.h) : Math.max(300, (45 * 72) / Math.max(4, box.h)));
  const mode: Mode = box.h > 30 ? 'block' : 'line';
  // What only looks in from beside does not belong to the spot.
  const within = (v: number, from: number, size: number) => v > from && v < from + size;
  let best: ScannedSheet['words'] = [],
    most = 0;
  for (const by of look.digits ? [1, 0.8, 1.5, 2] : [1, 0.8, 0.5]) {
    const dpi = Math.round(usual * by),
      { gray, x, y } = spotOf(picture, points, look.back, box, dpi);
    const seen = await ocr.read(gray, { dpi, mode, language: look.language as Language, only: look.digits ? "0123456789.,-'€£$%" : '' });
    const words = wordsOfSeen(seen, dpi)
      .map((w) => ({ ...w, x: w.x + x, y: w.y + y }))
      .filter((w) => within(w.x + w.w / 2, box.x, box.w) && within(w.y + w.h / 2, box.y, box.h));
    const value = words.length > 0 ? worth(seen, { wide: (box.w * dpi) / 72, tall: (box.h * dpi) / 72 }) : 0;
    if (value > most) [best, most] = [words, value];
    if (most >= plain) break;
  }
  return best;
}
