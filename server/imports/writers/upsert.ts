import { getTableColumns, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Executor } from '../../db/client.ts';

/**
 * Inserts rows, or writes over those that are there by `target`. They travel as one value, which is several times quicker than a
 * parameter for each cell. All rows have the same columns; every one but the target's is written over, except the company.
 */
export async function upsert<T extends PgTable>(
  tx: Executor,
  table: T,
  rows: readonly T['$inferInsert'][],
  target: readonly (keyof T['$inferInsert'] & string)[],
): Promise<void> {
  const columns = getTableColumns(table) as Record<string, { name: string }>;
  const names = Object.keys(rows[0] ?? {});
  if (names.length === 0) return;
  const named = (name: string) => sql.identifier(columns[name]!.name);
  const given = rows.map((row) => Object.fromEntries(names.map((name) => [columns[name]!.name, (row as Record<string, unknown>)[name]])));
  const list = sql.join(names.map(named), sql`, `);
  const over = names.filter((name) => !(target as readonly string[]).includes(name) && name !== 'companyId');
  await tx.execute(sql`insert into ${table} (${list})
    select ${list} from jsonb_populate_recordset(null::${table}, ${JSON.stringify(given)}::jsonb)
    on conflict (${sql.join(target.map(named), sql`, `)})
    do update set ${sql.join(
      over.map((name) => sql`${named(name)} = excluded.${named(name)}`),
      sql`, `,
    )}`);
}
