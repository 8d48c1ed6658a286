import { cellPath, textCells, type Operation } from '@ledgerline/core/bills';
import { readFigures } from '@ledgerline/core/clipboard';
import type { NumberStyle } from '@ledgerline/core/numbers';
import type { Bill, BillLine, Choice, ChoiceKind } from '@ledgerline/contract';
import { isChoice, type Column } from './columns';
import type { Block } from './selection';
import { figureFrom, valueFrom } from './values';

type OfBill = Pick<Bill, 'lines' | 'currency'>;
/** Whether a row has such a cell: a row of text alone has words and a code. */
export const hasCell = (line: Pick<BillLine, 'kind'>, column: Pick<Column, 'id'>): boolean =>
  line.kind !== 'text' || textCells.includes(column.id);
const emptied = (column: Column): string | null => (column.id === 'description' ? '' : column.id === 'priceQuantity' ? '1' : null);
const set = (line: string, field: Column['id'], value: string | null): Operation => ({ do: 'set-cell', line, field, value });

/** Empties every cell of a block. */
export const clear = (bill: OfBill, columns: readonly Column[], b: Block): Operation[] =>
  bill.lines
    .slice(b.top, b.bottom + 1)
    .flatMap((line) =>
      columns.slice(b.left, b.right + 1).flatMap((c) => (line[c.id] === emptied(c) ? [] : [set(line.id, c.id, emptied(c))])),
    );

/** Fills the rows below the first of a block with what stands in it; a block of one row takes what stands above it. */
export function fillDown(bill: OfBill, columns: readonly Column[], b: Block): Operation[] {
  const from = b.top === b.bottom ? b.top - 1 : b.top;
  return copyTo(bill, columns, b, from, bill.lines.slice(Math.max(from, 0) + 1, b.bottom + 1));
}
/** Puts what stands in the first row of a block into the same columns of all rows that can take it. */
export const copyToAll = (bill: OfBill, columns: readonly Column[], b: Block): Operation[] => copyTo(bill, columns, b, b.top, bill.lines);

function copyTo(bill: OfBill, columns: readonly Column[], b: Block, from: number, to: readonly BillLine[]): Operation[] {
  const source = bill.lines[from];
  if (!source) return [];
  return to.flatMap((line) =>
    columns
      .slice(b.left, b.right + 1)
      .flatMap((c) => (line.id !== source.id && hasCell(line, c) && line[c.id] !== source[c.id] ? [set(line.id, c.id, source[c.id])] : [])),
  );
}

/** Moves rows one place up or down; none at the edge. */
export function moveRows(bill: OfBill, top: number, bottom: number, by: -1 | 1): Operation[] {
  const other = bill.lines[by < 0 ? top - 1 : bottom + 1];
  if (!other) return [];
  const after = by < 0 ? bill.lines[bottom]!.id : (bill.lines[top - 1]?.id ?? null);
  return [{ do: 'move-line', line: other.id, after }];
}

/** Where a cell could not be taken, and why: by row and column, as people count. */
export interface Trouble {
  path: string;
  sentence: string;
}
export interface Paste {
  bill: OfBill;
  columns: readonly Column[];
  /** What is selected: a single pasted cell fills it. */
  block: Block;
  cells: readonly (readonly string[])[];
  /** Styles in which figures may be written, the likelier first. */
  styles: readonly NumberStyle[];
  today: string;
  order: 'day-first' | 'month-first';
  /** A choice by what was written for it. */
  choose(of: ChoiceKind, text: string): Choice | null;
  /** Ids for rows that are added. */
  newId(): string;
}
/** The cells that a pasted block is for: repeated over the selection where that is a multiple of it, rows added where it is longer. */
function aims({ bill, columns, block, cells }: Pick<Paste, 'bill' | 'columns' | 'block' | 'cells'>) {
  const high = cells.length,
    wide = Math.max(...cells.map((row) => row.length));
  const rows = block.bottom - block.top + 1,
    across = block.right - block.left + 1;
  const times = rows % high === 0 && rows > high ? rows / high : 1,
    beside = across % wide === 0 && across > wide ? across / wide : 1;
  const found: { row: number; column: Column; text: string }[] = [];
  for (let r = 0; r < high * times; r++)
    for (let c = 0; c < wide * beside; c++) {
      const column = columns[block.left + c],
        text = cells[r % high]![c % wide];
      if (column && text !== undefined) found.push({ row: block.top + r, column, text });
    }
  return { found, added: Math.max(0, block.top + high * times - bill.lines.length) };
}

/** What of a pasted block has to be looked up: each text once. */
export function toChoose(p: Pick<Paste, 'bill' | 'columns' | 'block' | 'cells'>): { of: ChoiceKind; text: string }[] {
  const all = new Map<string, { of: ChoiceKind; text: string }>();
  for (const { column, text } of aims(p).found)
    if (isChoice(column) && text.trim()) all.set(`${column.content} ${text.trim()}`, { of: column.content, text: text.trim() });
  return [...all.values()];
}

/**
 * A pasted block as operations, from the block's first cell on. Figures of one column are read in one style. What does not fit is left as
 * it was and told by row and column.
 */
export function paste(p: Paste): { operations: Operation[]; troubles: Trouble[] } {
  const { bill } = p;
  const { found, added } = aims(p);
  const ids = Array.from({ length: added }, p.newId);
  const idOf = (row: number) => bill.lines[row]?.id ?? ids[row - bill.lines.length]!;
  const operations: Operation[] = ids.map((line, i) => ({
    do: 'add-line',
    line,
    kind: 'line',
    after: i > 0 ? ids[i - 1]! : (bill.lines[bill.lines.length - 1]?.id ?? null),
  }));
  const troubles: Trouble[] = [];
  const figures = new Map<Column, Map<number, string | null>>();
  for (const column of new Set(found.map((f) => f.column)))
    if (column.num) {
      const own = found.filter((f) => f.column === column);
      const read = readFigures(
        own.map((f) => f.text),
        p.styles,
      );
      figures.set(column, new Map(own.map((f, i) => [f.row, read[i]!])));
    }
  for (const { row, column, text } of found) {
    const line = bill.lines[row];
    const wrong = (why: string) =>
      void troubles.push({ path: cellPath(idOf(row), column.id), sentence: `Row ${row + 1}, ${column.head.toLowerCase()}: ${why}.` });
    if (line && !hasCell(line, column)) {
      if (text.trim()) wrong('this row is text alone');
      continue;
    }
    let value: string | null;
    if (isChoice(column) && text.trim()) {
      const choice = p.choose(column.content, text.trim());
      if (!choice) {
        wrong(`“${text.trim()}” is not on the list`);
        continue;
      }
      value = choice.id;
    } else {
      const plain = figures.get(column)?.get(row);
      const read = plain ? figureFrom(plain, column, bill.currency) : valueFrom(text, column, bill.currency, p.today, p.order);
      if ('wrong' in read) {
        wrong(read.wrong);
        continue;
      }
      value = isChoice(column) ? null : read.value;
    }
    if (!line ? value !== emptied(column) : line[column.id] !== value) operations.push(set(idOf(row), column.id, value));
  }
  return { operations, troubles };
}
