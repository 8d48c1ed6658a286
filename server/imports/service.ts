import { createHash } from 'node:crypto';
import { and, eq, inArray, lt } from 'drizzle-orm';
import { BringIn, SetMapping, type ImportListName } from '@ledgerline/contract';
import { addDays } from '@ledgerline/core/dates';
import { likelyMapping, mappingFault, type Finding, type Mapping } from '@ledgerline/core/imports';
import { command, type Caller, type Params } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { importFinding, importMapping, importRun } from '../db/schema/index.ts';
import { transaction } from '../events/record.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { today, type Services } from '../services.ts';
import { packRows, unpackRows } from './rows.ts';
import { trialOf, type Table } from './trial.ts';
import { writers } from './writers/index.ts';

/** Findings beyond these are counted and not kept: nobody mends so many by hand. */
const mostFindings = 20_000;
/** For so many days a file that was looked through is kept. */
const keptDays = 30;

const headsKey = (heads: readonly string[]): string => createHash('sha256').update(JSON.stringify(heads)).digest('hex');

async function keepFindings(tx: Executor, runId: string, findings: readonly Finding[]): Promise<void> {
  await tx.delete(importFinding).where(eq(importFinding.runId, runId));
  const kept = findings.slice(0, mostFindings).map((f, n) => ({ runId, n, ...f }));
  for (let i = 0; i < kept.length; i += 1000) await tx.insert(importFinding).values(kept.slice(i, i + 1000));
}

/** A file with rows for a list: opened, its columns mapped as last time or by likeness, and looked through. Gives the run's id. */
export async function takeFile(
  services: Services,
  caller: Caller,
  list: ImportListName,
  file: { name: string; bytes: Uint8Array },
): Promise<string> {
  const companyId = caller.company.id;
  const answer = await services.sheets.open({ bytes: file.bytes, list, base: caller.company.baseCurrency });
  if ('wrong' in answer) throw new Refusal(422, answer.wrong);
  const { heads, rows } = answer.sheet,
    packed = await packRows(rows);
  return transaction(services.database.db, async (tx) => {
    const before = new Date(`${addDays(today(services), -keptDays)}T00:00:00Z`);
    await tx.delete(importRun).where(and(eq(importRun.companyId, companyId), lt(importRun.createdAt, before)));
    const remembered = and(eq(importMapping.companyId, companyId), eq(importMapping.list, list), eq(importMapping.heads, headsKey(heads)));
    const [last] = await tx.select().from(importMapping).where(remembered);
    const mapping = last?.mapping ?? likelyMapping(heads, writers[list].spec);
    const { findings, counts } = await trialOf(tx, companyId, { list, heads, rows, mapping });
    const [run] = await tx
      .insert(importRun)
      .values({
        companyId,
        list,
        fileName: file.name.slice(0, 200),
        heads,
        rows: packed,
        mapping,
        state: 'checked',
        counts,
        personId: caller.me.id,
        createdAt: services.now(),
      })
      .returning({ id: importRun.id });
    await keepFindings(tx, run!.id, findings);
    return run!.id;
  });
}

/** A run of the caller's company that nothing has been brought in of yet, locked. */
async function openRun(tx: Executor, caller: Caller, params: Params): Promise<typeof importRun.$inferSelect> {
  const [run] = await tx
    .select()
    .from(importRun)
    .where(and(eq(importRun.companyId, caller.company.id), eq(importRun.id, params['id']!)))
    .for('update');
  if (!run) throw notFound('This import');
  if (!['checked', 'failed'].includes(run.state)) throw new Refusal(409, 'This file is being brought in, or was already.');
  return run;
}
export const tableOf = async (run: typeof importRun.$inferSelect): Promise<Table> => ({
  list: run.list as ImportListName,
  heads: run.heads,
  rows: await unpackRows(run.rows),
  mapping: run.mapping,
});

/** Which field each column holds, as a person says; the file is looked through again, and the next one with these heads begins so. */
export const setMapping = command({ body: SetMapping, may: 'settings:edit', subject: openRun }, async (tx, caller, input, hand) => {
  const run = hand.subject,
    list = run.list as ImportListName,
    mapping: Mapping = run.heads.map((_, at) => input.mapping[at] ?? null);
  const fault = mappingFault(mapping, writers[list].spec);
  const { findings, counts } = await trialOf(tx, caller.company.id, { ...(await tableOf(run)), mapping });
  await tx.update(importRun).set({ mapping, counts, state: 'checked', note: null }).where(eq(importRun.id, run.id));
  await keepFindings(tx, run.id, findings);
  if (fault === null)
    await tx
      .insert(importMapping)
      .values({ companyId: caller.company.id, list, heads: headsKey(run.heads), mapping })
      .onConflictDoUpdate({ target: [importMapping.companyId, importMapping.list, importMapping.heads], set: { mapping } });
  return {};
});

/** Has the rows brought in, soon: all of them, or those without errors. */
export const bringIn = command({ body: BringIn, may: 'settings:edit', subject: openRun }, async (tx, _, input, hand) => {
  const run = hand.subject;
  const fault = mappingFault(run.mapping, writers[run.list as ImportListName].spec);
  if (fault !== null) throw new Refusal(422, fault);
  if (run.counts.bad > 0 && !input.goodOnly)
    throw new Refusal(
      409,
      `${run.counts.bad} ${run.counts.bad === 1 ? 'row has an error' : 'rows have errors'}. Mend the file, or bring in the good rows.`,
    );
  if (run.counts.good === 0) throw new Refusal(409, 'There is no row that could be brought in.');
  await tx
    .update(importRun)
    .set({ state: 'waiting', goodOnly: input.goodOnly, progress: 0, tries: 0, note: null })
    .where(and(eq(importRun.id, run.id), inArray(importRun.state, ['checked', 'failed'])));
  await hand.services.queue.importing(tx, run.id);
  return {};
});
