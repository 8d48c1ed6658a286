import { sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Named } from '@ledgerline/core/imports';
import { idOf, type Writer } from './types.ts';

/** Sets the parents of written rows. First they have none, so that the order in which they change does not matter. */
export const joinParents =
  (table: PgTable, of: Named): NonNullable<Writer['join']> =>
  async (tx, _, rows, known) => {
    const ids = sql.param(rows.map((r) => r.id)),
      parents = sql.param(rows.map((r) => idOf(known, of, r.values['parent'])));
    await tx.execute(sql`update ${table} set parent_id = null where id = any(${ids}::uuid[]) and parent_id is not null`);
    await tx.execute(
      sql`update ${table} t set parent_id = v.parent from unnest(${ids}::uuid[], ${parents}::uuid[]) as v(id, parent) where t.id = v.id and v.parent is not null`,
    );
  };
