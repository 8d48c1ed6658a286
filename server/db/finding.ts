import { and, or, sql, type SQL } from 'drizzle-orm';
import type { Executor } from './client.ts';

/** A page of a list: rows of a table within a company and beyond the page before, of which some are asked for, in an order. */
export interface Find {
  table: 'bill' | 'journal_entry';
  within: SQL | undefined;
  /** What each row must be. */
  asked: SQL | undefined;
  /** In one of these ways at least each row is found, each by an index of its own; none where nothing is asked in words. */
  ways: SQL[];
  /** The first rows within, in the order, so many at most: where an index of another table has them. */
  inOrder?: ((most: number) => SQL) | undefined;
  /** What it is sorted by, as the order's index has it; together they tell every row from every other. */
  keys: SQL[];
  way: 'asc' | 'desc';
  limit: number;
  /** How many are found in the first way at most, where few are asked for as far as is known; else null. */
  rare: number | null;
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
  const { within, asked, ways, keys, limit } = find,
    table = sql.raw(find.table),
    way = sql.raw(find.way);
  const order = (by: SQL[]) =>
    sql.join(
      by.map((key) => sql`${key} ${way}`),
      sql`, `,
    );
  const all = and(asked, or(...ways));
  const rows = async (statement: SQL) => (await db.execute<{ id: string; n?: number }>(statement)).rows;
  const ids = async (statement: SQL) => (await rows(statement)).map((r) => r.id);
  const first = find.inOrder ?? ((most: number) => sql`(select * from ${table} where ${within} order by ${order(keys)} limit ${most})`);
  const met = (most: number) =>
    ids(sql`select ${table}.id from ${first(most)} ${table} where ${all ?? sql`true`} order by ${order(keys)} limit ${limit}`);
  if (!all) return met(limit);
  // Each way by itself, without what an earlier one has: the order is hidden from the database, so that it fetches by what is asked.
  const named = keys.map((_, i) => sql.raw(`k${i}`));
  const columns = sql.join([sql`${table}.id`, ...keys.map((key, i) => sql`${key} as ${named[i]}`)], sql`, `);
  const fetched = (most: SQL) => {
    const parts = ways.map((one, i) => {
      const others = ways.slice(0, i).map((other) => sql`(${other}) is not true`);
      return sql`select ${columns} from ${table} where ${and(within, asked, one, ...others)}`;
    });
    return sql`select id, count(*) over () as n from (${sql.join(parts, sql` union all `)} ${most} offset 0) f order by ${order(named)} limit ${limit}`;
  };
  if (find.rare !== null) {
    const most = find.rare + few;
    const found = await rows(fetched(sql`limit ${most}`));
    if (Number(found[0]?.n ?? 0) < most) return found.map((r) => r.id);
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
  // Of words the database knows too little to choose by itself.
  return ids(
    ways.length > 0
      ? fetched(sql``)
      : sql`select ${table}.id from ${table} where ${and(within, asked)} order by ${order(keys)} limit ${limit}`,
  );
}
