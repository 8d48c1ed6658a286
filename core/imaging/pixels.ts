import type { Gray } from './types.ts';

export const blank = (width: number, height: number, value = 255): Gray => ({
  width,
  height,
  data: new Uint8Array(width * height).fill(value),
});

/** Makes a picture smaller by a whole factor, each pixel the mean of those it stands for. */
export function shrink(gray: Gray, factor: number): Gray {
  if (factor <= 1) return gray;
  const width = Math.floor(gray.width / factor),
    height = Math.floor(gray.height / factor),
    out = blank(width, height);
  const sums = new Uint32Array(width),
    area = factor * factor,
    { data } = gray,
    fours = gray.width % 4 === 0 ? foursOf(data) : new Int32Array(0);
  for (let y = 0; y < height; y++) {
    sums.fill(0);
    for (let dy = 0; dy < factor; dy++) {
      let at = (y * factor + dy) * gray.width;
      if (factor === 2) for (let x = 0; x < width; x++, at += 2) sums[x]! += data[at]! + data[at + 1]!;
      else if (factor === 4 && fours.length > 0)
        for (let x = 0, k = at >> 2; x < width; x++, k++) {
          const four = fours[k]!;
          sums[x]! += (four & 255) + ((four >> 8) & 255) + ((four >> 16) & 255) + (four >>> 24);
        }
      else
        for (let x = 0; x < width; x++) {
          let sum = 0;
          for (const end = at + factor; at < end; at++) sum += data[at]!;
          sums[x]! += sum;
        }
    }
    for (let x = 0, to = y * width; x < width; x++) out.data[to++] = sums[x]! / area;
  }
  return out;
}

/** The value below which a share of all pixels lies, from 0 to 1. */
export function percentile(histogram: ArrayLike<number>, share: number): number {
  let total = 0;
  for (let i = 0; i < 256; i++) total += histogram[i]!;
  let seen = 0;
  for (let i = 0; i < 256; i++) if ((seen += histogram[i]!) >= total * share) return i;
  return 255;
}

/** How often each brightness occurs; of a large picture, among every few pixels, which tells the same. */
export function histogramOf(data: Uint8Array): Uint32Array {
  const histogram = new Uint32Array(256),
    step = data.length > 1_000_000 ? 7 : 1;
  for (let i = 0; i < data.length; i += step) histogram[data[i]!]!++;
  return histogram;
}

/** The grey that best parts dark from light (Otsu, A threshold selection method from gray-level histograms, 1979). */
export function otsu(histogram: ArrayLike<number>): number {
  let total = 0,
    sum = 0;
  for (let i = 0; i < 256; i++) {
    total += histogram[i]!;
    sum += i * histogram[i]!;
  }
  let weight = 0,
    below = 0,
    best = -1,
    cut = 128;
  for (let i = 0; i < 256; i++) {
    weight += histogram[i]!;
    if (weight === 0 || weight === total) continue;
    below += i * histogram[i]!;
    const apart = below / weight - (sum - below) / (total - weight),
      between = weight * (total - weight) * apart * apart;
    if (between > best) {
      best = between;
      cut = i;
    }
  }
  return cut;
}

/** Sums over all rectangles from the origin, for means of any rectangle in four steps; one column and row wider than the picture. */
export function integralOf(gray: Gray): Float64Array {
  const { width, height, data } = gray,
    w = width + 1,
    sums = new Float64Array(w * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += data[y * width + x]!;
      sums[(y + 1) * w + x + 1] = sums[y * w + x + 1]! + row;
    }
  }
  return sums;
}

/** Dark pixels as 1, light as 0. */
export function inkOf(gray: Gray, cut: number): Uint8Array {
  const { data } = gray,
    { length } = data,
    ink = new Uint8Array(length);
  // Most of a page is paper, which is told four pixels at a time: all of them have their highest bits set.
  const fours = foursOf(data),
    bits = cut < 192 ? 0xc0c0c0c0 | 0 : cut < 224 ? 0xe0e0e0e0 | 0 : 0;
  let i = 0;
  if (bits !== 0)
    for (let k = 0; k < fours.length; k++) {
      if ((fours[k]! & bits) === bits) continue;
      i = k << 2;
      ink[i] = data[i]! <= cut ? 1 : 0;
      ink[i + 1] = data[i + 1]! <= cut ? 1 : 0;
      ink[i + 2] = data[i + 2]! <= cut ? 1 : 0;
      ink[i + 3] = data[i + 3]! <= cut ? 1 : 0;
    }
  for (i = bits !== 0 ? fours.length << 2 : 0; i < length; i++) ink[i] = data[i]! <= cut ? 1 : 0;
  return ink;
}

/** The same bytes, four in each number; empty where they don't lie so that they can be taken that way. */
export const foursOf = (data: Uint8Array): Int32Array =>
  data.byteOffset % 4 === 0 ? new Int32Array(data.buffer, data.byteOffset, data.length >> 2) : new Int32Array(0);
