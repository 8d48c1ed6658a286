import type { SeenWord } from './seen.ts';
import type { Rule } from './types.ts';

/** Pieces of one printed line that a recogniser took for lines of their own: the box round them, and the numbers of those lines. */
export interface Fragments {
  box: Rule;
  lines: Set<number>;
}

/**
 * Finds text that was torn apart: lines with one baseline that follow each other as closely as letters of a typewriter do. In sparse mode a
 * recogniser parts "29.95" in such a face at its point, and loses that.
 */
export function tornApart(words: SeenWord[]): Fragments[] {
  const lines = new Map<number, { x0: number; x1: number; y0: number; y1: number; base: number; tall: number }>();
  for (const w of words) {
    const l = lines.get(w.line);
    if (!l) lines.set(w.line, { x0: w.x0, x1: w.x1, y0: w.y0, y1: w.y1, base: w.base, tall: w.base - w.y0 });
    else {
      Object.assign(l, { x0: Math.min(l.x0, w.x0), x1: Math.max(l.x1, w.x1), y0: Math.min(l.y0, w.y0), y1: Math.max(l.y1, w.y1) });
      l.tall = Math.max(l.tall, w.base - w.y0);
    }
  }
  const groups: (Fragments & { x1: number; base: number; tall: number })[] = [];
  for (const [line, l] of [...lines].sort((a, b) => a[1].x0 - b[1].x0)) {
    const group = groups.find(
      (g) =>
        Math.abs(g.base - l.base) < g.tall * 0.3 &&
        l.x0 - g.x1 < Math.max(g.tall, l.tall) * 1.3 &&
        l.x0 > g.x1 - g.tall * 0.5 &&
        Math.max(g.tall, l.tall) < Math.min(g.tall, l.tall) * 2.2,
    );
    if (!group) {
      groups.push({
        box: { x: l.x0, y: l.y0, w: l.x1 - l.x0, h: l.y1 - l.y0 },
        lines: new Set([line]),
        x1: l.x1,
        base: l.base,
        tall: l.tall,
      });
      continue;
    }
    const foot = Math.max(group.box.y + group.box.h, l.y1);
    group.box.y = Math.min(group.box.y, l.y0);
    group.box.h = foot - group.box.y;
    group.x1 = Math.max(group.x1, l.x1);
    group.box.w = group.x1 - group.box.x;
    group.tall = Math.max(group.tall, l.tall);
    group.lines.add(line);
  }
  return groups.filter((g) => g.lines.size > 1);
}
