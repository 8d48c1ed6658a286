import { useCallback, useEffect, useMemo, useState } from 'react';
import { useDispatch, useSelector } from 'react-redux';
import { codingOf, type CodingField, type HeaderField, type LineField, type Operation, type Value } from '@ledgerline/core/bills';
import { prove, type Repair } from '@ledgerline/core/proof';
import type { BillLine, Bill, Choice } from '@ledgerline/contract';
import { arrivalsApi } from '../arrivals/api';
import { usePlace } from '../app/company';
import type { RootState } from '../app/store';
import { billsApi } from '../bills/api';
import { codedWith } from './coded-with';
import { edited, named, opened, redone, shownOf, typedBefore, undone } from './state';

/** Everything that the desk's parts need of the bill in hand: how it stands, and how to change it. */
export interface Desk {
  bill: Bill;
  locked: boolean;
  /** The path in hand. */
  active: string | null;
  take(path: string | null): void;
  edit(...operations: Operation[]): void;
  set(field: HeaderField, value: Value): void;
  setCell(line: string, field: LineField, value: string | null): void;
  addLine(after?: string | null, more?: Partial<Extract<Operation, { do: 'add-line' }>>): string;
  /** Adds an empty row after one (the last, if not said), with the cursor in it. */
  addRow(after?: string | null): void;
  undo(): void;
  redo(): void;
  /** What an id stands for, as far as it is known. */
  choiceOf(id: string | null): Choice | null;
  know(choice: Choice): void;
  /** Codes lines with a choice; what follows from it is filled in where nothing stands, in the same step. */
  choose(choice: Choice | null, lines: readonly BillLine[], field: CodingField): void;
  repair(r: Repair): void;
}

/** A bill on the desk: loaded, held in the store under its id, and shown as it stands with all that is typed. */
export function useDesk(id: string) {
  const { company, me, can } = usePlace();
  const dispatch = useDispatch();
  const { currentData: loaded, error } = billsApi.useBillQuery({ company: company.id, id });
  const held = useSelector((state: RootState) => state.desk.held[id]);
  const names = useSelector((state: RootState) => state.desk.named);
  const [active, take] = useState<string | null>(null);
  useEffect(() => {
    if (!loaded) return;
    const restored = held ? undefined : typedBefore(localStorage, me.id, loaded.id);
    dispatch(opened({ bill: loaded, ...(restored ? { restored } : {}) }));
  }, [loaded]); // eslint-disable-line react-hooks/exhaustive-deps -- once for each bill that the server gives
  useEffect(() => take(null), [id]);
  const bill = useMemo(() => (held ? shownOf(held) : null), [held]);
  const { currentData: pages } = arrivalsApi.usePagesQuery(
    { company: company.id, id: bill?.documentId ?? '' },
    { skip: !bill?.documentId },
  );
  const locked = !bill || !can('bills:edit') || !['read', 'returned'].includes(bill.stage);
  const proof = useMemo(() => (bill ? prove(bill) : null), [bill]);
  const edit = useCallback((...operations: Operation[]) => void dispatch(edited({ id, operations })), [dispatch, id]);
  const choiceOf = useCallback((key: string | null) => (key ? (names[key] ?? null) : null), [names]);
  const desk: Desk | null = bill && {
    bill,
    locked,
    active,
    take,
    edit,
    set: (field, value) => edit({ do: 'set', field, value }),
    setCell: (line, field, value) => edit({ do: 'set-cell', line, field, value }),
    addLine(after = bill.lines[bill.lines.length - 1]?.id ?? null, more = {}) {
      const line = crypto.randomUUID();
      edit({ do: 'add-line', kind: 'line', ...more, line, after });
      return line;
    },
    addRow: (after) => take(`${desk!.addLine(after)}.description`),
    undo: () => void dispatch(undone(id)),
    redo: () => void dispatch(redone(id)),
    choiceOf,
    know: (choice) => void dispatch(named(choice)),
    choose(choice, lines, field) {
      for (const one of choice ? [choice, ...(choice.going ?? []).map((g): Choice => ({ ...g, detail: null }))] : []) dispatch(named(one));
      edit(...lines.flatMap((line) => codedWith(line, field, choice, choiceOf)));
    },
    repair(r) {
      if (r.kind === 'row-product' || r.kind === 'row-missing') edit({ do: 'set-cell', line: r.line, field: 'amount', value: r.value });
      else if (r.kind === 'charge' || r.kind === 'rounding') {
        const like = bill.lines[0];
        desk!.addLine(undefined, {
          kind: 'charge',
          cells: {
            description: r.kind === 'rounding' ? 'Rounding difference' : 'Charge',
            amount: r.value,
            ...codingOf(like),
          },
        });
      } else edit({ do: 'set', field: r.kind, value: r.value });
    },
  };
  return { desk, held, proof, pages, error };
}
