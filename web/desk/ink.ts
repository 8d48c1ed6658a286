import { parsePath } from '@ledgerline/core/bills';
import type { Bill, Mark } from '@ledgerline/contract';
import type { ShownPage } from '../ui/page-view';

type Box = Omit<Mark, 'page'>;
/** The piece of a page that a value was read from, and the value's own place in it. */
export interface Piece {
  page: ShownPage;
  box: Box;
  framed: Box | null;
  /** In a row's piece: the row that it stands above. */
  line: string | null;
}

/** The box round boxes; null round none. */
export function round(boxes: readonly Box[]): Box | null {
  if (boxes.length === 0) return null;
  const x = Math.min(...boxes.map((b) => b.x)),
    y = Math.min(...boxes.map((b) => b.y));
  return { x, y, w: Math.max(...boxes.map((b) => b.x + b.w)) - x, h: Math.max(...boxes.map((b) => b.y + b.h)) - y };
}

/** Where a page's words stand, with a little air: its white margins left out. The whole page where it has none. */
export function inkOf(page: Pick<ShownPage, 'width' | 'height' | 'words'>): Box {
  const ink = round(page.words);
  if (!ink) return { x: 0, y: 0, w: page.width, h: page.height };
  // A page with a word or two is not blown up.
  const w = Math.min(page.width, Math.max(ink.w + 20, page.width * 0.55)),
    x = Math.max(0, Math.min(page.width - w, ink.x + ink.w / 2 - w / 2)),
    y = Math.max(0, ink.y - 12);
  return { x, y, w, h: Math.min(page.height, ink.y + ink.h + 12) - y };
}

/** How tall most words of a page are, in points. */
export function wordHeight(page: Pick<ShownPage, 'words'>): number {
  const heights = page.words.map((w) => w.h).sort((a, b) => a - b);
  return heights[Math.floor(heights.length / 2)] ?? 10;
}

/** A row's piece is this tall at most, in words: what stands further off is not its row. */
const tall = 6;
/** So far left of a value its label may stand, what is shown where none does, and what is shown right of it, in points. */
const reach = 220,
  before = 60,
  after = 40;

/** Where the words begin that stand next on the left of a value, in its line: its label, whole; null where nothing stands there. */
function labelAt(page: Pick<ShownPage, 'words'>, value: Box): number | null {
  const line = page.words
    .filter((w) => w.x + w.w <= value.x && w.x + w.w > value.x - reach && w.y < value.y + value.h && w.y + w.h > value.y)
    .sort((a, b) => b.x - a.x);
  let start: number | null = null;
  for (const w of line) {
    if (start !== null && start - (w.x + w.w) > 1.2 * value.h) break;
    start = w.x;
  }
  return start;
}

/** The piece of page that the value of a path was read from; null where there is none. A cell's piece is its whole row. */
export function pieceOf(bill: Pick<Bill, 'marks' | 'lines'>, path: string | null, pages: readonly ShownPage[]): Piece | null {
  if (!path) return null;
  const at = parsePath(path);
  const line = at && 'line' in at ? bill.lines.find((l) => l.id === at.line) : null;
  const own = line && at && 'cell' in at ? line.marks[at.cell]?.mark : bill.marks[path]?.mark;
  const first = own ?? (line ? Object.values(line.marks).find((m) => m.mark)?.mark : null);
  const page = first && pages.find((p) => p.number === first.page);
  if (!first || !page) return null;
  const air = wordHeight(page) * 0.5;
  if (!line) {
    const x = Math.max(0, (labelAt(page, first) ?? first.x - before) - 6);
    return {
      page,
      box: { x, y: first.y - air, w: Math.min(page.width, first.x + first.w + after) - x, h: first.h + 2 * air },
      framed: first,
      line: null,
    };
  }
  const marks = Object.values(line.marks).flatMap((m) => (m.mark?.page === page.number ? [m.mark] : []));
  const rows = round(marks.filter((m) => Math.abs(m.y - first.y) < tall * wordHeight(page)))!;
  const ink = inkOf(page);
  return { page, box: { x: ink.x, y: rows.y - air, w: ink.w, h: rows.h + 2 * air }, framed: own ?? null, line: line.id };
}
