import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { cellPath, parsePath } from '@ledgerline/core/bills';
import { textWidth } from '../../ui/measure';
import { onReach } from '../focus';
import type { Desk } from '../use-desk';
import { placeColumns, type ColumnsView, type Placed } from './columns';
import { at, blockOf, fitted, isOne, type Block, type Selection, type Size } from './selection';

/** The field in the cell in hand, for whoever moves on. */
export interface Editor {
  /** no: ready, all of it marked; replace: typed over what stood there; edit: the cursor is in it. */
  typing(): 'no' | 'replace' | 'edit';
  /** Puts the cursor into what stands there. */
  begin(): void;
  /** Takes what is typed; false where it cannot stand there. */
  commit(): boolean;
  /** Leaves it as it was. */
  cancel(): void;
  /** Takes the cursor, all of it marked. */
  focus(): void;
}
export interface Grid {
  columns: Placed[];
  size: Size;
  selection: Selection | null;
  block: Block | null;
  /** The cell that Tab comes to while the cursor is elsewhere. */
  entry: { row: number; column: number };
  editor: React.RefObject<Editor | null>;
  pathOf(row: number, column: number): string;
  /** Takes what is typed and selects something else; false where what is typed cannot stand there. */
  select(selection: Selection): boolean;
}

/** The grid's columns and what is selected in it. The cursor is the desk's field in hand. */
export function useGrid(desk: Desk | null, view: ColumnsView, room: number): Grid | null {
  const bill = desk?.bill ?? null,
    active = desk?.active ?? null,
    choiceOf = desk?.choiceOf;
  const columns = useMemo(
    () => (bill && choiceOf ? placeColumns(bill, choiceOf, room, textWidth, view) : []),
    [bill, choiceOf, room, view],
  );
  const [anchor, setAnchor] = useState<string | null>(null);
  const editor = useRef<Editor | null>(null);
  const lines = bill?.lines;
  const spotOf = useCallback(
    (path: string | null) => {
      const cell = path ? parsePath(path) : null;
      if (!cell || !('line' in cell) || !lines) return null;
      const row = lines.findIndex((l) => l.id === cell.line),
        column = columns.findIndex((c) => c.id === cell.cell);
      return row < 0 || column < 0 ? null : { row, column };
    },
    [lines, columns],
  );
  const size = useMemo((): Size => ({ rows: lines?.length ?? 0, columns: columns.length }), [lines, columns]);
  const head = spotOf(active);
  const selection = useMemo(
    () => (head ? fitted({ anchor: spotOf(anchor) ?? head, head }, size) : null),
    [head?.row, head?.column, anchor, spotOf, size], // eslint-disable-line react-hooks/exhaustive-deps -- by its places
  );
  const entry = useRef({ row: 0, column: 0 });
  if (selection) entry.current = selection.head;
  const take = desk?.take;
  const reach = useCallback(
    (path: string) => {
      if (!spotOf(path)) return false;
      setAnchor(null);
      take?.(path);
      editor.current?.focus();
      return true;
    },
    [spotOf, take],
  );
  useEffect(() => onReach(reach), [reach]);
  if (!desk || !bill) return null;
  const pathOf = (row: number, column: number) => cellPath(bill.lines[row]!.id, columns[column]!.id);
  const block = selection && blockOf(selection);
  return {
    columns,
    size,
    selection,
    block,
    entry: fitted(at(entry.current.row, entry.current.column), size)?.head ?? { row: 0, column: 0 },
    editor,
    pathOf,
    select(next) {
      if (editor.current && !editor.current.commit()) return false;
      setAnchor(isOne(next) ? null : pathOf(next.anchor.row, next.anchor.column));
      const path = pathOf(next.head.row, next.head.column);
      if (path === active) editor.current?.focus();
      desk.take(path);
      return true;
    },
  };
}
