import { and, asc, desc, eq, ilike, or, sql } from 'drizzle-orm';
import type { FindingList, FindingsQuery, ImportListName, ImportRun } from '@ledgerline/contract';
import { mappingFault } from '@ledgerline/core/imports';
import type { Executor } from '../db/client.ts';
import { like } from '../db/column.ts';
import { importFinding, importRun } from '../db/schema/index.ts';
import { notFound } from '../http/problems.ts';
import { unpackRows } from './rows.ts';
import type { Sheet } from './sheet.ts';
import { writers } from './writers/index.ts';

const sampled = 3;

async function runIn(db: Executor, companyId: string, id: string): Promise<typeof importRun.$inferSelect> {
  const [run] = await db
    .select()
    .from(importRun)
    .where(and(eq(importRun.companyId, companyId), eq(importRun.id, id)));
  if (!run) throw notFound('This import');
  return run;
}

/** How an import stands. Not found outside the company. */
export async function showRun(db: Executor, companyId: string, id: string): Promise<ImportRun> {
  const run = await runIn(db, companyId, id),
    list = run.list as ImportListName,
    { spec } = writers[list];
  return {
    id: run.id,
    list,
    fileName: run.fileName,
    state: run.state as ImportRun['state'],
    heads: run.heads,
    sample: run.state === 'checked' || run.state === 'failed' ? (await unpackRows(run.rows)).slice(0, sampled) : [],
    mapping: run.mapping,
    fault: mappingFault(run.mapping, spec),
    fields: spec.fields.map(({ key, label, required }) => ({ key, label, required: required ?? false })),
    counts: run.counts,
    progress: run.progress,
    note: run.note,
  };
}

const columns = {
  row: importFinding.row,
  column: importFinding.column,
  severity: importFinding.severity,
  sentence: importFinding.sentence,
};

/** One page of what a dry run found, sorted and searched, each with the cell that it is about. `after`: how many were shown before. */
export async function findingsOf(
  db: Executor,
  companyId: string,
  id: string,
  query: FindingsQuery,
  after: number,
): Promise<FindingList['findings']> {
  await runIn(db, companyId, id);
  const direction = query.order === 'desc' ? desc : asc;
  const found = await db
    .select()
    .from(importFinding)
    .where(
      and(
        eq(importFinding.runId, id),
        query.severity ? eq(importFinding.severity, query.severity) : undefined,
        query.q
          ? or(
              ilike(importFinding.sentence, like(query.q)),
              ilike(importFinding.column, like(query.q)),
              sql`${importFinding.row}::text = ${query.q.trim()}`,
            )
          : undefined,
      ),
    )
    .orderBy(direction(columns[(query.sort as keyof typeof columns | undefined) ?? 'row']), asc(importFinding.n))
    .limit(query.limit ?? 100)
    .offset(after);
  return found.map(({ runId: _, ...finding }) => finding);
}

/** The rows of a file that have errors, as they stand in it, each with what is wrong: to be put right and brought in again. */
export async function leftOut(db: Executor, companyId: string, id: string): Promise<Sheet> {
  const run = await runIn(db, companyId, id);
  const errors = await db
    .select()
    .from(importFinding)
    .where(and(eq(importFinding.runId, id), eq(importFinding.severity, 'error')))
    .orderBy(asc(importFinding.row), asc(importFinding.n));
  const wrong = new Map<number, string[]>();
  for (const { row, column, sentence } of errors) wrong.set(row, [...(wrong.get(row) ?? []), column ? `${column}: ${sentence}` : sentence]);
  const rows = await unpackRows(run.rows);
  // As the file counts them: the heads are row 1.
  return {
    heads: [...run.heads, 'What is wrong'],
    rows: [...wrong].flatMap(([row, said]) => {
      const cells = rows[row - 2];
      return cells ? [[...run.heads.map((_, i) => cells[i] ?? ''), said.join(' ')]] : [];
    }),
  };
}
