import { piecesOf, type Piece } from './components.ts';
import { brokenLines } from './rules.ts';
import { white } from './light.ts';
import type { Gray } from './types.ts';

/** Punch holes: dark discs of 4 to 9 mm within 22 mm of an edge of the page. `mm` is pixels in a millimetre. */
export const isPunchHole = (p: Piece, width: number, height: number, mm: number): boolean =>
  p.w >= 4 * mm &&
  p.w <= 9 * mm &&
  p.h >= 4 * mm &&
  p.h <= 9 * mm &&
  Math.abs(p.w - p.h) < p.w * 0.25 &&
  p.area > p.w * p.h * 0.7 &&
  (p.x + p.w < 22 * mm || width - p.x < 22 * mm || p.y + p.h < 22 * mm || height - p.y < 22 * mm);

/** The dark edge that a scanner leaves: ink that touches the edge of the picture and hugs it, or is far longer than a letter there. */
export const isEdge = (p: Piece, width: number, height: number, mm: number): boolean =>
  (p.x <= 1 || p.y <= 1 || p.x + p.w >= width - 1 || p.y + p.h >= height - 1) &&
  ((p.w <= 6 * mm && (p.x <= 1 || p.x + p.w >= width - 1)) ||
    (p.h <= 6 * mm && (p.y <= 1 || p.y + p.h >= height - 1)) ||
    ((p.w > width * 0.5 || p.h > height * 0.5) && p.area < p.w * p.h * 0.3));

/** Grey that is still ink where it hangs together; paper is made 247 bright. */
const palest = 225;

/** Whether the ink at a pixel goes on, in paler grey, over more than `most` pixels: then it is the dark part of a pale letter, no dust. */
function goesOn({ width, height, data }: Gray, seed: number, most: number): boolean {
  const found = [seed],
    known = new Set(found);
  for (let i = 0; i < found.length; i++) {
    if (found.length > most) return true;
    const x = found[i]! % width,
      y = (found[i]! - x) / width;
    for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++)
      for (let xx = Math.max(0, x - 1); xx <= Math.min(width - 1, x + 1); xx++) {
        const at = yy * width + xx;
        if (data[at]! >= palest || known.has(at)) continue;
        known.add(at);
        found.push(at);
      }
  }
  return false;
}

/** Takes punch holes, scan edges, broken lines and specks off, in place; a speck is smaller than a full stop. Says how many of each there were. */
export function wipeMarks(gray: Gray, ink: Uint8Array, mm: number): { holes: number; edges: number; specks: number } {
  const { width, height, data } = gray,
    { pieces, runs, count } = piecesOf(ink, width, height);
  const speck = Math.max(1, Math.round((0.22 * mm) ** 2)),
    wipe = new Uint8Array(pieces.length),
    found = { holes: 0, edges: 0, specks: 0 };
  const seeds = new Int32Array(pieces.length).fill(-1);
  for (let r = 0; r < count; r++) if (seeds[runs[r * 4 + 3]!]! < 0) seeds[runs[r * 4 + 3]!] = runs[r * 4]! * width + runs[r * 4 + 1]!;
  for (const i of brokenLines(pieces, Math.round(11 * mm), Math.round(0.5 * mm))) wipe[i] = 1;
  for (const [i, p] of pieces.entries()) {
    if (wipe[i]) continue;
    if (p.area <= speck) {
      if (goesOn(gray, seeds[i]!, speck * 5)) continue;
      wipe[i] = 1;
      found.specks++;
    } else if (isPunchHole(p, width, height, mm)) {
      wipe[i] = 2;
      found.holes++;
    } else if (isEdge(p, width, height, mm)) {
      wipe[i] = 2;
      found.edges++;
    }
  }
  for (let r = 0; r < count; r++) {
    const kind = wipe[runs[r * 4 + 3]!];
    if (!kind) continue;
    const y = runs[r * 4]!,
      rim = kind === 2 ? 2 : 1;
    for (let yy = Math.max(0, y - rim); yy <= Math.min(height - 1, y + rim); yy++)
      for (let x = Math.max(0, runs[r * 4 + 1]! - rim); x < Math.min(width, runs[r * 4 + 2]! + rim); x++)
        if (yy === y || !ink[yy * width + x]) data[yy * width + x] = white;
    ink.fill(0, y * width + runs[r * 4 + 1]!, y * width + runs[r * 4 + 2]!);
  }
  return found;
}
