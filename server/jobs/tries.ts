import { isFull, isGone } from '../db/faults.ts';
import { logError } from '../log.ts';
import { Ending } from '../processes/pool.ts';

/** So often a piece of work is tried before it waits for a person. */
export const mostTries = 3;

/**
 * Does a piece of work; where it fails, the failure is counted, and the last one gives up: `giveUp` says so where people see it. A database
 * or a disk that is away, or our own end, is no failure of the work. Throws while it is to be tried again.
 */
export async function failedTry(work: () => Promise<void>, count: () => Promise<number>, giveUp: () => Promise<void>): Promise<void> {
  try {
    await work();
  } catch (error) {
    if (isGone(error) || isFull(error) || error instanceof Ending) throw error;
    logError('a job', error);
    if ((await count()) < mostTries) throw error;
    await giveUp();
  }
}
