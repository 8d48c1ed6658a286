import { and, eq } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Caller, Params } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { notFound } from '../http/problems.ts';

/** Finds and locks a row of one of the company's lists by the path's id. `what`: how it is called where it is not there. */
export const rowIn =
  <T extends PgTable & { id: PgColumn; companyId: PgColumn }>(table: T, what: string) =>
  async (tx: Executor, caller: Caller, params: Params): Promise<T['$inferSelect']> => {
    const of = and(eq(table.companyId, caller.company.id), eq(table.id, params['id']!));
    const [row] = await tx
      .select()
      .from(table as PgTable)
      .where(of)
      .for('update');
    if (!row) throw notFound(what);
    return row as T['$inferSelect'];
  };
