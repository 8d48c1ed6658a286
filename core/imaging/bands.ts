import { piecesOf } from './components.ts';
import { inkOf, percentile, shrink } from './pixels.ts';
import type { Gray, Rule } from './types.ts';

/** An area whose ground is darker than paper. `mask` says cell by cell, `cell` pixels wide, what belongs to it. */
export interface Band extends Rule {
  cell: number;
  columns: number;
  mask: Uint8Array;
}

/** On a page whose paper is evenly white, ground darker than the first is a dark band, than the second a grey one. */
const dark = 150,
  dim = 212;

/**
 * Areas with a ground of their own, dark or grey, that may carry text: large enough for a row of it and filled. Boxes in pixels; `unit`
 * is a tenth of an inch in pixels.
 */
export function darkBands(gray: Gray, unit: number): Band[] {
  const fine = Math.max(1, Math.round(unit / 8)),
    cell = fine * 2,
    finer = shrink(gray, fine),
    small = shrink(finer, 2);
  const taken = new Uint8Array(small.data.length);
  // What is a small label is not found again as part of a band.
  const labels = chips(gray, finer, fine, unit);
  for (const { x, y, w, h } of labels)
    for (let r = Math.floor(y / cell); r * cell < y + h; r++)
      taken.fill(1, r * small.width + Math.floor(x / cell), Math.min((r + 1) * small.width, r * small.width + Math.ceil((x + w) / cell)));
  // Dark ones first: a row of text right below one, which is grey from afar, does not become part of it.
  const wide = [dark, dim].flatMap((cut) => {
    const bands = filledAreas(
      small,
      small.data.map((v, i) => (v < cut && !taken[i] ? 1 : 0)),
      cut === dark,
    )
      .map((area) => ({
        x: area.x * cell,
        y: area.y * cell,
        w: area.w * cell,
        h: area.h * cell,
        cell,
        columns: small.width,
        mask: area.mask,
      }))
      .filter((band) => isFilled(gray, band));
    for (const { mask } of bands) mask.forEach((v, i) => v && (taken[i] = 1));
    return bands;
  });
  return [...labels, ...wide];
}

/** Single dark labels, no larger than their word: filled boxes of one row of text that are too small to be found by opening and closing. */
function chips(gray: Gray, fine: Gray, cell: number, unit: number): Band[] {
  const { width, height } = fine,
    { pieces } = piecesOf(inkOf(fine, dark), width, height),
    tall = unit / cell;
  return pieces.flatMap((p) => {
    if (p.h < tall || p.h > tall * 3.5 || p.w < p.h * 1.6 || p.w > tall * 20 || p.area < p.w * p.h * 0.55) return [];
    const mask = new Uint8Array(width * height);
    for (let y = p.y; y < p.y + p.h; y++) mask.fill(1, y * width + p.x, y * width + p.x + p.w);
    const band = { x: p.x * cell, y: p.y * cell, w: p.w * cell, h: p.h * cell, cell, columns: width, mask };
    return straightRim(fine, p) && isFilled(gray, band, 0.5) ? [band] : [];
  });
}

/** Whether the rim of a box is dark nearly all round, as letters' outlines are not. */
function straightRim({ width, data }: Gray, { x, y, w, h }: Rule): boolean {
  let darkOnes = 0;
  const at = (c: number, r: number) => (data[r * width + c]! < dark ? 1 : 0);
  for (let c = x; c < x + w; c++) darkOnes += at(c, y + 1) + at(c, y + h - 2);
  for (let r = y; r < y + h; r++) darkOnes += at(x + 1, r) + at(x + w - 2, r);
  return darkOnes > 2 * (w + h) * 0.92;
}

function filledAreas({ width, height }: Gray, marked: Uint8Array, holed: boolean): (Rule & { mask: Uint8Array })[] {
  // Light letters make holes in a dark band, which closing by one cell mends; opening by two parts it from text, slivers and lines that touch it.
  let mask = holed ? erode(dilate(marked, width, height), width, height) : marked;
  for (let i = 0; i < 2; i++) mask = erode(mask, width, height);
  for (let i = 0; i < 2; i++) mask = dilate(mask, width, height);
  const { pieces, runs, count } = piecesOf(mask, width, height);
  return pieces.flatMap((p, number) => {
    // What is as small as a punch hole is none.
    if (p.w < 13 || p.h < 5 || p.area < p.w * p.h * 0.6) return [];
    const own = new Uint8Array(width * height);
    for (let r = 0; r < count; r++)
      if (runs[r * 4 + 3] === number) own.fill(1, runs[r * 4]! * width + runs[r * 4 + 1]!, runs[r * 4]! * width + runs[r * 4 + 2]!);
    fillHoles(own, width, p);
    return [{ x: p.x, y: p.y, w: p.w, h: p.h, mask: own }];
  });
}

/** A notch in the edge of a band is no wider than so many cells, a quarter of an inch. */
const notch = 10;

/** Cells that have some of an area on all four sides belong to it: large light letters inside a band. So do notches, as a stamp leaves. */
function fillHoles(mask: Uint8Array, width: number, { x, y, w, h }: Rule): void {
  const first = new Int32Array(w).fill(-1),
    last = new Int32Array(w).fill(-1);
  for (let r = 0; r < h; r++)
    for (let c = 0; c < w; c++)
      if (mask[(y + r) * width + x + c]) {
        if (first[c]! < 0) first[c] = r;
        last[c] = r;
      }
  for (let r = 0; r < h; r++) {
    const row = mask.subarray((y + r) * width + x, (y + r) * width + x + w),
      from = row.indexOf(1),
      to = row.lastIndexOf(1);
    for (let c = from; from >= 0 && c <= to; c++) if (r >= first[c]! && r <= last[c]! && first[c]! >= 0) row[c] = 1;
    for (let c = from, before = from; from >= 0 && c <= to; c++) {
      if (!row[c]) continue;
      if (c - before <= notch) row.fill(1, before, c);
      before = c;
    }
  }
}

const dilate = (a: Uint8Array, w: number, h: number) => spread(a, w, h, 1);
const erode = (a: Uint8Array, w: number, h: number) => spread(a, w, h, 0);

function spread(a: Uint8Array, w: number, h: number, value: 0 | 1): Uint8Array {
  const out = a.slice();
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (
        (x > 0 && a[i - 1] === value) ||
        (x < w - 1 && a[i + 1] === value) ||
        (y > 0 && a[i - w] === value) ||
        (y < h - 1 && a[i + w] === value)
      )
        out[i] = value;
    }
  return out;
}

function histogramIn(gray: Gray, band: Band): Uint32Array {
  const histogram = new Uint32Array(256);
  for (let y = band.y; y < band.y + band.h; y++)
    for (let x = band.x; x < band.x + band.w; x++)
      if (band.mask[Math.floor(y / band.cell) * band.columns + Math.floor(x / band.cell)]) histogram[gray.data[y * gray.width + x]!]!++;
  return histogram;
}

/** Whether an area has one ground: most of its pixels are about as dark. A picture or bold letters that stand close have not. */
function isFilled(gray: Gray, band: Band, share = 0.66): boolean {
  const histogram = histogramIn(gray, band),
    ground = percentile(histogram, 0.5);
  let near = 0,
    all = 0;
  for (let i = 0; i < 256; i++) {
    all += histogram[i]!;
    if (Math.abs(i - ground) < 30) near += histogram[i]!;
  }
  return ground < dim && near > all * share;
}

/**
 * Sets text on bands dark on white, in place: light text on a dark ground is turned round, dark text on a grey ground keeps its ink and
 * loses the ground. A band without text becomes white.
 */
export function invertBands(gray: Gray, bands: Band[]): void {
  for (const band of bands) {
    const histogram = histogramIn(gray, band),
      ground = percentile(histogram, 0.5);
    const light = percentile(histogram, 0.985),
      ink = percentile(histogram, 0.015);
    const turn = light - ground > ground - ink;
    const reach = Math.max(60, turn ? light - ground : ground - ink),
      by = 255 / reach;
    const { cell } = band,
      across = Math.ceil(gray.width / cell);
    // The edge of a band lies within a cell of its mask: what is nearly the ground's brightness there goes with it.
    for (let r = Math.max(0, band.y / cell - 1); r * cell < Math.min(gray.height, band.y + band.h + cell); r++)
      for (let c = Math.max(0, band.x / cell - 1); c < Math.min(across, (band.x + band.w) / cell + 1); c++) {
        const own = isOwn(band, c, r);
        if (!own && !touches(band, c, r)) continue;
        // In the cells at its edge band and paper mix; text keeps clear of them.
        const edge = own && !(isOwn(band, c - 1, r) && isOwn(band, c + 1, r) && isOwn(band, c, r - 1) && isOwn(band, c, r + 1));
        for (let y = r * cell; y < Math.min(gray.height, (r + 1) * cell); y++)
          for (let i = y * gray.width + c * cell, end = y * gray.width + Math.min(gray.width, (c + 1) * cell); i < end; i++) {
            const v = gray.data[i]!;
            if (edge || (!own && v < dim)) gray.data[i] = 255;
            else if (own) gray.data[i] = clamp(turn ? 255 - (v - ground) * by : 255 - (ground - v) * by);
          }
      }
  }
}

const clamp = (v: number): number => (v < 0 ? 0 : v > 255 ? 255 : v);

const isOwn = ({ mask, columns }: Band, column: number, row: number): boolean => mask[row * columns + column] === 1;

/** Whether a cell lies beside one of the band's own. */
function touches(band: Band, column: number, row: number): boolean {
  for (const dy of [-1, 0, 1]) for (const dx of [-1, 0, 1]) if (isOwn(band, column + dx, row + dy)) return true;
  return false;
}
