import { and, eq, inArray, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import { v7 } from 'uuid';
import { recheckBills } from '../bills/checking.ts';
import { takeUpReceived } from '../matching/waiting.ts';
import { alone } from '../db/alone.ts';
import type { Executor } from '../db/client.ts';
import { company, importRun } from '../db/schema/index.ts';
import { difference, record, transaction } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';
import { failedTry } from '../jobs/tries.ts';
import type { Services } from '../services.ts';
import { tableOf } from './service.ts';
import { trialOf, type Trial } from './trial.ts';
import { writers, type Writer, type Written } from './writers/index.ts';

/** So many rows are written by one statement. */
const atOnce = 500;
const atWork = ['waiting', 'running'];

/** Brings in what a person has asked for, as a job. Whoever is at it already is left to it; a run that is done is left alone. */
export async function importRows(services: Services, runId: string): Promise<void> {
  await alone(services.database.pool, `import ${runId}`, () => importHeld(services, runId));
}

/** As a job: what keeps failing says so where people see it, and nothing of it is kept. */
export function importJob(services: Services, runId: string): Promise<void> {
  const { db } = services.database;
  return failedTry(
    db,
    importRun,
    runId,
    () => importRows(services, runId),
    () => failed(services, runId, 'This could not be brought in. Nothing was changed; please try again.'),
  );
}

const failed = (services: Services, runId: string, note: string) =>
  services.database.db
    .update(importRun)
    .set({ state: 'failed', note })
    .where(and(eq(importRun.id, runId), inArray(importRun.state, atWork)));

async function importHeld(services: Services, runId: string): Promise<void> {
  const { db } = services.database;
  const [run] = await db
    .update(importRun)
    .set({ state: 'running', progress: 0 })
    .where(and(eq(importRun.id, runId), inArray(importRun.state, atWork)))
    .returning();
  if (!run) return;
  const table = await tableOf(run),
    writer = writers[table.list];
  try {
    await transaction(db, async (tx) => {
      await taken(tx, writer.table, run.companyId);
      const [own] = await tx.select().from(company).where(eq(company.id, run.companyId));
      // The company's lists may have changed since the dry run.
      const trial = await trialOf(tx, run.companyId, table);
      if (trial.counts.bad > 0 && !run.goodOnly)
        throw new Refusal(
          409,
          'Something changed since the file was looked through: rows have errors now. Nothing was changed; choose the file again.',
        );
      const at = services.now();
      const tell = (done: number) => db.update(importRun).set({ progress: done }).where(eq(importRun.id, runId));
      const rows = await write(tx, writer, run, trial, at, tell);
      await checkedAgain(tx, own!, writer, rows, { personId: run.personId, now: at }, trial.counts.changed > 0);
      await tx
        .update(importRun)
        .set({ state: 'done', counts: trial.counts, progress: trial.changes.length })
        .where(eq(importRun.id, runId));
    });
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    await failed(services, runId, error.message);
  }
}

/** Imports of one company wait for each other, and nobody changes the list's rows meanwhile. What they wait for may take longer than a statement should. */
async function taken(tx: Executor, table: Writer['table'], companyId: string): Promise<void> {
  await tx.execute(sql`set local statement_timeout = '10min'`);
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${companyId}, 5))`);
  await tx
    .select({ n: sql`1` })
    .from(table as PgTable)
    .where(eq(table.companyId, companyId))
    .for('update');
}

type Run = typeof importRun.$inferSelect;

/** Writes all rows, with an event for each. `tell` is called from outside the transaction, so that people see it come. */
async function write(
  tx: Executor,
  writer: Writer,
  run: Run,
  { changes, ids }: Trial,
  at: Date,
  tell: (done: number) => Promise<unknown>,
): Promise<Written[]> {
  const rows = changes.map(({ values, own }): Written => ({ id: own?.id || v7(), values, before: own?.values ?? null }));
  const by = { personId: run.personId, at, file: run.fileName };
  for (let i = 0; i < rows.length; i += atOnce) {
    await writer.put(tx, run.companyId, rows.slice(i, i + atOnce), ids, by);
    await tell(Math.min(rows.length, i + atOnce));
  }
  const { parent } = writer.spec;
  const moved = rows.filter((r) => parent && (r.values[parent] ?? null) !== (r.before?.[parent] ?? null));
  // Those that the file brought are there now, too.
  if (moved.length > 0 && writer.join) await writer.join(tx, run.companyId, moved, await writer.ids(tx, run.companyId));
  const said = { companyId: run.companyId, by: { personId: run.personId, source: 'import' }, at };
  for (const row of rows) {
    const { id, values, before } = row,
      subject = { type: writer.subject, id: writer.noted ? null : id };
    const changed = before ? difference(before, values) : { before: null, after: values };
    if (changed) record(tx, { ...said, subject, verb: before ? 'changed' : 'made', note: writer.noted?.(values) ?? null, ...changed });
    for (const act of writer.acts?.(row) ?? []) record(tx, { ...said, subject, ...act });
  }
  record(tx, {
    ...said,
    subject: { type: 'import', id: run.id },
    verb: 'brought in',
    note: `${run.fileName}: ${rows.filter((r) => !r.before).length} made, ${rows.filter((r) => r.before).length} changed`,
  });
  return rows;
}

/** Bills that what came in concerns: of its orders; all, where it changed what they are coded with or whom they are from. */
async function checkedAgain(
  tx: Executor,
  own: typeof company.$inferSelect,
  writer: Writer,
  rows: readonly Written[],
  by: { personId: string; now: Date },
  changed: boolean,
): Promise<void> {
  if (!writer.orders) {
    if (changed) await recheckBills(tx, own, 'all', by);
    return;
  }
  for (const orderId of (await writer.orders(tx, own.id, rows)).sort()) {
    await recheckBills(tx, own, { orderId }, by);
    await takeUpReceived(tx, own, orderId, by);
  }
}
