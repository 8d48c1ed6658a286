import { setTimeout as wait } from 'node:timers/promises';
import type PgBoss from 'pg-boss';
import { logError } from '../log.ts';

/**
 * Takes the jobs of a queue one after another and does them. The library's own loop doesn't wait for the note of how a job went: where
 * that can't be written (a full disk), the process would die of it. Nothing of a failure is written into the queue.
 */
export class Taking {
  readonly #boss: PgBoss;
  readonly #inHand = new Set<string>();
  readonly #over = new AbortController();
  readonly #loops: Promise<void>[] = [];

  constructor(
    boss: PgBoss,
    readonly name: string,
    readonly does: (id: string) => Promise<void>,
  ) {
    this.#boss = boss;
  }

  /** Begins to take; so many jobs are in hand at once. */
  begin(atOnce: number): void {
    for (let i = 0; i < atOnce; i++) this.#loops.push(this.#loop());
  }

  async #loop(): Promise<void> {
    while (!this.#over.signal.aborted) {
      const took = await this.#one().catch((error: unknown) => {
        logError('the job queue', error);
        return false;
      });
      if (!took) await wait(500, undefined, { signal: this.#over.signal }).catch(() => undefined);
    }
  }

  /** Does one job, where there is one. */
  async #one(): Promise<boolean> {
    const [job] = (await this.#boss.fetch<{ id: string }>(this.name)) ?? [];
    if (!job) return false;
    this.#inHand.add(job.id);
    try {
      await this.does(job.data.id);
    } catch (error) {
      logError(this.name, error);
      if (this.#inHand.delete(job.id)) await this.#boss.fail(this.name, job.id);
      return true;
    }
    if (this.#inHand.delete(job.id)) await this.#boss.complete(this.name, job.id);
    return true;
  }

  /** Takes nothing more. What is still in hand after `patience` milliseconds is given back, for another worker. */
  async end(patience: number): Promise<void> {
    this.#over.abort();
    let timer: ReturnType<typeof setTimeout> | undefined;
    await Promise.race([Promise.all(this.#loops), new Promise((done) => (timer = setTimeout(done, patience)))]);
    clearTimeout(timer);
    const left = [...this.#inHand];
    this.#inHand.clear();
    if (left.length > 0) await this.#boss.fail(this.name, left).catch((error: unknown) => void logError('the job queue', error));
  }
}
