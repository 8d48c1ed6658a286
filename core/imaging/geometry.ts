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
