import { blank } from './pixels.ts';
import type { Gray, Rule } from './types.ts';

/** A part of a picture with `pad` pixels of its surroundings, cut off at the picture's edge. Says where its corner lies. */
export function crop(gray: Gray, box: Rule, pad: number): { gray: Gray; x: number; y: number } {
  const x = Math.max(0, Math.floor(box.x - pad)),
    y = Math.max(0, Math.floor(box.y - pad));
  const width = Math.max(1, Math.min(gray.width, Math.ceil(box.x + box.w + pad)) - x),
    height = Math.max(1, Math.min(gray.height, Math.ceil(box.y + box.h + pad)) - y);
  const out = blank(width, height);
  for (let row = 0; row < height; row++) {
    const from = (y + row) * gray.width + x;
    out.data.set(gray.data.subarray(from, from + width), row * width);
  }
  return { gray: out, x, y };
}
