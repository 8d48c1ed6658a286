import type { Operation } from '@ledgerline/core/bills';
import type { Bill, Choice } from '@ledgerline/contract';

/**
 * Where a bill stands between desk and server. clean: all is saved; dirty: something is typed; saving; refused: the server will not
 * take it as it is; conflict: somebody else changed the same; offline: the server is away, it is tried again.
 */
export type SaveState = 'clean' | 'dirty' | 'saving' | 'refused' | 'conflict' | 'offline';

/** One step that can be undone: what takes it back and what does it again. */
export interface Step {
  undo: Operation[];
  redo: Operation[];
}
/** A value that two people changed: what stood there when this person began, theirs as saved, and mine as typed. */
export interface Clash {
  path: string;
  was: string | null;
  theirs: string | null;
  mine: string | null;
}
/** A bill in hand. What is shown is `base` with `sending` and `pending` applied. */
export interface Held {
  /** As the server gave it last. */
  base: Bill;
  /** On its way to the server. */
  sending: Operation[];
  /** Typed, and not on its way yet. */
  pending: Operation[];
  past: Step[];
  future: Step[];
  save: SaveState;
  /** What is wrong, in words. */
  sentence: string | null;
  clashes: Clash[];
  /** The bill that the clashes are with. */
  theirs: Bill | null;
}
export interface DeskState {
  held: Record<string, Held>;
  /** Codes and names of what was chosen at the desk, by id. */
  named: Record<string, Choice>;
}
