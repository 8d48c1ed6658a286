import { createListenerMiddleware, isAnyOf } from '@reduxjs/toolkit';
import type { Action, ThunkDispatch } from '@reduxjs/toolkit';
import type { Bill, ChangeBill } from '@ledgerline/contract';
import { isAway, problemOf, sentenceOf } from '../../app/api';
import { authApi } from '../../auth/api';
import { billsApi } from '../../bills/api';
import { keepTyped } from './kept';
import { Saver } from './saver';
import { chosen, edited, opened, redone, undone } from './slice';
import type { DeskState } from './types';

interface State {
  desk: DeskState;
  api: ReturnType<typeof billsApi.reducer>;
}
type Dispatch = ThunkDispatch<State, unknown, Action>;

/** Who is signed in: what is typed is kept under their name. */
export const personIn = (state: State): string => authApi.endpoints.session.select()(state as never).data?.me?.id ?? '';

/** Connects the bills in hand with the server and with the browser's memory. */
export function deskListening() {
  const listener = createListenerMiddleware<State, Dispatch>();
  let saver: Saver | null = null;
  const saverOf = (store: { dispatch: Dispatch; getState(): State }): Saver =>
    (saver ??= new Saver(store, {
      async send(bill: Bill, body: ChangeBill) {
        const saved = await store.dispatch(billsApi.endpoints.changeBill.initiate({ company: bill.companyId, id: bill.id, body })).unwrap();
        void store.dispatch(billsApi.util.upsertQueryData('bill', { company: bill.companyId, id: bill.id }, saved));
        return saved;
      },
      load: (bill) =>
        store
          .dispatch(billsApi.endpoints.bill.initiate({ company: bill.companyId, id: bill.id }, { forceRefetch: true, subscribe: false }))
          .unwrap(),
      failure(error) {
        const sentence = sentenceOf(error);
        if (isAway(error)) return { kind: 'away', sentence };
        return { kind: ['changed', 'misfit'].includes(problemOf(error).data?.kind ?? '') ? 'overtaken' : 'refused', sentence };
      },
      later(ms, work) {
        const timer = setTimeout(work, ms);
        return () => clearTimeout(timer);
      },
    }));
  listener.startListening({
    matcher: isAnyOf(edited, undone, redone, chosen, opened),
    effect(action, store) {
      const { payload } = action as unknown as { payload: string | { bill: Bill } | { id: string } };
      const id = typeof payload === 'string' ? payload : 'bill' in payload ? payload.bill.id : payload.id;
      const save = store.getState().desk.held[id]?.save;
      if (save === 'dirty' || save === 'offline') saverOf(store).soon(id);
    },
  });
  listener.startListening({
    predicate: (_, now, before) => now.desk.held !== before.desk.held,
    effect(_, store) {
      const { desk } = store.getState(),
        before = store.getOriginalState().desk;
      for (const id of Object.keys(desk.held))
        if (desk.held[id] !== before.held[id]) keepTyped(localStorage, personIn(store.getState()), desk, id);
    },
  });
  return { middleware: listener.middleware, saverOf };
}
