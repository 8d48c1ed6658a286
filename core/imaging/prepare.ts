import { darkBands, invertBands } from './bands.ts';
import { identity, invert, multiply, quarterTurns, rotation, scaling, squaring } from './geometry.ts';
import { blackAndWhite, softened, toGray } from './ink.ts';
import { evenPaper, paperOf } from './light.ts';
import { wipeMarks } from './marks.ts';
import { darkenPale } from './pale.ts';
import { histogramOf, inkOf, otsu, shrink } from './pixels.ts';
import { findRules, wipeRules } from './rules.ts';
import { findSheet, sideLengths } from './sheet.ts';
import { skewOf, skewUnlessLying } from './skew.ts';
import { usualCleanUp, type CleanUp, type Gray, type Matrix, type Picture, type Point, type Quad } from './types.ts';
import { uprightness } from './upright.ts';
import { warp, type Ground } from './warp.ts';

/** A picture made ready for reading. */
export interface Prepared {
  gray: Gray;
  dpi: number;
  /** Size of the cleaned page in points. */
  width: number;
  height: number;
  /** Size in points of the page as it came, turned upright. */
  came: { width: number; height: number };
  /** Quarter turn clockwise that set the page upright, before all else. */
  turn: number;
  /** False where the page might be upside down. */
  upright: boolean;
  /** Degrees by which the page was straightened. */
  skew: number;
  /** Whether a sheet was found and squared. */
  squared: boolean;
  /** From points of the cleaned page to points of the page as it came (turned upright). */
  back: Matrix;
}

/** Resolution at which a page shows how it lies, and at which its paper is looked at. */
const lookDpi = 120,
  paperDpi = 78;
const whiteGround: Ground = { paper: evenPaper, place: identity };

/** Width and height in points of common papers, to tell what a sheet in a photo is; a smaller sheet of the same shape reads alike. */
const papers = [
  [595, 842],
  [612, 792],
  [612, 1008],
] as const;

/** The paper nearest in shape, where one is near; else the sheet as wide as A4. */
export function paperLike({ width, height }: { width: number; height: number }): { width: number; height: number } {
  const lying = width > height,
    ratio = Math.max(width, height) / Math.min(width, height);
  const off = ([w, h]: readonly [number, number]) => Math.abs(h / w - ratio);
  const [best] = [...papers].sort((a, b) => off(a) - off(b));
  // A slanting view shortens a sheet, so its shape is known only roughly.
  const near: readonly [number, number] = off(best!) < 0.09 ? best! : [595, Math.round(595 * ratio)];
  return lying ? { width: near[1], height: near[0] } : { width: near[0], height: near[1] };
}

function turnedQuad(quad: Quad, turn: number, width: number, height: number): Quad {
  const map = ({ x, y }: Point): Point =>
    turn === 90
      ? { x: height - y, y: x }
      : turn === 180
        ? { x: width - x, y: height - y }
        : turn === 270
          ? { x: y, y: width - x }
          : { x, y };
  const [a, b, c, d] = quad.map(map) as [Point, Point, Point, Point];
  return turn === 90 ? [d, a, b, c] : turn === 180 ? [c, d, a, b] : turn === 270 ? [b, c, d, a] : [a, b, c, d];
}

const rectangle = (w: number, h: number): Quad => [
  { x: 0, y: 0 },
  { x: w, y: 0 },
  { x: w, y: h },
  { x: 0, y: h },
];

/**
 * Makes a picture of a page ready for reading: squared, upright, straight, evenly lit, dark on light, without lines and dirt, at one
 * resolution. `points` is the size of the page as it came, in points. All moves of pixels are done in one step, so that letters are
 * not blurred twice.
 */
export function prepare(picture: Picture, points: { width: number; height: number }, settings: CleanUp = usualCleanUp): Prepared {
  let quad = settings.square ? findSheet(picture) : null;
  let gray = toGray(picture, settings.stamps),
    came = points;
  const sheetOf = (q: Quad | null) => (q ? paperLike(sideLengths(q)) : came);
  // How the page lies, and how bright its paper is, is found out on a small picture of it.
  const ground = paperUnder(gray, quad, sheetOf(quad));
  let look = small(gray, quad, sheetOf(quad), ground),
    turn = 0,
    upright = true,
    skew = settings.upright ? skewUnlessLying(look, settings.deskew) : skewOf(look, settings.deskew);
  if (skew === null) {
    turn = 90;
    look = quarterTurns(look, turn);
    skew = skewOf(look, settings.deskew);
  }
  if (settings.upright) {
    const middle = { x: look.width / 2, y: look.height / 2 };
    const told = uprightness(skew === 0 ? look : warp(look, rotation(skew, middle), look.width, look.height, whiteGround));
    // What stands on its head is as skewed as before.
    if (told.down) turn += 180;
    upright = told.sure;
  }
  const place = multiply(ground.place, turnedBack(turn, gray.width, gray.height));
  if (turn) {
    if (quad) quad = turnedQuad(quad, turn, gray.width, gray.height);
    gray = quarterTurns(gray, turn);
    if (turn % 180) came = { width: came.height, height: came.width };
  }
  const { width, height } = sheetOf(quad);
  // From the cleaned page in points to the picture in pixels: turned by the skew, then as the sheet lies in the picture.
  const lies = quad ? squaring(rectangle(width, height), quad) : [gray.width / width, 0, 0, 0, gray.height / height, 0, 0, 0, 1];
  const toPixels = multiply(lies, rotation(skew, { x: width / 2, y: height / 2 }));
  const dpi = settings.dpi,
    scale = dpi / 72;
  // A scan far finer than needed is thinned first, or strokes would be skipped between pixels.
  const factor = Math.max(1, Math.floor(Math.hypot(toPixels[0]!, toPixels[3]!) / scale + 0.2));
  const drawn = warp(
    shrink(gray, factor),
    multiply(scaling(1 / factor), multiply(toPixels, scaling(1 / scale))),
    // Rows that begin at every fourth pixel are gone through faster.
    Math.ceil((width * scale) / 4) * 4,
    Math.round(height * scale),
    settings.light ? { ...ground, place: multiply(place, scaling(factor)) } : undefined,
  );
  clean(drawn, dpi, settings);
  const hard = settings.soften && blackAndWhite(gray);
  return {
    gray: hard ? softened(drawn) : drawn,
    dpi,
    width,
    height,
    came,
    turn,
    upright,
    skew,
    squared: quad !== null,
    back: multiply([came.width / gray.width, 0, 0, 0, came.height / gray.height, 0, 0, 0, 1], toPixels),
  };
}

/** From a picture turned clockwise by quarters to the picture before, whose width and height are given. */
const turnedBack = (turn: number, width: number, height: number): Matrix =>
  turn === 90
    ? [0, 1, 0, -1, 0, height, 0, 0, 1]
    : turn === 180
      ? [-1, 0, width, 0, -1, height, 0, 0, 1]
      : turn === 270
        ? [0, -1, width, 1, 0, 0, 0, 0, 1]
        : identity;

/** From a page drawn at a resolution to the pixels of the picture that it is in. */
function backTo(gray: Gray, quad: Quad | null, size: { width: number; height: number }, dpi: number) {
  const width = Math.round((size.width * dpi) / 72),
    height = Math.round((size.height * dpi) / 72);
  return {
    width,
    height,
    back: quad ? squaring(rectangle(width, height), quad) : [gray.width / width, 0, 0, 0, gray.height / height, 0, 0, 0, 1],
  };
}

/** How bright the paper is under a picture, from single pixels of it: means of several would hide the grain. */
function paperUnder(gray: Gray, quad: Quad | null, size: { width: number; height: number }): Ground {
  const { width, height, back } = backTo(gray, quad, size, paperDpi);
  return { paper: paperOf(warp(gray, back, width, height), paperDpi / 6), place: invert(back) };
}

/** The page at a low resolution, evenly lit, for finding out how it lies. */
function small(gray: Gray, quad: Quad | null, size: { width: number; height: number }, { paper, place }: Ground): Gray {
  const { width, height, back } = backTo(gray, quad, size, lookDpi);
  const factor = Math.max(1, Math.floor((quad ? sideLengths(quad).width : gray.width) / width + 0.2));
  return warp(shrink(gray, factor), multiply(scaling(1 / factor), back), width, height, { paper, place: multiply(place, scaling(factor)) });
}

/** Bands, lines, dirt and pale ink, in place, on a page that lies straight. */
function clean(gray: Gray, dpi: number, settings: CleanUp): void {
  if (settings.bands) invertBands(gray, darkBands(gray, dpi / 10));
  if (settings.rules || settings.marks) wipe(gray, dpi, settings);
  if (settings.pale) darkenPale(gray, dpi);
}

function wipe(gray: Gray, dpi: number, settings: CleanUp): void {
  const ink = inkOf(gray, Math.min(190, otsu(histogramOf(gray.data)))),
    mm = dpi / 25.4,
    thick = Math.round(0.055 * dpi);
  if (settings.rules) wipeRules(gray, ink, findRules(ink, gray.width, gray.height, Math.round(0.45 * dpi), thick), thick);
  if (settings.marks) wipeMarks(gray, ink, mm);
}
