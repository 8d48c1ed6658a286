import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Operation } from '@ledgerline/core/bills';
import type { Bill, Choice } from '@ledgerline/contract';
import { signedOut } from '../../app/api';
import { clashesOf, merged, mineOn, shownOf, stepOf, withoutPath } from './held';
import type { DeskState, Held } from './types';

const fresh = (base: Bill): Held => ({
  base,
  sending: [],
  pending: [],
  past: [],
  future: [],
  save: 'clean',
  sentence: null,
  clashes: [],
  theirs: null,
});
const unsent = (held: Held): Operation[] => held.pending.reduce((all, op) => merged(all, op), held.sending);
/** The save state that follows from what is typed. */
const atRest = (held: Held): void => {
  held.save = held.pending.length > 0 ? 'dirty' : 'clean';
  held.sentence = null;
};
/** What is typed while both values are shown may meet theirs as well. */
function askedToo(held: Held, ops: readonly Operation[]): void {
  for (const clash of clashesOf(held.base, held.theirs!, ops))
    if (!held.clashes.some((c) => c.path === clash.path)) held.clashes.push(clash);
}
/** A newer bill under what is typed: it stays on top where it meets nothing, and is asked about where it does. */
function rebase(held: Held, theirs: Bill): void {
  const mine = unsent(held);
  held.clashes = clashesOf(held.base, theirs, mine);
  held.sending = [];
  if (held.clashes.length === 0) {
    held.base = theirs;
    // What fits no more (a doubt looked at, a row that went) has nothing left to say.
    held.pending = stepOf(theirs, mine).redo;
    atRest(held);
    return;
  }
  held.pending = mine;
  held.theirs = theirs;
  held.save = 'conflict';
  held.sentence = 'Two changes met. Choose what stays.';
}

/** The bills in hand, by id: each change is an operation with what takes it back; nothing typed is lost on the way to the server. */
export const deskSlice = createSlice({
  name: 'desk',
  initialState: { held: {}, named: {} } as DeskState,
  extraReducers: (on) => on.addCase(signedOut, () => ({ held: {}, named: {} })),
  reducers: {
    /** A bill as the server gave it, with what was typed before the page was loaded anew. */
    opened(state, { payload: { bill, restored } }: PayloadAction<{ bill: Bill; restored?: { base: Bill; operations: Operation[] } }>) {
      for (const c of bill.named) state.named[c.id] = c;
      const held = state.held[bill.id];
      if (!held) {
        const begun = (state.held[bill.id] = fresh(restored?.base ?? bill));
        if (restored) {
          begun.pending = restored.operations;
          if (restored.base.rowVersion === bill.rowVersion) {
            begun.base = bill;
            atRest(begun);
          } else rebase(begun, bill);
        }
      } else if (bill.rowVersion > held.base.rowVersion && held.save !== 'saving' && held.save !== 'conflict') rebase(held, bill);
      else if (bill.rowVersion === held.base.rowVersion && held.save === 'clean') held.base = bill;
    },
    edited(state, { payload: { id, operations } }: PayloadAction<{ id: string; operations: Operation[] }>) {
      const held = state.held[id];
      if (!held) return;
      const step = stepOf(shownOf(held as Held), operations);
      if (step.redo.length === 0) return;
      for (const op of step.redo) held.pending = merged(held.pending, op);
      if (step.undo.length > 0) {
        held.past.push(step);
        held.future = [];
      }
      if (held.save === 'conflict' && held.theirs) askedToo(held as Held, step.redo);
      if (held.save === 'clean' || held.save === 'refused') atRest(held);
    },
    undone(state, { payload: id }: PayloadAction<string>) {
      const held = state.held[id];
      const step = held?.past.pop();
      if (!held || !step) return;
      for (const op of stepOf(shownOf(held as Held), step.undo).redo) held.pending = merged(held.pending, op);
      held.future.push(step);
      if (held.save === 'clean' || held.save === 'refused') atRest(held);
    },
    redone(state, { payload: id }: PayloadAction<string>) {
      const held = state.held[id];
      const step = held?.future.pop();
      if (!held || !step) return;
      for (const op of stepOf(shownOf(held as Held), step.redo).redo) held.pending = merged(held.pending, op);
      held.past.push(step);
      if (held.save === 'clean' || held.save === 'refused') atRest(held);
    },
    named(state, { payload }: PayloadAction<Choice>) {
      state.named[payload.id] = payload;
    },
    saveBegan(state, { payload: id }: PayloadAction<string>) {
      const held = state.held[id];
      if (!held) return;
      held.sending = held.pending;
      held.pending = [];
      held.save = 'saving';
    },
    /** The server took it; the bill that it answers is the new base, under what was typed meanwhile. */
    saved(state, { payload: bill }: PayloadAction<Bill>) {
      const held = state.held[bill.id];
      if (!held) return;
      for (const c of bill.named) state.named[c.id] = c;
      held.base = bill;
      held.sending = [];
      atRest(held);
    },
    /** The server would not take it, or is away: what was on its way is to be sent again. */
    saveFailed(state, { payload: { id, save, sentence } }: PayloadAction<{ id: string; save: 'refused' | 'offline'; sentence: string }>) {
      const held = state.held[id];
      if (!held) return;
      const since = held.pending.length > 0;
      held.pending = unsent(held as Held);
      held.sending = [];
      // What was typed meanwhile may be what puts it right.
      if (save === 'refused' && since) return void atRest(held);
      held.save = save;
      held.sentence = sentence;
    },
    /** Somebody else's bill came instead of ours. */
    overtaken(state, { payload: bill }: PayloadAction<Bill>) {
      const held = state.held[bill.id];
      if (held) rebase(held as Held, bill);
    },
    /** One clash is settled: mine stays, or theirs does. */
    chosen(state, { payload: { id, path, take } }: PayloadAction<{ id: string; path: string; take: 'mine' | 'theirs' }>) {
      const held = state.held[id] as Held | undefined;
      const theirs = held?.theirs;
      if (!held || held.save !== 'conflict' || !theirs) return;
      held.pending = take === 'theirs' ? withoutPath(held.pending, path) : mineOn(theirs, held.base, held.pending, path);
      held.clashes = held.clashes.filter((c) => c.path !== path);
      if (held.clashes.length > 0) return;
      held.base = theirs;
      held.theirs = null;
      held.pending = stepOf(theirs, held.pending).redo;
      atRest(held);
    },
    /** What was typed and not saved is given up. */
    givenUp(state, { payload: bill }: PayloadAction<Bill>) {
      if (state.held[bill.id]) state.held[bill.id] = fresh(bill);
    },
  },
});
export const { opened, edited, undone, redone, named, saveBegan, saved, saveFailed, overtaken, chosen, givenUp } = deskSlice.actions;
