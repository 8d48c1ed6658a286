import { sql, type SQL } from 'drizzle-orm';
import { getTableColumns } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';

/** Columns as the row that could not be inserted would have had them (`ON CONFLICT … DO UPDATE`). */
export function excluded<T extends PgTable>(table: T, names: (keyof T['$inferInsert'] & string)[]): Record<string, SQL> {
  const columns = getTableColumns(table) as Record<string, { name: string }>;
  return Object.fromEntries(names.map((name) => [name, sql.raw(`excluded."${columns[name]!.name}"`)]));
}
