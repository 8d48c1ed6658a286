/** A cell by its places in the grid, from 0. */
export interface Spot {
  row: number;
  column: number;
}
/** What is selected: from where, and where the cursor is. A single cell where both are the same. */
export interface Selection {
  anchor: Spot;
  head: Spot;
}
/** The block between the two ends of a selection, both ends in. */
export interface Block {
  top: number;
  bottom: number;
  left: number;
  right: number;
}
export interface Size {
  rows: number;
  columns: number;
}

export const blockOf = ({ anchor, head }: Selection): Block => ({
  top: Math.min(anchor.row, head.row),
  bottom: Math.max(anchor.row, head.row),
  left: Math.min(anchor.column, head.column),
  right: Math.max(anchor.column, head.column),
});
export const within = (b: Block, row: number, column: number): boolean =>
  row >= b.top && row <= b.bottom && column >= b.left && column <= b.right;
export const isOne = (s: Selection): boolean => s.anchor.row === s.head.row && s.anchor.column === s.head.column;
export const at = (row: number, column: number): Selection => ({ anchor: { row, column }, head: { row, column } });

const clamp = (n: number, most: number): number => Math.max(0, Math.min(most, n));
/** A selection inside the grid as it is now; null where there are no cells. */
export function fitted(s: Selection | null, { rows, columns }: Size): Selection | null {
  if (!s || rows === 0 || columns === 0) return null;
  const spot = (p: Spot): Spot => ({ row: clamp(p.row, rows - 1), column: clamp(p.column, columns - 1) });
  return { anchor: spot(s.anchor), head: spot(s.head) };
}

/** How far a screen is, in rows. */
const screen = 12;
/** Where a key leads from a spot; null where it is no key that moves. */
function led(key: string, from: Spot, size: Size): Spot | null {
  const { row, column } = from,
    last = { row: size.rows - 1, column: size.columns - 1 };
  switch (key) {
    case 'ArrowUp':
      return { row: row - 1, column };
    case 'ArrowDown':
      return { row: row + 1, column };
    case 'ArrowLeft':
      return { row, column: column - 1 };
    case 'ArrowRight':
      return { row, column: column + 1 };
    case 'PageUp':
      return { row: row - screen, column };
    case 'PageDown':
      return { row: row + screen, column };
    case 'Home':
      return { row, column: 0 };
    case 'End':
      return { row, column: last.column };
    case 'Ctrl+ArrowUp':
      return { row: 0, column };
    case 'Ctrl+ArrowDown':
      return { row: last.row, column };
    case 'Ctrl+ArrowLeft':
      return { row, column: 0 };
    case 'Ctrl+ArrowRight':
      return { row, column: last.column };
    case 'Ctrl+Home':
      return { row: 0, column: 0 };
    case 'Ctrl+End':
      return last;
    default:
      return null;
  }
}
export const movingKeys = ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'PageUp', 'PageDown', 'Home', 'End'] as const;

/** The selection after a key that moves; with `extend` its anchor stays. Stays inside the grid. */
export function moved(s: Selection, key: string, size: Size, extend = false): Selection | null {
  const to = led(key, s.head, size);
  if (!to) return null;
  const head = { row: clamp(to.row, size.rows - 1), column: clamp(to.column, size.columns - 1) };
  return { anchor: extend ? s.anchor : head, head };
}

/** The cell after (or before) one, row by row; null past the last. */
export function tabbed({ head }: Selection, size: Size, back = false): Selection | null {
  const n = head.row * size.columns + head.column + (back ? -1 : 1);
  return n < 0 || n >= size.rows * size.columns ? null : at(Math.floor(n / size.columns), n % size.columns);
}
export const rowsOf = (first: number, last: number, size: Size): Selection => ({
  anchor: { row: first, column: 0 },
  head: { row: last, column: size.columns - 1 },
});
export const wholeOf = (size: Size): Selection => rowsOf(0, size.rows - 1, size);
export const columnOf = (column: number, size: Size): Selection => ({ anchor: { row: 0, column }, head: { row: size.rows - 1, column } });
