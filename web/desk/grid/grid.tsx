import { useVirtualizer } from '@tanstack/react-virtual';
import { Fragment, useLayoutEffect, useMemo, useRef, type RefObject } from 'react';
import { productOf } from '@ledgerline/core/proof';
import { money } from '../../ui/format';
import type { Desk } from '../use-desk';
import { ColumnEdge } from './column-edge';
import { menuWidth, numberWidth, type ColumnId } from './columns';
import { Foot } from './foot';
import { Row, type Wants } from './row';
import type { RowActs } from './row-menu';
import { columnOf } from './selection';
import type { useGridClipboard } from './use-clipboard';
import type { Grid } from './use-grid';

interface Props {
  desk: Desk;
  grid: Grid;
  acts: RowActs;
  clipboard: Pick<ReturnType<typeof useGridClipboard>, 'onCopy' | 'onCut' | 'onPaste'>;
  rows: Record<string, boolean | null>;
  /** A column was sized. */ onWidth(column: ColumnId, width: number): void;
  /** The row above which the page's ink stands, and how much room that wants. */ ink: { line: string | null; height: number } | null;
  /** What scrolls the grid. */ scroller: RefObject<HTMLElement | null>;
}
/** Up to so many rows are simply there. */
const few = 60;
const rowHeight = 33,
  failHeight = 14;
const heightOf = (fails: string | null): number => rowHeight + (fails ? failHeight : 0);

/** The line grid, as a spreadsheet: figures and coding in one row, only the cell in hand a field, only the rows in sight there. */
export function LineGrid({ desk, grid, acts, clipboard, rows, onWidth, ink, scroller }: Props) {
  const { bill, locked } = desk;
  const { columns, size } = grid;
  const wide = numberWidth + menuWidth + columns.reduce((n, c) => n + c.width, 0);
  const wants = useMemo(
    (): Wants => ({
      unsure: new Set(bill.unsure),
      stops: new Set(bill.exceptions.filter((e) => e.severity === 'stops').map((e) => e.path)),
    }),
    [bill.unsure, bill.exceptions],
  );
  const fails = useMemo(
    () =>
      bill.lines.map((line) => {
        const product = rows[line.id] === false ? productOf(line, bill.currency) : null;
        if (!product) return null;
        const per = line.priceQuantity === '1' ? '' : ` / ${line.priceQuantity}`,
          less = line.discountPercent ? ` − ${line.discountPercent} %` : '';
        return `${line.quantity} × ${line.unitPrice}${per}${less} = ${money(product.toFixed(), bill.currency)}`;
      }),
    [bill.lines, bill.currency, rows],
  );
  const body = useRef<HTMLTableSectionElement>(null);
  const heights = bill.lines.map((l, i) => heightOf(fails[i]!) + (ink?.line === l.id ? ink.height : 0));
  const virtual = useVirtualizer({
    count: size.rows,
    enabled: size.rows > few,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => heights[i]!,
    getItemKey: (i) => bill.lines[i]!.id,
    overscan: 8,
    scrollMargin: body.current?.offsetTop ?? 0,
    scrollPaddingStart: 40,
    scrollPaddingEnd: 40,
  });
  const changed = heights.join();
  useLayoutEffect(() => virtual.measure(), [changed, virtual]);
  const head = grid.selection?.head.row;
  useLayoutEffect(() => {
    if (head !== undefined && size.rows > few) virtual.scrollToIndex(head);
  }, [head, size.rows, virtual]);
  const items = size.rows > few ? virtual.getVirtualItems() : null;
  const shown = items ? items.map((i) => i.index) : bill.lines.map((_, i) => i);
  // The row in hand stays there, so that what is typed in it does, too.
  const extra = head !== undefined && !shown.includes(head) ? head : null;
  const margin = virtual.options.scrollMargin;
  const above = items?.[0] ? items[0].start - margin : 0,
    below = items?.length ? virtual.getTotalSize() - (items[items.length - 1]!.end - margin) : 0;
  const row = (i: number) => {
    const line = bill.lines[i]!;
    return (
      <Fragment key={line.id}>
        {ink?.line === line.id && (
          <tr data-ink-row={line.id} aria-hidden>
            <td colSpan={columns.length + 2} style={{ height: ink.height }} />
          </tr>
        )}
        <Row
          {...{ desk, grid, line, wants, acts }}
          index={i}
          height={heightOf(fails[i]!)}
          fails={fails[i]!}
          holds={rows[line.id] ?? null}
        />
      </Fragment>
    );
  };
  return (
    <table
      role="grid"
      aria-label="Rows"
      data-grid
      aria-rowcount={size.rows + 1}
      aria-colcount={columns.length + 1}
      aria-multiselectable
      className="table-fixed border-b hair text-[14px]"
      style={{ width: wide }}
      {...clipboard}
    >
      <colgroup>
        <col style={{ width: numberWidth }} />
        {columns.map((c) => (
          <col key={c.id} style={{ width: c.width }} />
        ))}
        <col style={{ width: menuWidth }} />
      </colgroup>
      <thead className="sticky top-0 z-20 bg-base-200">
        <tr>
          <th className="border-y hair" aria-label="Row" />
          {columns.map((c, i) => (
            <th
              key={c.id}
              scope="col"
              className={`relative h-7 cursor-pointer truncate border-y hair px-1.5 text-[12px] font-medium ${c.num ? 'text-right' : 'text-left'}`}
              onClick={() => {
                const { anchor, head: to } = columnOf(i, size);
                if (size.rows > 0) grid.select({ anchor: to, head: anchor });
              }}
            >
              {c.head}
              <ColumnEdge width={c.width} onWidth={(width) => onWidth(c.id, width)} />
            </th>
          ))}
          <th className="border-y hair" aria-hidden />
        </tr>
      </thead>
      <tbody ref={body}>
        {above > 0 && (
          <tr aria-hidden>
            <td colSpan={columns.length + 2} style={{ height: above }} />
          </tr>
        )}
        {extra !== null && extra < (shown[0] ?? 0) && row(extra)}
        {shown.map(row)}
        {extra !== null && extra > (shown[0] ?? 0) && row(extra)}
        {below > 0 && (
          <tr aria-hidden>
            <td colSpan={columns.length + 2} style={{ height: below }} />
          </tr>
        )}
        {!locked && (
          <tr className="border-t hair">
            <td />
            <td colSpan={columns.length + 1}>
              <button className="h-8 px-1.5 quiet hover:text-accent" title="Alt+N" onClick={() => desk.addRow()}>
                Add a row
              </button>
            </td>
          </tr>
        )}
      </tbody>
      <Foot desk={desk} grid={grid} />
    </table>
  );
}
