import type { Piece } from './components.ts';
import { white } from './light.ts';
import { foursOf } from './pixels.ts';
import type { Gray, Rule } from './types.ts';

/**
 * Long drawn lines, level and upright, in ink (1 = dark). `long` is the least length and `thick` the most thickness in pixels; gaps of
 * a pixel or two, and steps to the next row, as faxes make them, do not end a line. A row of dense bold letters is none: it has ink
 * above and below.
 */
export function findRules(ink: Uint8Array, width: number, height: number, long: number, thick: number, gap = 2): Rule[] {
  const out: Rule[] = [],
    level: Rule[] = [],
    upright: Rule[] = [];
  // Where each column's run of ink began and was seen last; rows are gone through once, as they lie in memory.
  const began = new Int32Array(width).fill(-1),
    seen = new Int32Array(width),
    // Where rows begin at every fourth pixel, four without ink, below them and to the right, are passed over at once.
    fours = width % 4 === 0 ? foursOf(ink) : new Int32Array(0),
    down = width >> 2;
  const endLevel = (y: number, from: number, last: number) => {
    if (last - from + 1 >= long) level.push({ x: from, y, w: last + 1 - from, h: 1 });
  };
  const endUpright = (x: number) => {
    const top = began[x]!;
    if (top >= 0 && seen[x]! - top + 1 >= long) upright.push({ x, y: top, w: 1, h: seen[x]! + 1 - top });
  };
  for (let y = 0; y < height; y++) {
    let from = -1,
      last = -1;
    for (let x = 0, at = y * width; x < width; x++, at++) {
      if ((at & 3) === 0) {
        const k = at >> 2;
        if (fours[k] === 0 && !fours[k + down] && !fours[k + 1]) {
          x += 3;
          at += 3;
          continue;
        }
      }
      const own = ink[at] === 1;
      if (own || (y + 1 < height && ink[at + width])) {
        if (from >= 0 && x - last > gap + 1) endLevel(y, from, last);
        if (from < 0 || x - last > gap + 1) from = x;
        last = x;
      }
      if (own || (x + 1 < width && ink[at + 1])) {
        if (began[x]! < 0 || y - seen[x]! > gap + 1) {
          endUpright(x);
          began[x] = y;
        }
        seen[x] = y;
      }
    }
    if (from >= 0) endLevel(y, from, last);
  }
  for (let x = 0; x < width; x++) endUpright(x);
  upright.sort((a, b) => a.x - b.x || a.y - b.y);
  // Rows of one line lie next to each other; what is thicker than a line is a band or a picture.
  out.push(...gather(level, 'y').filter((r) => r.h <= thick), ...gather(upright, 'x').filter((r) => r.w <= thick));
  return out.filter((r) => standsAlone(ink, width, height, r, thick));
}

/** Whether a line has white on both sides along most of its length. */
function standsAlone(ink: Uint8Array, width: number, height: number, { x, y, w, h }: Rule, thick: number): boolean {
  const level = w >= h,
    length = level ? w : h,
    off = Math.max(2, Math.round(thick / 5));
  let beside = 0;
  for (let i = 0; i < length; i++) {
    const dark = (k: number) => {
      const [px, py] = level ? [x + i, k] : [k, y + i];
      return px >= 0 && py >= 0 && px < width && py < height && ink[py * width + px] === 1;
    };
    if (dark((level ? y : x) - off) || dark((level ? y + h : x + w) + off - 1)) beside++;
  }
  return beside < length * 0.3;
}

function gather(lines: Rule[], key: 'x' | 'y'): Rule[] {
  const along = key === 'y' ? 'x' : 'y',
    size = key === 'y' ? 'w' : 'h',
    across = key === 'y' ? 'h' : 'w',
    out: Rule[] = [];
  for (const line of lines) {
    const near = out
      .slice(-60)
      .find((r) => line[key] - (r[key] + r[across]) <= 1 && line[along] < r[along] + r[size] && r[along] < line[along] + line[size]);
    if (!near) {
      out.push({ ...line });
      continue;
    }
    const end = Math.max(near[along] + near[size], line[along] + line[size]);
    near[along] = Math.min(near[along], line[along]);
    near[size] = end - near[along];
    near[across] = Math.max(near[across], line[key] + line[across] - near[key]);
  }
  return out;
}

/** Takes lines off in place, but leaves the strokes of letters that cross or touch them. */
export function wipeRules(gray: Gray, ink: Uint8Array, rules: Rule[], thick: number): void {
  const { width, height, data } = gray;
  for (const { x, y, w, h } of rules) {
    const level = w >= h;
    for (let i = 0; i < (level ? w : h); i++) {
      // Where ink goes on beyond both sides of the line, or far beyond one, a letter stands there.
      const c = level ? x + i : y + i,
        from = level ? y : x,
        to = level ? y + h : x + w,
        end = level ? height : width;
      const at = (k: number) => (level ? k * width + c : c * width + k);
      let a = from,
        b = to - 1;
      while (a > 0 && from - a <= thick && ink[at(a - 1)]) a--;
      while (b < end - 1 && b - to <= thick && ink[at(b + 1)]) b++;
      if (b - a + 1 > h + w - (level ? w : h) + thick * 0.7) continue;
      for (let k = Math.max(0, a - 1); k <= Math.min(end - 1, b + 1); k++) {
        data[at(k)] = white;
        ink[at(k)] = 0;
      }
    }
  }
}

/**
 * Pieces of thin lines that a fax has broken: at least four in one row, thin, close behind each other, as long together as a line. A
 * hyphen stands alone among letters and is none, nor are the stems of letters that happen to stand below each other, a row apart. `long`
 * and `thin` in pixels. Gives their places in the list.
 */
export function brokenLines(pieces: Piece[], long: number, thin: number): number[] {
  const out: number[] = [];
  for (const [along, across, length, height, apart] of [
    ['x', 'y', 'w', 'h', 5],
    ['y', 'x', 'h', 'w', 2.5],
  ] as const) {
    const flat = pieces
      .map((p, i) => ({ p, i }))
      .filter(({ p }) => p[height] <= thin && p[length] >= p[height] && p[length] <= long * 2)
      .sort((a, b) => a.p[along] - b.p[along]);
    const open: { members: number[]; start: number; end: number; at: number; drawn: number }[] = [];
    for (const { p, i } of flat) {
      const chain = open.findLast(
        (c) => Math.abs(c.at - p[across]) <= thin / 2 && p[along] - c.end <= thin * apart && p[along] >= c.end - 1,
      );
      if (!chain) {
        open.push({ members: [i], start: p[along], end: p[along] + p[length], at: p[across], drawn: p[length] });
        continue;
      }
      chain.members.push(i);
      chain.end = p[along] + p[length];
      chain.at = p[across];
      chain.drawn += p[length];
    }
    for (const c of open)
      if (c.members.length >= 4 && c.end - c.start >= long && c.drawn > (c.end - c.start) * 0.45) out.push(...c.members);
  }
  return out;
}
