import { identity, multiply, project, scaling } from './geometry.ts';
import { brightnessAt, paperGrain, paperOf, white, type Paper } from './light.ts';
import type { Gray, Matrix } from './types.ts';

/** A picture is drawn in tiles of so many pixels; along a row of one, places lie on a line to within a tenth of a pixel. */
const tile = 16;
const one = 65536;

/** The paper of a picture that is drawn anew, and the projection from the picture's pixels to where its brightness is noted. */
export interface Ground {
  paper: Paper;
  place: Matrix;
}

/**
 * Draws a picture anew: `back` says for each new pixel where it was in the old one. Between pixels values are mixed; outside is white.
 * With `ground` the paper becomes evenly white as well: shadows and yellowed paper go, ink stays as dark as it was. Most of a page is
 * paper with its grain, which gets its usual brightness without being drawn.
 */
export function warp(gray: Gray, back: Matrix, width: number, height: number, ground?: Ground): Gray {
  const usual = ground?.paper.usual ?? white,
    out: Gray = { width, height, data: new Uint8Array(width * height).fill(usual) };
  const bare = ground && bareBlocks(gray, ground),
    across = Math.ceil(width / tile) + 1;
  let upper = new Int32Array(across).fill(one),
    lower = upper.slice();
  const toPaper = ground && multiply(ground.place, back);
  if (ground) whitening(lower, ground.paper, toPaper!, 0);
  for (let top = 0; top < height; top += tile) {
    [upper, lower] = [lower, upper];
    if (ground) whitening(lower, ground.paper, toPaper!, top + tile);
    for (let c = 0; c + 1 < across; c++) {
      const plain = bare ? bareAt(bare, back, c * tile, top) : 0;
      if (plain === 0) drawTile(gray, out, back, c * tile, top, upper[c]!, upper[c + 1]!, lower[c]!, lower[c + 1]!);
      else {
        const value = Math.min(white, (plain * upper[c]!) >> 16);
        if (Math.abs(value - usual) > hardly) fillTile(out, c * tile, top, value);
      }
    }
  }
  return out;
}

/** Makes the paper evenly white, its brightness measured in cells of so many pixels. */
export const evenLight = (gray: Gray, cell: number): Gray =>
  warp(gray, identity, gray.width, gray.height, { paper: paperOf(gray, cell), place: identity });

/** The same picture larger or smaller by a factor near one. */
export const resized = (gray: Gray, by: number): Gray =>
  warp(gray, scaling(1 / by), Math.max(1, Math.round(gray.width * by)), Math.max(1, Math.round(gray.height * by)));

/** The factors, in units of 1/65536, that make the paper white along one row, every `tile` pixels. */
function whitening(factors: Int32Array, paper: Paper, toPaper: Matrix, y: number): void {
  for (let c = 0; c < factors.length; c++) {
    const { x, y: down } = project(toPaper, { x: c * tile, y });
    factors[c] = (white * one) / brightnessAt(paper, x, down);
  }
}

/** Blocks of a picture, so many pixels wide: how bright those are that show nothing but paper, 0 for others. */
interface Bare {
  blocks: Uint8Array;
  across: number;
  down: number;
}
const block = 8;

/** The blocks of paper alone, told by their darkest two by two pixels: single ones are dark in the grain of a photo. */
function bareBlocks({ width, height, data }: Gray, { paper, place }: Ground): Bare {
  const across = Math.floor(width / block),
    down = Math.floor(height / block),
    blocks = new Uint8Array(across * down),
    darkest = new Int32Array(across),
    sums = new Int32Array(across);
  for (let r = 0, to = 0; r < down; r++) {
    darkest.fill(1020);
    sums.fill(0);
    for (let y = r * block; y < (r + 1) * block; y += 2)
      for (let c = 0, i = y * width; c < across; c++) {
        let least = darkest[c]!,
          all = 0;
        for (const end = i + block; i < end; i += 2) {
          const sum = data[i]! + data[i + 1]! + data[i + width]! + data[i + width + 1]!;
          if (sum < least) least = sum;
          all += sum;
        }
        darkest[c] = least;
        sums[c]! += all;
      }
    for (let c = 0; c < across; c++) {
      const { x, y } = project(place, { x: (c + 0.5) * block, y: (r + 0.5) * block });
      blocks[to++] = darkest[c]! * white >= 4 * paperGrain * brightnessAt(paper, x, y) ? sums[c]! / (block * block) : 0;
    }
  }
  return { blocks, across, down };
}

/** How bright the paper is in the middle of a tile that would show nothing else; 0 where it would. */
function bareAt({ blocks, across, down }: Bare, back: Matrix, left: number, top: number): number {
  const a = project(back, { x: left, y: top }),
    b = project(back, { x: left + tile, y: top }),
    c = project(back, { x: left, y: top + tile }),
    d = project(back, { x: left + tile, y: top + tile });
  const x0 = Math.floor(Math.min(a.x, b.x, c.x, d.x)) - 1,
    x1 = Math.ceil(Math.max(a.x, b.x, c.x, d.x)) + 1,
    y0 = Math.floor(Math.min(a.y, b.y, c.y, d.y)) - 1,
    y1 = Math.ceil(Math.max(a.y, b.y, c.y, d.y)) + 1;
  if (x0 < 0 || y0 < 0 || x1 >= across * block || y1 >= down * block) return 0;
  for (let r = Math.floor(y0 / block); r * block <= y1; r++)
    for (let k = Math.floor(x0 / block); k * block <= x1; k++) if (!blocks[r * across + k]) return 0;
  return blocks[Math.floor((y0 + y1) / 2 / block) * across + Math.floor((x0 + x1) / 2 / block)]!;
}

/** A step in brightness that is left. */
const hardly = 3;

function fillTile({ width, height, data }: Gray, left: number, top: number, value: number): void {
  const right = Math.min(width, left + tile);
  for (let y = top; y < Math.min(height, top + tile); y++) data.fill(value, y * width + left, y * width + right);
}

/** Draws one tile; the factors for brightness at its four corners come last. */
function drawTile(
  gray: Gray,
  out: Gray,
  back: Matrix,
  left: number,
  top: number,
  leftUp: number,
  rightUp: number,
  leftLow: number,
  rightLow: number,
): void {
  const { width: w, height: t, data: from } = gray,
    { data, width } = out,
    a = back[0]!,
    d = back[3]!,
    g = back[6]!,
    // In units of 1/65536 of a pixel; the last pixel has none beside it to be mixed with.
    right = (w - 1) * one,
    bottom = (t - 1) * one,
    n = Math.min(tile, width - left),
    x0 = left + 0.5,
    x1 = x0 + tile;
  for (let row = 0; row < tile && top + row < out.height; row++) {
    const y = top + row + 0.5,
      across = back[1]! * y + back[2]!,
      down = back[4]! * y + back[5]!,
      deep = back[7]! * y + back[8]!,
      near = g * x0 + deep,
      far = g * x1 + deep;
    const sx = Math.round(((a * x0 + across) / near - 0.5) * one),
      sy = Math.round(((d * x0 + down) / near - 0.5) * one),
      endX = Math.round(((a * x1 + across) / far - 0.5) * one),
      endY = Math.round(((d * x1 + down) / far - 0.5) * one);
    const stepX = Math.trunc((endX - sx) / tile) | 0,
      stepY = Math.trunc((endY - sy) / tile) | 0;
    const first = (leftUp + ((leftLow - leftUp) * row) / tile) | 0,
      more = ((rightUp + ((rightLow - rightUp) * row) / tile - first) / tile) | 0;
    let to = (top + row) * width + left;
    if (sx >= 0 && sy >= 0 && sx < right && sy < bottom && endX >= 0 && endY >= 0 && endX < right && endY < bottom)
      for (let k = 0, u = sx | 0, v = sy | 0, by = first; k < n; k++, u = (u + stepX) | 0, v = (v + stepY) | 0, by = (by + more) | 0) {
        const fx = (u >> 8) & 255,
          fy = (v >> 8) & 255,
          at = (Math.imul(v >> 16, w) + (u >> 16)) | 0;
        const high = from[at]! * (256 - fx) + from[at + 1]! * fx,
          low = from[at + w]! * (256 - fx) + from[at + w + 1]! * fx;
        // Mixed in units of 1/256 and made brighter in the same, so that it stays below 2^31.
        const value = (((high * (256 - fy) + low * fy) >> 8) * (by >> 8) + 32768) >> 16;
        data[to++] = value > 255 ? 255 : value;
      }
    else
      for (let k = 0; k < n; k++)
        data[to++] = Math.min(255, (atEdge(gray, (sx + k * stepX) / one, (sy + k * stepY) / one) * (first + k * more)) / one + 0.5);
  }
}

/** A place at the edge of a picture or outside it: the nearest pixel, white from a pixel outside on. */
function atEdge({ width, height, data }: Gray, x: number, y: number): number {
  if (x < -1 || y < -1 || x >= width || y >= height) return 255;
  const ix = Math.floor(x),
    iy = Math.floor(y),
    fx = x - ix,
    fy = y - iy;
  const left = Math.max(0, ix),
    right = Math.min(width - 1, ix + 1),
    top = Math.max(0, iy) * width,
    low = Math.min(height - 1, iy + 1) * width;
  const above = data[top + left]! * (1 - fx) + data[top + right]! * fx,
    below = data[low + left]! * (1 - fx) + data[low + right]! * fx;
  return above * (1 - fy) + below * fy;
}
