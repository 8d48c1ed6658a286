import type { Gray, Matrix, Picture, Point, Quad } from './types.ts';

export const identity: Matrix = [1, 0, 0, 0, 1, 0, 0, 0, 1];
export const scaling = (by: number): Matrix => [by, 0, 0, 0, by, 0, 0, 0, 1];

/** The projection that does `b` first and then `a`. */
export function multiply(a: Matrix, b: Matrix): Matrix {
  const out: number[] = [];
  for (let r = 0; r < 3; r++)
    for (let c = 0; c < 3; c++) out.push(a[r * 3]! * b[c]! + a[r * 3 + 1]! * b[c + 3]! + a[r * 3 + 2]! * b[c + 6]!);
  return out.map((v) => v / (out[8] || 1));
}

export function invert(m: Matrix): Matrix {
  const [a, b, c, d, e, f, g, h, i] = m as [number, number, number, number, number, number, number, number, number];
  const out = [
    e * i - f * h,
    c * h - b * i,
    b * f - c * e,
    f * g - d * i,
    a * i - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    a * e - b * d,
  ];
  return out.map((v) => v / out[8]!);
}

export function project(m: Matrix, { x, y }: Point): Point {
  const w = m[6]! * x + m[7]! * y + m[8]!;
  return { x: (m[0]! * x + m[1]! * y + m[2]!) / w, y: (m[3]! * x + m[4]! * y + m[5]!) / w };
}

/** Turns by an angle in degrees (clockwise on screen) round a point. */
export function rotation(degrees: number, round: Point): Matrix {
  const c = Math.cos((degrees * Math.PI) / 180),
    s = Math.sin((degrees * Math.PI) / 180);
  return [c, -s, round.x - c * round.x + s * round.y, s, c, round.y - s * round.x - c * round.y, 0, 0, 1];
}

/** The projection that takes four corners to four others (direct linear transform: eight equations for eight unknowns). */
export function squaring(from: Quad, to: Quad): Matrix {
  const rows: number[][] = [];
  for (let i = 0; i < 4; i++) {
    const { x, y } = from[i]!,
      { x: u, y: v } = to[i]!;
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y, u], [0, 0, 0, x, y, 1, -v * x, -v * y, v]);
  }
  for (let col = 0; col < 8; col++) {
    let pivot = col;
    for (let r = col + 1; r < 8; r++) if (Math.abs(rows[r]![col]!) > Math.abs(rows[pivot]![col]!)) pivot = r;
    [rows[col], rows[pivot]] = [rows[pivot]!, rows[col]!];
    for (let r = 0; r < 8; r++) {
      if (r === col) continue;
      const by = rows[r]![col]! / rows[col]![col]!;
      for (let c = col; c < 9; c++) rows[r]![c]! -= by * rows[col]![c]!;
    }
  }
  return [...rows.map((row, i) => row[8]! / row[i]!), 1];
}

/** Pixels in a row between two places that are projected exactly; those between lie on a line to within a hundredth of a pixel. */
const run = 16;
const one = 65536;

/** Draws a picture anew: `back` says for each new pixel where it was in the old one. Between pixels values are mixed; outside is white. */
export function warp(gray: Gray, back: Matrix, width: number, height: number): Gray {
  const data = new Uint8Array(width * height),
    [a, b, c, d, e, f, g, h, i] = back as number[] as [number, number, number, number, number, number, number, number, number];
  const { width: w, height: t, data: from } = gray,
    // In units of 1/65536 of a pixel; the last pixel has none beside it to be mixed with.
    right = (w - 1) * one,
    bottom = (t - 1) * one;
  for (let y = 0, out = 0; y < height; y++) {
    const across = b * (y + 0.5) + c,
      down = e * (y + 0.5) + f,
      deep = h * (y + 0.5) + i;
    const xAt = (x: number) => Math.round(((a * x + across) / (g * x + deep) - 0.5) * one),
      yAt = (x: number) => Math.round(((d * x + down) / (g * x + deep) - 0.5) * one);
    let sx = xAt(0.5),
      sy = yAt(0.5);
    for (let x = 0; x < width; x += run) {
      const n = Math.min(run, width - x),
        endX = xAt(x + run + 0.5),
        endY = yAt(x + run + 0.5);
      const stepX = Math.trunc((endX - sx) / run),
        stepY = Math.trunc((endY - sy) / run);
      if (sx >= 0 && sy >= 0 && sx < right && sy < bottom && endX >= 0 && endY >= 0 && endX < right && endY < bottom)
        for (let k = 0, u = sx | 0, v = sy | 0, du = stepX | 0, dv = stepY | 0; k < n; k++, u = (u + du) | 0, v = (v + dv) | 0) {
          const fx = (u >> 8) & 255,
            fy = (v >> 8) & 255,
            at = (Math.imul(v >> 16, w) + (u >> 16)) | 0;
          const top = from[at]! * (256 - fx) + from[at + 1]! * fx,
            low = from[at + w]! * (256 - fx) + from[at + w + 1]! * fx;
          data[out++] = (top * (256 - fy) + low * fy + 32768) >> 16;
        }
      else for (let k = 0; k < n; k++) data[out++] = atEdge(gray, (sx + k * stepX) / one, (sy + k * stepY) / one);
      sx = endX;
      sy = endY;
    }
  }
  return { width, height, data };
}

/** A place at the edge of a picture or outside it: the nearest pixel, white from a pixel outside on. */
function atEdge({ width, height, data }: Gray, x: number, y: number): number {
  if (x < -1 || y < -1 || x >= width || y >= height) return 255;
  const at = (v: number, size: number) => Math.min(size - 1, Math.max(0, v));
  const ix = Math.floor(x),
    iy = Math.floor(y),
    fx = x - ix,
    fy = y - iy;
  const pixel = (dx: number, dy: number) => data[at(iy + dy, height) * width + at(ix + dx, width)]!;
  return (pixel(0, 0) * (1 - fx) + pixel(1, 0) * fx) * (1 - fy) + (pixel(0, 1) * (1 - fx) + pixel(1, 1) * fx) * fy + 0.5;
}

/** The same picture larger or smaller by a factor near one. */
export const resized = (gray: Gray, by: number): Gray =>
  warp(gray, scaling(1 / by), Math.max(1, Math.round(gray.width * by)), Math.max(1, Math.round(gray.height * by)));

/** Turns a picture clockwise by 0, 90, 180 or 270 degrees without loss. */
export function turned(picture: Picture, degrees: number): Picture {
  const { width: w, height: h, channels: n, data } = picture,
    turn = ((degrees % 360) + 360) % 360;
  if (turn === 0) return picture;
  const out = new Uint8Array(data.length),
    wide = turn === 180 ? w : h;
  for (let y = 0, from = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const [tx, ty] = turn === 90 ? [h - 1 - y, x] : turn === 180 ? [w - 1 - x, h - 1 - y] : [y, w - 1 - x];
      let to = (ty * wide + tx) * n;
      for (let c = 0; c < n; c++) out[to++] = data[from++]!;
    }
  return { width: wide, height: turn === 180 ? h : w, channels: n, data: out };
}

export function quarterTurns({ width, height, data }: Gray, degrees: number): Gray {
  const out = turned({ width, height, channels: 1, data }, degrees);
  return { width: out.width, height: out.height, data: out.data };
}
