import type { Operation } from '@ledgerline/core/bills';
import type { Bill } from '@ledgerline/contract';
import type { DeskState } from './types';

/** What is typed and not saved, kept in the browser so that it survives a reload; by person and bill. */
const keyOf = (person: string, bill: string): string => `desk ${person} ${bill}`;

interface Kept {
  base: Bill;
  operations: Operation[];
}

/** Keeps what is typed on a bill, or forgets it once all is saved. */
export function keepTyped(storage: Storage, person: string, state: DeskState, id: string): void {
  const held = state.held[id];
  const operations = held ? [...held.sending, ...held.pending] : [];
  try {
    if (held && operations.length > 0) storage.setItem(keyOf(person, id), JSON.stringify({ base: held.base, operations } satisfies Kept));
    else storage.removeItem(keyOf(person, id));
  } catch {
    // A browser without room or leave to keep it: it is saved on the server shortly after anyway.
  }
}

export function typedBefore(storage: Storage, person: string, id: string): Kept | undefined {
  try {
    const text = storage.getItem(keyOf(person, id));
    const kept = text ? (JSON.parse(text) as Kept) : null;
    return kept?.base?.id === id && Array.isArray(kept.operations) ? kept : undefined;
  } catch {
    return undefined;
  }
}
