import {
  applyOperation,
  cellPath,
  cellsOf,
  headerFields,
  lineFields,
  Misfit,
  placesOf,
  touches,
  type Operation,
} from '@ledgerline/core/bills';
import type { Bill, BillLine } from '@ledgerline/contract';
import type { Clash, Held } from './types';

/** Applies what fits; what does not (a row that is gone) is left out and told apart. */
export function applyWhatFits(bill: Bill, ops: readonly Operation[]): { bill: Bill; misfits: Operation[] } {
  const misfits: Operation[] = [];
  let now = bill;
  for (const op of ops)
    try {
      now = applyOperation(now, op).bill;
    } catch (error) {
      if (!(error instanceof Misfit)) throw error;
      misfits.push(op);
    }
  return { bill: now, misfits };
}

const seen = new WeakMap<Held, Bill>();
/** The bill as it stands on the desk. The same object for the same state. */
export function shownOf(held: Held): Bill {
  let bill = seen.get(held);
  if (!bill) seen.set(held, (bill = applyWhatFits(held.base, [...held.sending, ...held.pending]).bill));
  return bill;
}

/**
 * What is typed in a field takes the place of what was typed there before and not sent: so that a value that the server refused does
 * not go with it for ever. The place on the page that it was taken from stays. A row that came or went in between parts the two.
 */
export function merged(pending: readonly Operation[], next: Operation): Operation[] {
  if (next.do !== 'set' && next.do !== 'set-cell') return [...pending, next];
  const at = touches(next);
  const before = pending.findLastIndex((op) => op.do === next.do && touches(op) === at);
  const parted = next.do === 'set-cell' && pending.slice(before + 1).some((op) => touches(op) === next.line);
  const old = pending[before];
  if (!old || parted) return [...pending, next];
  const mark = next.mark ?? ('mark' in old ? old.mark : undefined);
  return [...pending.filter((_, i) => i !== before), { ...next, ...(mark ? { mark } : {}) }];
}

/** The operations on a bill, each with what takes it back, the last first. Operations that do not fit are left out. */
export function stepOf(bill: Bill, ops: readonly Operation[]): { redo: Operation[]; undo: Operation[] } {
  const redo: Operation[] = [],
    undo: Operation[] = [];
  let now = bill;
  for (const op of ops)
    try {
      const { bill: next, inverse } = applyOperation(now, op);
      now = next;
      redo.push(op);
      if (inverse) undo.unshift(inverse);
    } catch (error) {
      if (!(error instanceof Misfit)) throw error;
    }
  return { redo, undo };
}

const text = (value: unknown): string | null => (value === null || value === undefined ? null : String(value));
const kindSaid = { line: '', stock: 'into stock', asset: 'an asset', charge: 'a charge', text: 'text alone' };
const lineText = (line: BillLine | undefined): string | null =>
  line ? [line.description, line.amount, kindSaid[line.kind]].filter(Boolean).join(' · ') || 'an empty row' : null;
/** What stands at a path: a header field, a cell, or a whole row. */
export function valueAt(bill: Bill, path: string): string | null {
  if ((headerFields as readonly string[]).includes(path)) return text(bill[path as keyof Bill]);
  const [id, cell] = path.split('.');
  const line = bill.lines.find((l) => l.id === id);
  return cell ? text(line?.[cell as keyof BillLine]) : lineText(line);
}

/** Paths at which two states of a bill differ. */
export function changedPaths(a: Bill, b: Bill): Set<string> {
  const changed = new Set<string>(headerFields.filter((f) => a[f] !== b[f]));
  const before = new Map(a.lines.map((l) => [l.id, l])),
    after = new Map(b.lines.map((l) => [l.id, l]));
  for (const id of new Set([...before.keys(), ...after.keys()])) {
    const [x, y] = [before.get(id), after.get(id)];
    if (!x || !y) changed.add(id);
    else if (x.kind !== y.kind) changed.add(id);
    else for (const f of lineFields) if (x[f] !== y[f]) changed.add(cellPath(id, f));
  }
  return changed;
}

const lineOf = (path: string): string => path.split('.')[0]!;
/**
 * Where what was typed meets what somebody else saved meanwhile: the same field or cell with another value, a cell of a row that they
 * removed, a row removed here that they changed.
 */
export function clashesOf(old: Bill, theirs: Bill, mine: readonly Operation[]): Clash[] {
  const changed = changedPaths(old, theirs);
  const my = applyWhatFits(old, mine).bill;
  const clashes = new Map<string, Clash>();
  for (const op of mine) {
    if (op.do === 'looked' || op.do === 'add-line' || op.do === 'move-line') continue;
    const path = touches(op);
    const met = changed.has(path)
      ? path
      : op.do === 'set-cell' && changed.has(op.line)
        ? op.line
        : (op.do === 'remove-line' || op.do === 'set-kind') && [...changed].some((c) => lineOf(c) === op.line)
          ? op.line
          : null;
    if (met === null || clashes.has(met)) continue;
    const clash = { path: met, was: valueAt(old, met), theirs: valueAt(theirs, met), mine: valueAt(my, met) };
    if (clash.theirs !== clash.mine) clashes.set(met, clash);
  }
  return [...clashes.values()];
}

/** What was typed without all that is about a path, a field or a whole row: theirs is taken there. */
export const withoutPath = (ops: readonly Operation[], path: string): Operation[] =>
  ops.filter((op) => {
    const at = touches(op);
    return at !== path && (path.includes('.') || lineOf(at) !== path);
  });

/** What was typed, so that it holds on their bill: a row that they removed and that was worked on here is put back whole. */
export function mineOn(theirs: Bill, old: Bill, ops: readonly Operation[], path: string): Operation[] {
  if (path.includes('.') || theirs.lines.some((l) => l.id === path)) return [...ops];
  const line = applyWhatFits(old, ops).bill.lines.find((l) => l.id === path);
  if (!line) return [...ops];
  const at = old.lines.findIndex((l) => l.id === path);
  const back: Operation = {
    do: 'add-line',
    line: path,
    kind: line.kind,
    after: old.lines[at - 1]?.id ?? null,
    cells: cellsOf(line),
    marks: placesOf(line),
  };
  return [back, ...ops.filter((op) => !('line' in op) || op.line !== path)];
}
