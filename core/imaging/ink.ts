import { foursOf, histogramOf } from './pixels.ts';
import type { Gray, Picture } from './types.ts';

const block = 16;

/**
 * A picture in grey. With `pale`, coloured ink on light ground is taken at its lightest channel: a blue or red stamp over black text
 * fades and the text stays. Dark areas keep their brightness, so that light text on a coloured band stands out as much as it did.
 */
export function toGray(picture: Picture, pale = true): Gray {
  const { width, height, channels, data } = picture;
  if (channels === 1) return { width, height, data };
  const out = new Uint8Array(width * height),
    across = Math.ceil(width / block),
    coloured = new Uint8Array(across);
  for (let top = 0; top < height; top += block) {
    const bottom = Math.min(height, top + block);
    coloured.fill(0);
    // Weights of ITU-R BT.601 for brightness.
    for (let y = top, i = y * width, p = i * 3; y < bottom; y++)
      for (let x = 0; x < width; x++, i++, p += 3) {
        const r = data[p]!,
          g = data[p + 1]!,
          b = data[p + 2]!;
        out[i] = (77 * r + 150 * g + 29 * b) >> 8;
        if (r - g > 20 || g - r > 20 || b - g > 20 || g - b > 20) coloured[x >> 4] = 1;
      }
    if (pale) for (let c = 0; c < across; c++) if (coloured[c]) fade(picture, out, c * block, top);
  }
  return { width, height, data: out };
}

/** Takes coloured ink in one block of pixels at its lightest channel, if the block is light on the whole. */
function fade({ width, height, data }: Picture, out: Uint8Array, left: number, top: number): void {
  const bottom = Math.min(height, top + block),
    right = Math.min(width, left + block);
  let sum = 0;
  for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) sum += out[y * width + x]!;
  if (sum < 150 * (bottom - top) * (right - left)) return;
  for (let y = top; y < bottom; y++)
    for (let i = y * width + left, p = i * 3, end = y * width + right; i < end; i++, p += 3) {
      const most = Math.max(data[p]!, data[p + 1]!, data[p + 2]!);
      if (most - Math.min(data[p]!, data[p + 1]!, data[p + 2]!) > 40) out[i] = most;
    }
}

/** Whether a picture has hardly a grey pixel between black and white. */
export function blackAndWhite({ data }: Gray): boolean {
  const histogram = histogramOf(data);
  let all = 0,
    between = 0;
  for (let i = 0; i < 256; i++) {
    all += histogram[i]!;
    if (i > 8 && i < 247) between += histogram[i]!;
  }
  return between < all * 0.002;
}

/** Each pixel mixed with those around it (1-2-1 both ways), so that the steps of a coarse letter become strokes again. */
export function softened({ width, height, data }: Gray): Gray {
  const level = new Uint8Array(data),
    { length } = data,
    fours = foursOf(data);
  // Even paper stays as it is, which is told four pixels at a time.
  for (let i = 0; i < length;) {
    const k = i >> 2,
      four = fours[k];
    if ((i & 3) === 0 && four === fours[k + 1] && four === fours[k - 1] && four === Math.imul(four! & 255, 0x01010101)) i += 4;
    else {
      level[i] = (data[Math.max(0, i - 1)]! + 2 * data[i]! + data[Math.min(length - 1, i + 1)]! + 2) >> 2;
      i++;
    }
  }
  // The ends of rows have a neighbour on one side only.
  for (let left = 0, right = width - 1; left < length; left += width, right += width) {
    level[left] = (3 * data[left]! + data[Math.min(right, left + 1)]! + 2) >> 2;
    level[right] = (3 * data[right]! + data[Math.max(left, right - 1)]! + 2) >> 2;
  }
  const out = level.slice(),
    levels = foursOf(level),
    down = width % 4 === 0 ? width >> 2 : NaN;
  for (let i = 0; i < length;) {
    const k = i >> 2;
    if ((i & 3) === 0 && levels[k] === levels[k + down] && levels[k] === levels[k - down]) i += 4;
    else {
      out[i] =
        ((i < width ? level[i]! : level[i - width]!) + 2 * level[i]! + (i + width < length ? level[i + width]! : level[i]!) + 2) >> 2;
      i++;
    }
  }
  return { width, height, data: out };
}
