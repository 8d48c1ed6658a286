import { useRef } from 'react';
import { toast } from 'sonner';
import { parsePath, type Operation } from '@ledgerline/core/bills';
import type { ShownPage } from '../ui/page-view';
import { othersFor } from './others';
import type { Print } from './print';
import type { Desk } from './use-desk';

interface Round {
  path: string;
  bill: string;
  /** What is gone through; the last is what stood there at first. */
  steps: Operation[];
  at: number;
}

/** Goes through what else the field in hand could be: each press puts the next one there, lit up on the page, the last what stood there. */
export function useOthers(desk: Desk | null, pages: readonly ShownPage[], print: Print | null): (by: 1 | -1) => void {
  const round = useRef<Round | null>(null);
  return (by) => {
    const path = desk?.active;
    if (!desk || !print || !path || desk.locked) return;
    const { bill } = desk;
    if (round.current?.path !== path || round.current.bill !== bill.id || !stands(desk, round.current)) {
      const others = othersFor(bill, path, pages, print);
      if (others.length === 0) return void toast('The page has nothing else for this field', { id: 'others' });
      round.current = { path, bill: bill.id, steps: [...others, asItWas(desk, path)], at: others.length };
    }
    const { steps } = round.current;
    round.current.at = (round.current.at + by + steps.length) % steps.length;
    const at = round.current.at;
    desk.edit(steps[at]!);
    toast(at === steps.length - 1 ? 'As it was' : `${at + 1} of ${steps.length - 1} that the page has`, { id: 'others', duration: 1500 });
  };
}

/** The value in hand as an operation that puts it back, with its place. */
function asItWas({ bill }: Desk, path: string): Operation {
  const at = parsePath(path)!;
  if ('field' in at) {
    const mark = bill.marks[at.field]?.mark;
    return { do: 'set', field: at.field, value: bill[at.field], ...(mark ? { mark } : {}) };
  }
  const line = bill.lines.find((l) => l.id === at.line)!,
    mark = line.marks[at.cell]?.mark;
  return { do: 'set-cell', line: at.line, field: at.cell, value: line[at.cell], ...(mark ? { mark } : {}) };
}

/** Whether what was put there last still stands there: else somebody typed, and a new round begins. */
function stands({ bill }: Desk, { path, steps, at }: Round): boolean {
  const where = parsePath(path)!,
    now = 'field' in where ? bill[where.field] : bill.lines.find((l) => l.id === where.line)?.[where.cell];
  const step = steps[at]!;
  return 'value' in step && step.value === (now ?? null);
}
