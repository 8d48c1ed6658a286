import { white } from './light.ts';
import type { Gray, Rule } from './types.ts';

/** Share of their ink by which two prints of one letter differ at most; a 5 and a 6 differ by 0.15, an A and a B by 0.4. */
const most = 0.12;

/**
 * Whether two spots of a page show the same letter, one above the other, as tax codes stand. Compared pixel by pixel, by how much darker
 * than paper they are, in the best of nine places a pixel apart.
 */
export function alike({ width, height, data }: Gray, a: Rule, b: Rule): boolean {
  if (Math.abs(a.w - b.w) > 2 || Math.abs(a.h - b.h) > 2 || Math.abs(a.x - b.x) > a.h / 2) return false;
  const w = Math.max(a.w, b.w),
    h = Math.max(a.h, b.h);
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) {
      let ink = 0,
        apart = 0;
      for (let y = 0; y < h; y++)
        for (let x = 0; x < w; x++) {
          const ax = a.x + x,
            ay = a.y + y,
            bx = b.x + x + dx,
            by = b.y + y + dy;
          if (bx < 0 || by < 0 || Math.max(ax, bx) >= width || Math.max(ay, by) >= height) continue;
          const one = Math.max(0, white - data[ay * width + ax]!),
            other = Math.max(0, white - data[by * width + bx]!);
          ink += one + other;
          apart += Math.abs(one - other);
        }
      if (ink > 0 && apart < ink * most) return true;
    }
  return false;
}
