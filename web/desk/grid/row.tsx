import { memo } from 'react';
import { cellPath } from '@ledgerline/core/bills';
import type { BillLine } from '@ledgerline/contract';
import { cellName } from '../marks';
import type { Desk } from '../use-desk';
import { CellChoice } from './cell-choice';
import { CellInput } from './cell-input';
import { isChoice, textOf, type Placed } from './columns';
import { hasCell } from './edits';
import { RowMenu, type RowActs } from './row-menu';
import type { Grid } from './use-grid';

/** What a row's cells want said about them: paths that the reader doubts, and paths that stop the bill. */
export interface Wants {
  unsure: ReadonlySet<string>;
  stops: ReadonlySet<string>;
}
interface Props {
  desk: Desk;
  grid: Grid;
  line: BillLine;
  index: number;
  /** The row's own sum where it fails: "7 × 588.00 = 4,116.00". */
  fails: string | null;
  holds: boolean | null;
  /** In pixels: a row that says what it makes is taller. */ height: number;
  wants: Wants;
  acts: RowActs;
}
const kinds = { line: '', stock: 's', asset: 'a', charge: '+', text: '¶' };
const said = { stock: 'Bought into stock: posting makes its receipt', asset: 'An asset' };

/** One row of the grid: its number, its cells, and what can be done with it. */
export function Row({ desk, grid, line, index, fails, holds, height, wants, acts }: Props) {
  const { selection, block, columns } = grid;
  const shared = desk.bill.shared.find((s) => s.row === line.id);
  const inRows = block !== null && index >= block.top && index <= block.bottom;
  return (
    <tr className="group border-t hair" style={{ height }} data-row={index} aria-rowindex={index + 2}>
      <th
        scope="row"
        className={`cursor-pointer border-r-2 border-double hair px-1 text-right align-top text-[12px] leading-[31px] font-normal ${holds === false ? 'font-semibold text-error' : 'quiet'} ${inRows ? 'bg-primary/15' : ''}`}
        title={
          fails
            ? `The row’s own figures make ${fails}`
            : line.kind === 'charge'
              ? `A charge${shared ? `, ${shared.said}` : ''}`
              : line.kind === 'text'
                ? 'Text alone'
                : line.kind !== 'line'
                  ? said[line.kind]
                  : holds
                    ? 'Quantity × price is the amount'
                    : undefined
        }
        onMouseDown={(e) => {
          e.preventDefault();
          acts.selectRows(index, e.shiftKey);
        }}
      >
        {kinds[line.kind]}
        {index + 1}
      </th>
      {columns.map((column, c) => {
        const head = selection?.head.row === index && selection.head.column === c;
        return (
          <Cell
            key={column.id}
            {...{ desk, grid, line, index, column, at: c, wants }}
            head={head}
            selected={block !== null && !head && inRows && c >= block.left && c <= block.right}
            entry={!selection && grid.entry.row === index && grid.entry.column === c}
            fails={column.id === 'amount' ? fails : null}
            acts={acts}
          />
        );
      })}
      <td className="align-top">{!desk.locked && <RowMenu index={index} line={line} acts={acts} last={index === grid.size.rows - 1} />}</td>
    </tr>
  );
}

interface CellProps extends Pick<Props, 'desk' | 'grid' | 'line' | 'index' | 'wants' | 'fails' | 'acts'> {
  column: Placed;
  at: number;
  head: boolean;
  selected: boolean;
  entry: boolean;
}
function Cell({ desk, grid, line, index, wants, fails, acts, column, at, head, selected, entry }: CellProps) {
  const path = cellPath(line.id, column.id);
  const look = `cell-field ${wants.unsure.has(path) ? 'unsure' : ''} ${wants.stops.has(path) ? 'wanted' : ''}`;
  const text = textOf(line, column, desk.bill.currency, desk.choiceOf);
  const there = hasCell(line, column);
  const label = cellName(index, column.id, desk.bill.dimensions);
  return (
    <td
      role="gridcell"
      data-field={path}
      aria-colindex={at + 2}
      aria-selected={head || selected}
      tabIndex={head ? -1 : entry ? 0 : -1}
      title={!head && text.length > 8 ? text : undefined}
      className={`relative h-8 p-0 align-top ${selected ? 'bg-primary/12' : ''} ${head ? '' : 'cursor-cell select-none'} ${isChoice(column) ? 'text-accent' : ''}`}
      onFocus={(e) => {
        if (e.target === e.currentTarget) acts.take(index, at);
      }}
      onMouseDown={(e) => {
        if (head || e.button !== 0) return;
        e.preventDefault();
        acts.press(index, at, e.shiftKey);
      }}
      onMouseEnter={(e) => {
        if (e.buttons === 1) acts.draw(index, at);
      }}
    >
      {head ? (
        isChoice(column) && there ? (
          <CellChoice key={path} {...{ desk, line, column, label }} className={look} editor={grid.editor} />
        ) : (
          <CellInput
            key={path}
            {...{ line, column, label }}
            currency={desk.bill.currency}
            readOnly={desk.locked || !there}
            className={look}
            editor={grid.editor}
            onSave={(value) => desk.setCell(line.id, column.id, value)}
          />
        )
      ) : (
        <Shown text={text} look={look} num={column.num} there={there} />
      )}
      {fails && (
        <span className="pointer-events-none absolute right-1.5 bottom-0 text-[11px] leading-4 whitespace-nowrap text-error">{fails}</span>
      )}
    </td>
  );
}

const Shown = memo(function Shown({ text, look, num, there }: { text: string; look: string; num?: boolean; there: boolean }) {
  const more = text.split('\n').length - 1;
  return (
    <div className={`${look} flex items-center ${num ? 'justify-end' : ''} ${there ? '' : 'bg-base-200/60'}`}>
      <span className="truncate">{more > 0 ? text.slice(0, text.indexOf('\n')) : text}</span>
      {more > 0 && <span className="ml-1 shrink-0 text-[11px] quiet">+{more}</span>}
    </div>
  );
});
