import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, blockOf, columnOf, fitted, isOne, moved, movingKeys, rowsOf, tabbed, wholeOf, within } from './selection';

const size = { rows: 4, columns: 3 };
const where = (s: ReturnType<typeof moved>) => s && [s.head.row, s.head.column];

describe('the selection', () => {
  it('moves by arrows and jumps to the ends', () => {
    expect(where(moved(at(1, 1), 'ArrowDown', size))).toEqual([2, 1]);
    expect(where(moved(at(1, 1), 'End', size))).toEqual([1, 2]);
    expect(where(moved(at(1, 1), 'Ctrl+End', size))).toEqual([3, 2]);
    expect(where(moved(at(3, 1), 'PageUp', size))).toEqual([0, 1]);
    expect(moved(at(1, 1), 'x', size)).toBeNull();
  });
  it('grows from its anchor and is one block, whichever way it is drawn', () => {
    const up = moved(moved(at(2, 2), 'ArrowUp', size, true)!, 'ArrowLeft', size, true)!;
    expect(blockOf(up)).toEqual({ top: 1, bottom: 2, left: 1, right: 2 });
    expect([within(blockOf(up), 1, 1), within(blockOf(up), 3, 1), isOne(up)]).toEqual([true, false, false]);
  });
  it('goes through all cells by Tab, row by row, and out at both ends', () => {
    const seen: string[] = [];
    for (let s: ReturnType<typeof tabbed> = at(0, 0); s; s = tabbed(s, size)) seen.push(`${s.head.row}${s.head.column}`);
    expect(seen).toEqual(['00', '01', '02', '10', '11', '12', '20', '21', '22', '30', '31', '32']);
    expect(tabbed(at(0, 0), size, true)).toBeNull();
    expect(where(tabbed(at(2, 0), size, true))).toEqual([1, 2]);
  });
  it('takes whole rows, columns and all', () => {
    expect(blockOf(rowsOf(2, 1, size))).toEqual({ top: 1, bottom: 2, left: 0, right: 2 });
    expect(blockOf(columnOf(1, size))).toEqual({ top: 0, bottom: 3, left: 1, right: 1 });
    expect(blockOf(wholeOf(size))).toEqual({ top: 0, bottom: 3, left: 0, right: 2 });
  });
  it('never leaves the grid, whatever is pressed and however the grid shrinks', () => {
    const key = fc.tuple(fc.constantFrom('', 'Ctrl+'), fc.constantFrom(...movingKeys)).map(([c, k]) => c + k);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 1, max: 12 }),
        fc.array(fc.tuple(key, fc.boolean()), { maxLength: 30 }),
        fc.integer({ min: 1, max: 5 }),
        (rows, columns, keys, less) => {
          let s = at(0, 0);
          for (const [k, extend] of keys) s = moved(s, k, { rows, columns }, extend) ?? s;
          const smaller = { rows: Math.max(1, rows - less), columns };
          const b = blockOf(fitted(s, smaller)!);
          expect(b.top >= 0 && b.left >= 0 && b.bottom < smaller.rows && b.right < columns).toBe(true);
        },
      ),
    );
    expect(fitted(at(0, 0), { rows: 0, columns: 3 })).toBeNull();
  });
});
