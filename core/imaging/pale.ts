import { piecesOf } from './components.ts';
import { paperGrain, white } from './light.ts';
import { inkOf } from './pixels.ts';
import type { Gray } from './types.ts';

/** All ink of a pale piece is darker at its darkest than `faint`, and of a dark one than `dark`. */
const faint = 185,
  dark = 110,
  /** What the darkest grey of a pale piece is made. */ target = 60;

/**
 * Darkens letters in pale ink, in place, each piece by itself, so that a recogniser that parts ink from paper at one grey for the whole page
 * sees them too. Pieces larger than letters stay: tinted fields, pictures. `dpi` is the resolution of the page.
 */
export function darkenPale(gray: Gray, dpi: number): void {
  const { width, height, data } = gray,
    { pieces, runs, count } = piecesOf(inkOf(gray, paperGrain), width, height);
  const darkest = new Uint8Array(pieces.length).fill(255);
  for (let r = 0; r < count * 4; r += 4) {
    const i = runs[r + 3]!,
      end = runs[r]! * width + runs[r + 2]!;
    let least = darkest[i]!;
    for (let at = runs[r]! * width + runs[r + 1]!; at < end; at++) if (data[at]! < least) least = data[at]!;
    darkest[i] = least;
  }
  for (let r = 0; r < count * 4; r += 4) {
    const i = runs[r + 3]!,
      piece = pieces[i]!,
      least = darkest[i]!;
    if (least <= dark || least > faint || piece.area < 12 || piece.h > dpi / 3 || piece.w > dpi * 0.8) continue;
    const by = (white - target) / (white - least),
      row = runs[r]! * width;
    // One pixel further on each side: the blur of the edge.
    for (let x = Math.max(0, runs[r + 1]! - 1); x < Math.min(width, runs[r + 2]! + 1); x++)
      data[row + x] = Math.max(0, Math.min(255, white - (white - data[row + x]!) * by));
  }
}
