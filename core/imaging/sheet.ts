import { percentile } from './pixels.ts';
import type { Picture, Point, Quad } from './types.ts';

interface Small {
  width: number;
  height: number;
  factor: number;
  data: Float32Array;
}

function smaller({ width, height, channels, data }: Picture, most = 420): Small {
  const factor = Math.max(1, Math.ceil(Math.max(width, height) / most)),
    w = Math.floor(width / factor),
    h = Math.floor(height / factor),
    out = new Float32Array(w * h * 3);
  // Every second pixel tells as much.
  const n = Math.ceil(factor / 2) ** 2,
    colour = channels === 3 ? 1 : 0;
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let r = 0,
        g = 0,
        b = 0;
      for (let dy = 0; dy < factor; dy += 2)
        for (let dx = 0; dx < factor; dx += 2) {
          const at = ((y * factor + dy) * width + x * factor + dx) * channels;
          r += data[at]!;
          g += data[at + colour]!;
          b += data[at + 2 * colour]!;
        }
      const to = (y * w + x) * 3;
      out[to] = r / n;
      out[to + 1] = g / n;
      out[to + 2] = b / n;
    }
  return { width: w, height: h, factor, data: out };
}

const brightness = (d: Float32Array, i: number) => 0.299 * d[i * 3]! + 0.587 * d[i * 3 + 1]! + 0.114 * d[i * 3 + 2]!;
const apart = (d: Float32Array, i: number, k: number) =>
  Math.abs(d[i * 3]! - d[k * 3]!) + Math.abs(d[i * 3 + 1]! - d[k * 3 + 1]!) + Math.abs(d[i * 3 + 2]! - d[k * 3 + 2]!);

/** Whether the picture's border is something else than paper; in a scan it is paper. */
function hasSurroundings({ width: w, height: h, data }: Small): boolean {
  const border = new Uint32Array(256),
    all = new Uint32Array(256);
  for (let y = 0, i = 0; y < h; y++)
    for (let x = 0; x < w; x++, i++) {
      const v = Math.round(brightness(data, i));
      all[v]!++;
      if (x === 0 || y === 0 || x === w - 1 || y === h - 1) border[v]!++;
    }
  return percentile(border, 0.5) <= percentile(all, 0.9) * 0.82;
}

/**
 * Where the colour first changes at once, coming in from one side: a shadow does not count, which is soft or of the same hue but darker;
 * the edge of a sheet does, be it white or a dark band. The first two places of each scan line, as (along, depth).
 */
function edgesFrom({ width: w, height: h, data }: Small, side: 'left' | 'right' | 'top' | 'bottom'): Point[] {
  const level = side === 'left' || side === 'right',
    lines = level ? h : w,
    depth = level ? w : h,
    back = side === 'right' || side === 'bottom';
  const index = (line: number, k: number) => {
    const d = back ? depth - 1 - k : k;
    return level ? line * w + d : d * w + line;
  };
  const out: Point[] = [];
  for (let line = 0; line < lines; line++) {
    for (let k = 2, found = 0; k < depth * 0.45 && found < 2; k++) {
      const before = index(line, k - 2),
        after = index(line, k + 2);
      if (apart(data, before, index(line, k + 1)) < 36 || apart(data, before, after) < 36 || isShade(data, before, after)) continue;
      out.push({ x: line + 0.5, y: back ? depth - k - 0.5 : k + 0.5 });
      found++;
      k += 4;
    }
  }
  return out;
}

/** Darker by the same share in all three colours. */
function isShade(d: Float32Array, from: number, to: number): boolean {
  const shares = [0, 1, 2].map((c) => (d[to * 3 + c]! + 4) / (d[from * 3 + c]! + 4)),
    most = Math.max(...shares);
  return most < 1 && most - Math.min(...shares) < 0.16;
}

interface Line {
  a: number;
  b: number;
}

/** The straight line y = a + b x that most points lie on, by trying pairs of them; of two nearly as good the outer one. Null where no line gathers a good part of `span`. */
function lineThrough(points: Point[], span: number, outer: 1 | -1): Line | null {
  let best: Line | null = null,
    most = span * 0.35;
  const depth = (l: Line) => (l.a + (l.b * span) / 2) * outer;
  const on = (l: Line, p: Point) => Math.abs(p.y - l.a - l.b * p.x) < 1.6;
  const step = Math.max(1, Math.floor(points.length / 60));
  for (let i = 0; i < points.length; i += step)
    for (let k = i + step; k < points.length; k += step) {
      const p = points[i]!,
        q = points[k]!;
      if (Math.abs(q.x - p.x) < span * 0.2) continue;
      const b = (q.y - p.y) / (q.x - p.x);
      if (Math.abs(b) > 0.4) continue;
      const line = { a: p.y - b * p.x, b },
        n = points.filter((r) => on(line, r)).length;
      if (
        n > most * 1.1 ||
        (n > most * 0.9 && (!best || depth(line) < depth(best) - 2)) ||
        (n > most && best && Math.abs(depth(line) - depth(best)) <= 2)
      ) {
        most = Math.max(n, most * 0.95);
        best = line;
      }
    }
  if (!best) return null;
  // The best pair is refined by least squares over all points near it.
  const kept = points.filter((p) => on(best!, p)),
    mx = kept.reduce((t, p) => t + p.x, 0) / kept.length,
    my = kept.reduce((t, p) => t + p.y, 0) / kept.length;
  const b = kept.reduce((t, p) => t + (p.x - mx) * (p.y - my), 0) / kept.reduce((t, p) => t + (p.x - mx) ** 2, 0);
  return { a: my - b * mx, b };
}

/** The corners of the sheet that a photo shows, in its pixels; null where no sheet stands out, or it fills the picture. */
export function findSheet(picture: Picture): Quad | null {
  const small = smaller(picture);
  if (!hasSurroundings(small)) return null;
  const [l, r, t, b] = [
    lineThrough(edgesFrom(small, 'left'), small.height, 1),
    lineThrough(edgesFrom(small, 'right'), small.height, -1),
    lineThrough(edgesFrom(small, 'top'), small.width, 1),
    lineThrough(edgesFrom(small, 'bottom'), small.width, -1),
  ];
  if (!l || !r || !t || !b) return null;
  const corner = (side: Line, level: Line): Point => {
    const x = (side.a + side.b * level.a) / (1 - side.b * level.b);
    return { x: x * small.factor, y: (level.a + level.b * x) * small.factor };
  };
  const quad: Quad = [corner(l, t), corner(r, t), corner(r, b), corner(l, b)];
  return plausible(quad, picture.width, picture.height) ? quad : null;
}

export const sideLengths = ([a, b, c, d]: Quad) => ({
  width: (Math.hypot(b.x - a.x, b.y - a.y) + Math.hypot(c.x - d.x, c.y - d.y)) / 2,
  height: (Math.hypot(d.x - a.x, d.y - a.y) + Math.hypot(c.x - b.x, c.y - b.y)) / 2,
});

/** A sheet is a good part of the picture, convex, with corners that are nearly right angles, and hardly leaves the picture. */
function plausible(quad: Quad, width: number, height: number): boolean {
  const { width: w, height: h } = sideLengths(quad);
  if (w * h < width * height * 0.2 || w * h > width * height * 0.985) return false;
  return quad.every((p, i) => {
    const q = quad[(i + 1) % 4]!,
      s = quad[(i + 3) % 4]!,
      ax = q.x - p.x,
      ay = q.y - p.y,
      bx = s.x - p.x,
      by = s.y - p.y;
    const angle = (Math.acos((ax * bx + ay * by) / (Math.hypot(ax, ay) * Math.hypot(bx, by))) * 180) / Math.PI;
    return angle > 62 && angle < 118 && p.x > -width * 0.06 && p.y > -height * 0.06 && p.x < width * 1.06 && p.y < height * 1.06;
  });
}
