import { eq, sql } from 'drizzle-orm';
import type { Executor } from '../db/client.ts';
import { isFull, isGone } from '../db/faults.ts';
import type { arrival, document, importRun } from '../db/schema/index.ts';
import { logError } from '../log.ts';
import { Ending } from '../processes/pool.ts';

/** So often a piece of work is tried before it waits for a person. */
const mostTries = 3;

/**
 * Does a piece of work on a document, an arrival or an import; where it fails, the failure is counted there, and the last one gives up: `giveUp` says
 * so where people see it. A database or a disk that is away, or our own end, is no failure of the work. Throws while it is to be tried again.
 */
export async function failedTry(
  db: Executor,
  of: typeof document | typeof arrival | typeof importRun,
  id: string,
  work: () => Promise<void>,
  giveUp: () => Promise<unknown>,
): Promise<void> {
  try {
    await work();
  } catch (error) {
    if (isGone(error) || isFull(error) || error instanceof Ending) throw error;
    const [row] = await db
      .update(of)
      .set({ tries: sql`${of.tries} + 1` })
      .where(eq(of.id, id))
      .returning({ tries: of.tries });
    if ((row?.tries ?? 0) < mostTries) throw error;
    logError('the last try of a job', error);
    await giveUp();
  }
}
