import type { Mark } from '../page/index.ts';
import { cellsOf, placesOf } from './cells.ts';
import { cellPath } from './paths.ts';
import { emptyCells, lineFields, textCells, type Operation, type StoredMark, type WorkingBill, type WorkingLine } from './types.ts';

/** An operation that does not fit the bill it is applied to: a line that is not there, or is there already. */
export class Misfit extends Error {}

const byHand = (mark: Mark | null): StoredMark => ({ mark, confidence: 1, proof: null });

const handMarks = (places: Record<string, Mark> | undefined): Record<string, StoredMark> =>
  Object.fromEntries(Object.entries(places ?? {}).map(([field, mark]) => [field, byHand(mark)]));

/** Marks after a value was set by hand: its place stays, or is the one it was taken from; no sum proves it any more. */
function marksAfter(marks: Record<string, StoredMark>, field: string, mark: Mark | undefined): Record<string, StoredMark> {
  const place = mark ?? marks[field]?.mark ?? null;
  if (!place) {
    const { [field]: _, ...rest } = marks;
    return rest;
  }
  return { ...marks, [field]: byHand(place) };
}

const without = (unsure: string[], ...paths: string[]): string[] =>
  unsure.some((p) => paths.includes(p)) ? unsure.filter((p) => !paths.includes(p)) : unsure;

function indexOf(bill: WorkingBill, line: string): number {
  const at = bill.lines.findIndex((l) => l.id === line);
  if (at < 0) throw new Misfit('This row is not on the bill any more.');
  return at;
}
/** Where a line goes that stands after another, or first. */
const placeAfter = (lines: WorkingLine[], after: string | null): number => {
  if (after === null) return 0;
  const at = lines.findIndex((l) => l.id === after);
  return at < 0 ? lines.length : at + 1;
};
const insert = (lines: WorkingLine[], at: number, line: WorkingLine): WorkingLine[] => [...lines.slice(0, at), line, ...lines.slice(at)];

/**
 * The bill after one operation, and the operation that takes it back. Setting what stands there already, without a place, changes
 * nothing but the doubt. Throws Misfit where the operation does not fit.
 */
export function applyOperation<B extends WorkingBill>(bill: B, op: Operation): { bill: B; inverse: Operation | null } {
  switch (op.do) {
    case 'set': {
      const unsure = without(bill.unsure, op.field);
      if (bill[op.field] === op.value && !op.mark) return { bill: { ...bill, unsure }, inverse: null };
      const before = bill.marks[op.field]?.mark;
      return {
        bill: { ...bill, [op.field]: op.value, unsure, marks: marksAfter(bill.marks, op.field, op.mark) },
        inverse: { do: 'set', field: op.field, value: bill[op.field], ...(before ? { mark: before } : {}) },
      };
    }
    case 'set-cell': {
      const at = indexOf(bill, op.line),
        line = bill.lines[at]!;
      const unsure = without(bill.unsure, cellPath(op.line, op.field));
      if (line[op.field] === op.value && !op.mark) return { bill: { ...bill, unsure }, inverse: null };
      const changed: WorkingLine = {
        ...line,
        [op.field]: op.field === 'description' ? (op.value ?? '') : op.value,
        marks: marksAfter(line.marks, op.field, op.mark),
      };
      const before = line.marks[op.field]?.mark;
      return {
        bill: { ...bill, unsure, lines: bill.lines.map((l, i) => (i === at ? changed : l)) },
        inverse: { do: 'set-cell', line: op.line, field: op.field, value: line[op.field], ...(before ? { mark: before } : {}) },
      };
    }
    case 'add-line': {
      if (bill.lines.some((l) => l.id === op.line)) throw new Misfit('This row is on the bill already.');
      const line: WorkingLine = {
        ...emptyCells(),
        ...op.cells,
        id: op.line,
        kind: op.kind,
        marks: handMarks(op.marks),
      };
      return {
        bill: { ...bill, unsure: without(bill.unsure, 'lines'), lines: insert(bill.lines, placeAfter(bill.lines, op.after), line) },
        inverse: { do: 'remove-line', line: op.line },
      };
    }
    case 'remove-line': {
      const at = indexOf(bill, op.line),
        line = bill.lines[at]!;
      return {
        bill: {
          ...bill,
          unsure: without(bill.unsure, 'lines', ...lineFields.map((f) => cellPath(op.line, f))),
          lines: bill.lines.filter((_, i) => i !== at),
        },
        inverse: {
          do: 'add-line',
          line: op.line,
          kind: line.kind,
          after: bill.lines[at - 1]?.id ?? null,
          cells: cellsOf(line),
          marks: placesOf(line),
        },
      };
    }
    case 'move-line': {
      const at = indexOf(bill, op.line),
        line = bill.lines[at]!,
        rest = bill.lines.filter((_, i) => i !== at);
      return {
        bill: { ...bill, lines: insert(rest, placeAfter(rest, op.after), line) },
        inverse: { do: 'move-line', line: op.line, after: bill.lines[at - 1]?.id ?? null },
      };
    }
    case 'set-kind': {
      const at = indexOf(bill, op.line),
        line = bill.lines[at]!;
      const taken = op.kind === 'text' ? lineFields.filter((f) => !textCells.includes(f)) : [];
      const empty = emptyCells();
      const changed: WorkingLine = {
        ...line,
        ...Object.fromEntries(taken.map((f) => [f, empty[f]])),
        ...op.cells,
        kind: op.kind,
        marks: {
          ...Object.fromEntries(
            Object.entries(line.marks).filter(([f]) => !taken.includes(f as never) && !(taken.length && f === 'coding')),
          ),
          ...handMarks(op.marks),
        },
      };
      return {
        bill: {
          ...bill,
          unsure: without(bill.unsure, ...taken.map((f) => cellPath(op.line, f))),
          lines: bill.lines.map((l, i) => (i === at ? changed : l)),
        },
        inverse: {
          do: 'set-kind',
          line: op.line,
          kind: line.kind,
          // A row of text that was typed in meanwhile has more than words to get back.
          ...(taken.length || line.kind === 'text' ? { cells: cellsOf(line), marks: placesOf(line) } : {}),
        },
      };
    }
    case 'looked':
      return { bill: { ...bill, unsure: without(bill.unsure, op.path) }, inverse: null };
  }
}

/** All operations one after another. Throws Misfit at the first that does not fit. */
export const applyAll = <B extends WorkingBill>(bill: B, ops: readonly Operation[]): B =>
  ops.reduce<B>((now, op) => applyOperation(now, op).bill, bill);

/** The path that an operation is about: what a conflict is told by. Moving a line touches the order alone. */
export function touches(op: Operation): string {
  switch (op.do) {
    case 'set':
      return op.field;
    case 'set-cell':
      return cellPath(op.line, op.field);
    case 'add-line':
    case 'remove-line':
    case 'set-kind':
      return op.line;
    case 'move-line':
      return `${op.line}.order`;
    case 'looked':
      return op.path;
  }
}
