import type { Gray, Rule } from './types.ts';

/**
 * Long drawn lines, level and upright, in ink (1 = dark). `long` is the least length and `thick` the most thickness in pixels; gaps of
 * a pixel or two, as faxes make them, do not end a line. A row of dense bold letters is none: it has ink above and below.
 */
export function findRules(ink: Uint8Array, width: number, height: number, long: number, thick: number, gap = 2): Rule[] {
  const out: Rule[] = [];
  const sweep = (across: number, down: number, step: number, stride: number, add: (from: number, to: number, row: number) => void) => {
    for (let row = 0; row < down; row++) {
      let from = -1,
        last = -1;
      for (let i = 0, at = row * stride; i < across; i++, at += step) {
        if (ink[at]) {
          if (from < 0) from = i;
          last = i;
        } else if (from >= 0 && i - last > gap) {
          if (last - from + 1 >= long) add(from, last + 1, row);
          from = -1;
        }
      }
      if (from >= 0 && last - from + 1 >= long) add(from, last + 1, row);
    }
  };
  const level: Rule[] = [],
    upright: Rule[] = [];
  sweep(width, height, 1, width, (from, to, row) => level.push({ x: from, y: row, w: to - from, h: 1 }));
  sweep(height, width, width, 1, (from, to, row) => upright.push({ x: row, y: from, w: 1, h: to - from }));
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
        data[at(k)] = 255;
        ink[at(k)] = 0;
      }
    }
  }
}
