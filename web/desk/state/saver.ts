import type { Bill, ChangeBill } from '@ledgerline/contract';
import { overtaken, saveBegan, saved, saveFailed } from './slice';
import type { DeskState, Held } from './types';

/** What saving needs from outside, so that tests can bring their own. */
export interface Outside {
  /** Sends what was changed; the error says whether the server is away or refuses. */
  send(bill: Bill, body: ChangeBill): Promise<Bill>;
  /** The bill as it stands on the server. */
  load(bill: Bill): Promise<Bill>;
  failure(error: unknown): { kind: 'away' | 'overtaken' | 'refused'; sentence: string };
  /** Calls back later; gives how to call it off. */
  later(ms: number, work: () => void): () => void;
}
interface Store {
  dispatch(action: object): unknown;
  getState(): { desk: DeskState };
}

const pause = 700;
const longest = 30_000;

/** Saves the bills in hand, each by itself: a little after the last change, at once when asked, again and again while the server is away. */
export class Saver {
  readonly #running = new Map<string, Promise<void>>();
  readonly #timers = new Map<string, () => void>();
  readonly #tries = new Map<string, number>();
  constructor(
    readonly store: Store,
    readonly outside: Outside,
  ) {}

  #held(id: string): Held | undefined {
    return this.store.getState().desk.held[id];
  }
  #callOff(id: string): void {
    this.#timers.get(id)?.();
    this.#timers.delete(id);
  }

  /** Something was typed: it is saved shortly after. */
  soon(id: string, ms = pause): void {
    this.#callOff(id);
    this.#timers.set(
      id,
      this.outside.later(ms, () => {
        this.#timers.delete(id);
        void this.flush(id);
      }),
    );
  }

  /** Saves all that is typed on a bill. True once nothing is left to save; false where it could not be. */
  async flush(id: string): Promise<boolean> {
    this.#callOff(id);
    const running = this.#running.get(id);
    if (running) await running;
    const held = this.#held(id);
    if (!held || held.save === 'clean') return true;
    if (held.save === 'conflict') return false;
    if (held.save === 'saving') return this.flush(id);
    const one = this.#save(id, held).finally(() => this.#running.delete(id));
    this.#running.set(id, one);
    await one;
    const after = this.#held(id)?.save;
    // What was typed while saving, or laid on a newer bill, goes the same way.
    return after === 'dirty' ? this.flush(id) : after === 'clean' || after === undefined;
  }

  async #save(id: string, held: Held): Promise<void> {
    const { dispatch } = this.store;
    const body = { rowVersion: held.base.rowVersion, operations: held.pending } as ChangeBill;
    dispatch(saveBegan(id));
    try {
      dispatch(saved(await this.outside.send(held.base, body)));
      this.#tries.delete(id);
    } catch (error) {
      const { kind, sentence } = this.outside.failure(error);
      if (kind === 'refused') dispatch(saveFailed({ id, save: 'refused', sentence }));
      else if (kind === 'away') this.#again(id, sentence);
      else
        try {
          dispatch(overtaken(await this.outside.load(held.base)));
        } catch (second) {
          this.#again(id, this.outside.failure(second).sentence);
        }
    }
  }

  #again(id: string, sentence: string): void {
    const tries = (this.#tries.get(id) ?? 0) + 1;
    this.#tries.set(id, tries);
    this.store.dispatch(saveFailed({ id, save: 'offline', sentence }));
    this.soon(id, Math.min(longest, 1500 * 2 ** Math.min(tries - 1, 5)));
  }
}
