import { sql } from 'drizzle-orm';
import { isHeld } from '../db/alone.ts';
import { transaction } from '../events/record.ts';
import type { Services } from '../services.ts';

/** What nobody works on and nobody is to: its job is gone, or whoever had it has died. `key`: what its holder would hold. */
const left = (table: string, states: string, queues: string, key: string) =>
  sql.raw(`select t.id from ${table} t where t.state in (${states})
    and not exists (select 1 from pgboss.job j where j.name in (${queues}) and j.singleton_key = t.id::text and j.state < 'active')
    and not ${isHeld(`'${key} ' || t.id`)}
    order by t.id limit 500`);

/**
 * Queues again what was left lying: behind the queue, so that nothing waits for a restart. What waits or is in hand is left alone; asking
 * once too often does nothing.
 */
export async function sweepJobs(services: Services): Promise<number> {
  return transaction(services.database.db, async (tx) => {
    const documents = await tx.execute<{ id: string }>(
      left('document', `'waiting', 'reading'`, `'read-document', 'read-pictures'`, 'document'),
    );
    const arrivals = await tx.execute<{ id: string }>(left('arrival', `'opening'`, `'open-message'`, 'arrival'));
    const imports = await tx.execute<{ id: string }>(left('import_run', `'waiting', 'running'`, `'bring-in-rows'`, 'import'));
    for (const { id } of imports.rows) await services.queue.importing(tx, id);
    for (const { id } of documents.rows) await services.queue.reading(tx, id);
    for (const { id } of arrivals.rows) await services.queue.opening(tx, id);
    return documents.rows.length + arrivals.rows.length + imports.rows.length;
  });
}
