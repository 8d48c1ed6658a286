import type { SeenWord } from './seen.ts';
import type { Rule } from './types.ts';

/** Pieces of one printed line that a recogniser took for lines of their own: the box round them, and the numbers of those lines. */
export interface Fragments {
  box: Rule;
  lines: Set<number>;
}

interface Piece {
  lines: number[];
  x0: number;
  x1: number;
  y0: number;
  y1: number;
  base: number;
  tall: number;
  /** Its first and last word. */
  begins: string;
  ends: string;
}

function pieceOf(line: number, words: SeenWord[]): Piece {
  const first = words.reduce((a, b) => (b.x0 < a.x0 ? b : a)),
    last = words.reduce((a, b) => (b.x1 > a.x1 ? b : a));
  return {
    lines: [line],
    x0: first.x0,
    x1: last.x1,
    y0: Math.min(...words.map((w) => w.y0)),
    y1: Math.max(...words.map((w) => w.y1)),
    base: words[0]!.base,
    tall: Math.max(...words.map((w) => w.base - w.y0)),
    begins: first.text,
    ends: last.text,
  };
}

/** Whether two pieces are one line that was torn: within a figure as wide as a point stands, within a word or between words hardly at all. */
function torn(left: Piece, right: Piece): boolean {
  const tall = Math.max(left.tall, right.tall),
    apart = right.x0 - left.x1;
  const figure = /[\d.,]$/.test(left.ends) && /^[\d.,]/.test(right.begins);
  return (
    Math.abs(left.base - right.base) < left.tall * 0.3 &&
    apart < tall * (figure ? 1.3 : 0.5) &&
    apart > left.tall * -0.5 &&
    tall < Math.min(left.tall, right.tall) * 2.2
  );
}

/**
 * Finds text that was torn apart: lines with one baseline that follow each other as closely as letters of a typewriter do. In sparse mode a
 * recogniser parts "29.95" in such a face at its point, and loses that.
 */
export function tornApart(words: SeenWord[]): Fragments[] {
  const lines = new Map<number, SeenWord[]>();
  for (const w of words) lines.set(w.line, [...(lines.get(w.line) ?? []), w]);
  const groups: Piece[] = [];
  for (const piece of [...lines].map(([line, own]) => pieceOf(line, own)).sort((a, b) => a.x0 - b.x0)) {
    const group = groups.find((g) => torn(g, piece));
    if (!group) {
      groups.push(piece);
      continue;
    }
    if (piece.x1 > group.x1) Object.assign(group, { x1: piece.x1, ends: piece.ends });
    group.y0 = Math.min(group.y0, piece.y0);
    group.y1 = Math.max(group.y1, piece.y1);
    group.tall = Math.max(group.tall, piece.tall);
    group.lines.push(...piece.lines);
  }
  return groups
    .filter((g) => g.lines.length > 1)
    .map((g) => ({ box: { x: g.x0, y: g.y0, w: g.x1 - g.x0, h: g.y1 - g.y0 }, lines: new Set(g.lines) }));
}
