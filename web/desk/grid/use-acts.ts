import { useMemo, useRef } from 'react';
import { joinRows, type LineKind, type Operation } from '@ledgerline/core/bills';
import type { RowQuestion } from '../row-dialogs';
import type { Desk } from '../use-desk';
import { copyToAll, moveRows } from './edits';
import type { RowActs } from './row-menu';
import { at, rowsOf, type Selection } from './selection';
import type { Grid } from './use-grid';

/** Kinds of row, in the order in which a key goes through them: text alone, which takes figures away, at the end. */
export const kindsInTurn: readonly LineKind[] = ['line', 'charge', 'stock', 'asset', 'text'];

/** What the mouse and the keys do with cells and rows. The same object as long as the grid is there. */
export function useGridActs(desk: Desk | null, grid: Grid | null, ask: (about: RowQuestion) => void): RowActs {
  const now = useRef({ desk, grid, ask });
  now.current = { desk, grid, ask };
  return useMemo(() => {
    const both = () => {
      const { desk: d, grid: g } = now.current;
      return d && g ? { desk: d, grid: g, lines: d.bill.lines } : null;
    };
    const select = (s: Selection) => both()?.grid.select(s) ?? false;
    /** The rows that an act on one is for: all that are selected, where it is one of them. */
    const meant = (row: number): { top: number; bottom: number } => {
      const rows = both()?.grid.block;
      return rows && row >= rows.top && row <= rows.bottom ? rows : { top: row, bottom: row };
    };
    const edit = (operations: Operation[]) => {
      const b = both();
      if (b && !b.desk.locked && operations.length > 0 && (b.grid.editor.current?.commit() ?? true)) b.desk.edit(...operations);
    };
    const acts: RowActs = {
      take: (row, column) => void select(at(row, column)),
      press(row, column, extend) {
        const anchor = both()?.grid.selection?.anchor;
        select(extend && anchor ? { anchor, head: { row, column } } : at(row, column));
      },
      draw(row, column) {
        const anchor = both()?.grid.selection?.anchor;
        if (anchor) select({ anchor, head: { row, column } });
      },
      selectRows(row, extend) {
        const b = both();
        if (!b) return;
        const first = extend && b.grid.selection ? b.grid.selection.anchor.row : row;
        select(rowsOf(first, row, b.grid.size));
      },
      insert(row, where) {
        const b = both();
        if (!b || b.desk.locked) return;
        const after = where === 'below' ? b.lines[row]?.id : b.lines[row - 1]?.id;
        b.desk.addRow(after ?? null);
      },
      move(row, by) {
        const b = both(),
          { top, bottom } = meant(row);
        if (b) edit(moveRows(b.desk.bill, top, bottom, by));
      },
      ask(what, row) {
        if (both()?.grid.editor.current?.commit() ?? true) now.current.ask({ what, row });
      },
      join(row) {
        const b = both(),
          { top, bottom } = meant(row);
        if (b) edit(joinRows(b.lines.slice(top, Math.max(bottom, top + 1) + 1), b.desk.bill.currency));
      },
      kind(row, kind) {
        const b = both(),
          { top, bottom } = meant(row);
        if (b)
          edit(b.lines.slice(top, bottom + 1).flatMap((l) => (l.kind === kind ? [] : [{ do: 'set-kind' as const, line: l.id, kind }])));
      },
      toAll(row) {
        const b = both(),
          block = b?.grid.block;
        if (b && block) edit(copyToAll(b.desk.bill, b.grid.columns, row === block.top ? block : { ...block, top: row, bottom: row }));
      },
      remove(row) {
        const b = both(),
          { top, bottom } = meant(row);
        if (!b) return;
        edit(b.lines.slice(top, bottom + 1).map((l) => ({ do: 'remove-line', line: l.id })));
        // The row that comes to its place is in hand then.
        const next = b.lines[bottom + 1] ?? b.lines[top - 1];
        const column = b.grid.columns[b.grid.selection?.head.column ?? 0];
        if (next && column) b.desk.take(`${next.id}.${column.id}`);
      },
    };
    return acts;
  }, []);
}
