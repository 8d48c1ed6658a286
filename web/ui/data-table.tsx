import { createColumnHelper, tableFeatures, useTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useKeys } from '../app/keys/registry';
import { sentenceOf } from '../app/api';
import { Empty, Trouble, Waiting } from './states';

export interface Column<T> {
  id: string;
  head: string;
  /** In pixels; the column without one takes what is left. */
  width?: number;
  num?: boolean;
  cell(row: T): ReactNode;
  /** What it sorts by, where the list can be sorted by it. */
  sort?: string;
  /** Sorted by it, the first is on top at first; else the largest or latest. */
  ascending?: boolean;
  /** Left out on a phone. */
  minor?: boolean;
}
interface Props<T> {
  label: string;
  rows: T[];
  columns: Column<T>[];
  rowId(row: T): string;
  open?(row: T): void;
  /** The row in hand changed, by key or mouse. */ onHand?(row: T): void;
  /** There are more rows to load. */
  more?: boolean;
  load?(): void;
  loading: boolean;
  error?: unknown;
  empty: string;
  sorted?: { by: string; order: 'asc' | 'desc'; set(by: string, order: 'asc' | 'desc'): void };
  /** Rows that can be marked, and those that are. */
  marking?: { able(row: T): boolean; marked: ReadonlySet<string>; toggle(id: string): void; what(row: T): string };
  /** Under this name the row in hand is remembered, so that going back comes to the same row. */
  remember: string;
}
const features = tableFeatures({});
const rowHeight = 32;

/** Every list: virtual rows, arrows and Enter, marks by Space, more rows as one comes near the end. */
export function DataTable<T extends object>(props: Props<T>) {
  const { rows, rowId, columns, remember, marking } = props;
  const [at, setAt] = useState<string | null>(() => sessionStorage.getItem(`row ${remember}`));
  const scroller = useRef<HTMLDivElement>(null);
  const defined = useMemo(() => {
    const helper = createColumnHelper<typeof features, T>();
    return helper.columns(columns.map((c) => helper.display({ id: c.id, header: c.head, cell: ({ row }) => c.cell(row.original) })));
  }, [columns]);
  const table = useTable({ features, columns: defined, data: rows, getRowId: rowId });
  const model = table.getRowModel().rows;
  const virtual = useVirtualizer({
    count: model.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 12,
  });
  const items = virtual.getVirtualItems();
  const index = Math.max(
    0,
    rows.findIndex((r) => rowId(r) === at),
  );
  const { onHand } = props;
  const inHand = rows[index];
  useEffect(() => {
    if (inHand) onHand?.(inHand);
  }, [inHand, onHand]);
  const { more, load } = props;
  const last = items[items.length - 1]?.index ?? 0;
  useEffect(() => {
    if (more && last > rows.length - 30) load?.();
  }, [more, last, rows.length, load]);
  const shown = useRef(false);
  useEffect(() => {
    if (shown.current || rows.length === 0) return;
    shown.current = true;
    virtual.scrollToIndex(index, { align: 'center' });
  }, [rows.length, index, virtual]);
  const open = (row: T | undefined) => {
    if (!row || !props.open) return;
    sessionStorage.setItem(`row ${remember}`, rowId(row));
    props.open(row);
  };
  const step = (by: number) => {
    const next = Math.max(0, Math.min(rows.length - 1, index + by));
    if (rows[next]) setAt(rowId(rows[next]));
    virtual.scrollToIndex(next);
  };
  useKeys(props.label, [
    { key: 'ArrowDown', what: 'Row below', repeat: true, run: () => step(1) },
    { key: 'ArrowUp', what: 'Row above', repeat: true, run: () => step(-1) },
    { key: 'PageDown', what: 'A screen down', repeat: true, run: () => step(15) },
    { key: 'PageUp', what: 'A screen up', repeat: true, run: () => step(-15) },
    ...(props.open
      ? [
          {
            key: 'Enter',
            what: 'Open it',
            run: (e: KeyboardEvent) => {
              if (e.target instanceof HTMLButtonElement || e.target instanceof HTMLAnchorElement) (e.target as HTMLElement).click();
              else open(rows[index]);
            },
          },
        ]
      : []),
    ...(marking
      ? [
          {
            key: 'Space',
            what: 'Mark it',
            run: () => {
              if (rows[index] && marking.able(rows[index])) marking.toggle(rowId(rows[index]));
            },
          },
        ]
      : []),
  ]);
  const widthOf = (c: Column<T>) => (c.width ? { width: c.width, flex: 'none' } : { flex: '1 1 0', minWidth: 120 });
  const classOf = (c: Column<T>) => `px-1.5 ${c.num ? 'text-right tabular-nums' : ''} ${c.minor ? 'max-md:hidden' : ''}`;
  if (rows.length === 0)
    return (
      <div className="min-h-0 min-w-0 grow overflow-auto">
        {props.error ? <Trouble sentence={sentenceOf(props.error)} /> : props.loading ? <Waiting /> : <Empty>{props.empty}</Empty>}
      </div>
    );
  return (
    <div
      className="flex min-h-0 min-w-0 grow flex-col overflow-hidden"
      role="grid"
      aria-label={props.label}
      aria-rowcount={more ? -1 : rows.length + 1}
    >
      <div role="rowgroup" className="shrink-0 bg-base-200 text-[13px]">
        <div role="row" className="flex h-7 items-center px-4">
          {marking && <span role="columnheader" className="w-7 shrink-0" aria-label="Marked" />}
          {columns.map((c) => (
            <span key={c.id} role="columnheader" className={classOf(c)} style={widthOf(c)} aria-sort={sortOf(c, props.sorted)}>
              {c.sort && props.sorted ? (
                <button
                  className={`inline-flex items-center gap-1 ${props.sorted.by === c.sort ? 'font-semibold' : 'hover:underline'}`}
                  onClick={() => props.sorted!.set(c.sort!, nextOrder(c, props.sorted!))}
                >
                  {c.head}
                  {props.sorted.by === c.sort &&
                    (props.sorted.order === 'desc' ? <ArrowDown size={12} aria-hidden /> : <ArrowUp size={12} aria-hidden />)}
                </button>
              ) : (
                c.head
              )}
            </span>
          ))}
        </div>
      </div>
      <div ref={scroller} role="rowgroup" className="min-h-0 grow overflow-auto" tabIndex={0}>
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {items.map((item) => {
            const row = model[item.index]!;
            return (
              <div
                key={row.id}
                role="row"
                aria-rowindex={item.index + 2}
                aria-selected={item.index === index}
                className={`absolute flex w-full items-center border-t hair px-4 ${props.open ? 'cursor-pointer' : ''} ${item.index === index ? 'bg-primary/10' : 'hover:bg-base-200'}`}
                style={{ top: item.start, height: rowHeight }}
                onClick={(e) => {
                  setAt(row.id);
                  if (!(e.target as HTMLElement).closest('a, button, input, label')) open(row.original);
                }}
              >
                {marking && (
                  <span role="gridcell" className="flex w-7 shrink-0 items-center">
                    {marking.able(row.original) && (
                      <input
                        type="checkbox"
                        className="checkbox checkbox-xs"
                        aria-label={marking.what(row.original)}
                        checked={marking.marked.has(row.id)}
                        onChange={() => marking.toggle(row.id)}
                      />
                    )}
                  </span>
                )}
                {row.getAllCells().map((cell, i) => (
                  <span key={cell.id} role="gridcell" className={`truncate ${classOf(columns[i]!)}`} style={widthOf(columns[i]!)}>
                    <table.FlexRender cell={cell} />
                  </span>
                ))}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

/** How a column is sorted at a click; the same column again turns round. */
const nextOrder = <T,>(c: Column<T>, { by, order }: NonNullable<Props<T>['sorted']>): 'asc' | 'desc' =>
  by === c.sort ? (order === 'desc' ? 'asc' : 'desc') : c.ascending ? 'asc' : 'desc';
const sortOf = <T,>(c: Column<T>, sorted: Props<T>['sorted']): 'ascending' | 'descending' | undefined =>
  c.sort && sorted?.by === c.sort ? (sorted.order === 'asc' ? 'ascending' : 'descending') : undefined;
