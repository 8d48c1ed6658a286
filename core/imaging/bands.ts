import { piecesOf } from './components.ts';
import { percentile, shrink } from './pixels.ts';
import type { Gray, Rule } from './types.ts';

/**
 * Dark areas that may carry light text: large enough for a row of text and filled. Boxes in pixels; `unit` is a tenth of an inch in
 * pixels.
 */
export function darkBands(gray: Gray, unit: number): Rule[] {
  const cell = Math.max(2, Math.round(unit / 4)),
    small = shrink(gray, cell),
    { width, height, data } = small;
  const dark = new Uint8Array(data.length);
  for (let i = 0; i < dark.length; i++) dark[i] = data[i]! < 150 ? 1 : 0;
  // Light letters make holes in a band, which closing by one cell mends; opening parts it from slivers and lines that touch it.
  const closed = erode(dilate(dark, width, height), width, height),
    opened = dilate(erode(closed, width, height), width, height);
  return piecesOf(opened, width, height)
    .pieces.filter((p) => p.w >= 6 && p.h >= 3 && p.area > p.w * p.h * 0.7 && p.w * p.h >= 60)
    .map((p) => grow(gray, { x: p.x * cell, y: p.y * cell, w: p.w * cell, h: p.h * cell }, cell * 2))
    .filter((band) => hasSolidRim(gray, band));
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

/** A band is dark all along its sides; bold letters that stand close are not. */
function hasSolidRim(gray: Gray, { x, y, w, h }: Rule): boolean {
  const { width, data } = gray,
    inset = 2,
    dark = (i: number) => (data[i]! < 150 ? 1 : 0);
  let level = 0,
    upright = 0;
  for (let c = x; c < x + w; c++) level += dark((y + inset) * width + c) + dark((y + h - 1 - inset) * width + c);
  for (let r = y; r < y + h; r++) upright += dark(r * width + x + inset) + dark(r * width + x + w - 1 - inset);
  return level > w * 2 * 0.85 && upright > h * 2 * 0.8;
}

/** Moves each side of a box out, or in, to where the band ends to the pixel. */
function grow(gray: Gray, box: Rule, reach: number): Rule {
  const { width, height, data } = gray,
    cut = 150;
  const dark = (x0: number, y0: number, x1: number, y1: number): boolean => {
    let n = 0,
      all = 0;
    for (let y = y0; y < y1; y++)
      for (let x = x0; x < x1; x++) {
        all++;
        if (data[y * width + x]! < cut) n++;
      }
    return all > 0 && n > all * 0.5;
  };
  let { x, y } = box,
    r = Math.min(width, box.x + box.w),
    b = Math.min(height, box.y + box.h);
  const side = (at: number, step: number, most: number, test: (at: number) => boolean) => {
    for (let i = 0; i < reach && at >= 0 && at < most && test(at); i++) at += step;
    return at;
  };
  const [x0, x1, y0, y1] = [x, r, y, b];
  while (y < b - 1 && !dark(x0, y, x1, y + 1)) y++;
  y = side(y - 1, -1, height, (i) => dark(x0, i, x1, i + 1)) + 1;
  while (b > y + 1 && !dark(x0, b - 1, x1, b)) b--;
  b = side(b, 1, height, (i) => dark(x0, i, x1, i + 1));
  while (x < r - 1 && !dark(x, y0, x + 1, y1)) x++;
  x = side(x - 1, -1, width, (i) => dark(i, y0, i + 1, y1)) + 1;
  while (r > x + 1 && !dark(r - 1, y0, r, y1)) r--;
  r = side(r, 1, width, (i) => dark(i, y0, i + 1, y1));
  return { x, y, w: r - x, h: b - y };
}

/** Makes light text on the given dark bands dark on white, in place. A band that carries no text becomes white. */
export function invertBands(gray: Gray, bands: Rule[], pad = 2): void {
  for (const band of bands) {
    const x0 = Math.max(0, band.x - pad),
      y0 = Math.max(0, band.y - pad),
      x1 = Math.min(gray.width, band.x + band.w + pad),
      y1 = Math.min(gray.height, band.y + band.h + pad);
    const histogram = new Uint32Array(256);
    for (let y = band.y; y < band.y + band.h; y++)
      for (let x = band.x; x < band.x + band.w; x++) histogram[gray.data[y * gray.width + x]!]!++;
    const ground = percentile(histogram, 0.5),
      light = Math.max(percentile(histogram, 0.985), ground + 60),
      by = 255 / (light - ground);
    for (let y = y0; y < y1; y++)
      for (let x = x0; x < x1; x++) {
        const i = y * gray.width + x,
          rim = x < band.x || y < band.y || x >= band.x + band.w || y >= band.y + band.h;
        gray.data[i] = rim ? 255 : Math.max(0, Math.min(255, 255 - (gray.data[i]! - ground) * by));
      }
  }
}
