import { getTableName, sql, type SQL } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';

/**
 * A column with its table, for hand-written SQL. Inside the fields of a select without a join the query builder leaves the table out,
 * so that a subselect would compare its own column with itself.
 */
export const col = (column: PgColumn): SQL => sql.raw(`"${getTableName(column.table)}"."${column.name}"`);

/** A LIKE pattern for text that a person typed: found anywhere. */
export const like = (text: string): string => `%${text.replace(/[\\%_]/g, '\\$&')}%`;
