import type { Gray, Picture } from './types.ts';

const block = 16;

/**
 * A picture in grey. With `pale`, coloured ink on light ground is taken at its lightest channel: a blue or red stamp over black text
 * fades and the text stays. Dark areas keep their brightness, so that light text on a coloured band stands out as much as it did.
 */
export function toGray(picture: Picture, pale = true): Gray {
  const { width, height, channels, data } = picture;
  if (channels === 1) return { width, height, data };
  const out = new Uint8Array(width * height);
  // Weights of ITU-R BT.601 for brightness.
  for (let i = 0, p = 0; i < out.length; i++, p += 3) out[i] = (77 * data[p]! + 150 * data[p + 1]! + 29 * data[p + 2]!) >> 8;
  if (!pale) return { width, height, data: out };
  for (let top = 0; top < height; top += block) {
    for (let left = 0; left < width; left += block) {
      const bottom = Math.min(height, top + block),
        right = Math.min(width, left + block);
      let sum = 0;
      for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) sum += out[y * width + x]!;
      if (sum < 150 * (bottom - top) * (right - left)) continue;
      for (let y = top; y < bottom; y++)
        for (let i = y * width + left, p = i * 3, end = y * width + right; i < end; i++, p += 3) {
          const r = data[p]!,
            g = data[p + 1]!,
            b = data[p + 2]!,
            most = r > g ? (r > b ? r : b) : g > b ? g : b,
            least = r < g ? (r < b ? r : b) : g < b ? g : b;
          if (most - least > 40) out[i] = most;
        }
    }
  }
  return { width, height, data: out };
}
