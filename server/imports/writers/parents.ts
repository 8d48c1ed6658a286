import { sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Executor } from '../../db/client.ts';

/** Sets the parents of rows. First they have none, so that the order in which they change does not matter. */
export async function setParents(tx: Executor, table: PgTable, rows: readonly { id: string; parent: string | null }[]): Promise<void> {
  const ids = sql.param(rows.map((r) => r.id)),
    parents = sql.param(rows.map((r) => r.parent));
  await tx.execute(sql`update ${table} set parent_id = null where id = any(${ids}::uuid[]) and parent_id is not null`);
  await tx.execute(
    sql`update ${table} t set parent_id = v.parent from unnest(${ids}::uuid[], ${parents}::uuid[]) as v(id, parent) where t.id = v.id and v.parent is not null`,
  );
}
