import { and, sql, type SQL } from 'drizzle-orm';
import type { Executor } from './client.ts';

/** A page of a list: rows of a table within a company and beyond the page before, of which some are asked for, in an order. */
export interface Find {
  table: 'bill' | 'journal_entry';
  within: SQL | undefined;
  asked: SQL | undefined;
  /** The first rows within, in the order, so many at most: where an index of another table has them. */
  inOrder?: ((most: number) => SQL) | undefined;
  /** What it is sorted by, as the order's index has it; together they tell every row from every other. */
  keys: SQL[];
  way: 'asc' | 'desc';
  limit: number;
  /** Few rows are what is asked, as far as is known. */
  rare: boolean;
  /** The database knows too little of what is asked (words) to choose the quickest way by itself. */
  byWords: boolean;
}
/** So many rows are looked through in their order; and what was thought to be rare and is not shows after so many. */
export interface FindLimits {
  walked: number;
  few: number;
}
export const usual: FindLimits = { walked: 12_000, few: 6000 };

/**
 * The ids of a page's rows. What is rare is fetched by its indexes, all of it, and sorted; what is common is met soon in the list's own
 * order. Neither way looks through all rows; where the first turns out to be the wrong one, the other is taken.
 */
export async function findIds(db: Executor, find: Find, { walked, few }: FindLimits = usual): Promise<string[]> {
  const { within, asked, keys, limit } = find,
    table = sql.raw(find.table),
    way = sql.raw(find.way);
  const order = (by: SQL[]) =>
    sql.join(
      by.map((key) => sql`${key} ${way}`),
      sql`, `,
    );
  const named = keys.map((_, i) => sql.raw(`k${i}`));
  const rows = async (statement: SQL) => (await db.execute<{ id: string; n?: number }>(statement)).rows;
  const ids = async (statement: SQL) => (await rows(statement)).map((r) => r.id);
  // The order is hidden from the database, so that it fetches by what is asked and does not go through all rows in order.
  const fetched = (most: SQL) => {
    const columns = sql.join([sql`${table}.id`, ...keys.map((key, i) => sql`${key} as ${named[i]}`)], sql`, `);
    return sql`select id, count(*) over () as n from (select ${columns} from ${table} where ${and(within, asked)} ${most} offset 0) f order by ${order(named)} limit ${limit}`;
  };
  const first = find.inOrder ?? ((most: number) => sql`(select * from ${table} where ${within} order by ${order(keys)} limit ${most})`);
  const met = (most: number) =>
    ids(sql`select ${table}.id from ${first(most)} ${table} where ${asked ?? sql`true`} order by ${order(keys)} limit ${limit}`);
  if (!asked) return met(limit);
  if (find.rare) {
    const found = await rows(fetched(sql`limit ${few}`));
    if (Number(found[0]?.n ?? 0) < few) return found.map((r) => r.id);
  }
  // A short look tells whether a longer one can bring enough.
  const ahead = Math.ceil(walked / 8);
  const soon = await met(ahead);
  if (soon.length === limit) return soon;
  const whole = find.inOrder && (await rows(sql`select count(*)::int as n from ${first(walked)} w`))[0]!.n! < walked;
  if (whole || soon.length * walked >= limit * ahead) {
    const found = await met(walked);
    if (whole || found.length === limit) return found;
  }
  return ids(
    find.byWords
      ? fetched(sql``)
      : sql`select ${table}.id from ${table} where ${and(within, asked)} order by ${order(keys)} limit ${limit}`,
  );
}
