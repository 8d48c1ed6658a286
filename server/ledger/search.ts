import { and, desc, eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { EntryRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { like } from '../db/column.ts';
import { findIds, usual, type FindLimits } from '../db/finding.ts';
import { journalEntry, person } from '../db/schema/index.ts';
import { columns } from './store.ts';

/** Years that books may have: a number alone is looked up in each, by the index. */
const bookYears = Array.from({ length: 70 }, (_, i) => 2000 + i);

/** A word in an entry's description, or its number: whole ("2026-00042") or the figure alone. */
function entryWord(word: string): SQL {
  const described = sql`${journalEntry.description} ilike ${like(word)}`;
  const [, year, digits] = /^(?:(\d{4})-)?0*(\d{1,9})$/.exec(word) ?? [];
  if (!digits) return described;
  if (year) return sql`(${journalEntry.year} = ${Number(year)} and ${journalEntry.number} = ${Number(digits)})`;
  return sql`(${described} or (${journalEntry.year} = any(${sql.param(bookYears)}::int[]) and ${journalEntry.number} = ${Number(digits)}))`;
}

/** An account with more lines than this is met often enough in the journal's own order. */
const fewLines = 20_000;

/** The entries that touch an account: by their ids where its lines are few, so that these are rare; else as a question to each entry. */
async function touching(db: Executor, companyId: string, account: string, most: number): Promise<{ is: SQL; rare: boolean }> {
  const { rows } = await db.execute<{ id: string }>(
    sql`select entry_id as id from journal_line where company_id = ${companyId}::uuid and account_id = ${account}::uuid limit ${most + 1}`,
  );
  return rows.length <= most
    ? { is: sql`${journalEntry.id} = any(${sql.param([...new Set(rows.map((r) => r.id))])}::uuid[])`, rare: true }
    : {
        is: sql`exists (select 1 from journal_line jl where jl.entry_id = ${journalEntry.id} and jl.account_id = ${account}::uuid)`,
        rare: false,
      };
}

/** One page of the journal, newest first; of entries that have all words, or that touch an account. */
export async function listEntries(
  db: Executor,
  companyId: string,
  query: { q?: string | undefined; account?: string | undefined; limit: number },
  after: { year: number; number: number } | null,
  { lines = fewLines, ...limits }: Partial<FindLimits> & { lines?: number } = {},
): Promise<{ row: EntryRow; year: number; number: number }[]> {
  const words = (query.q ?? '').trim().split(/\s+/).filter(Boolean).slice(0, 6);
  const account = query.account ? await touching(db, companyId, query.account, lines) : null;
  const ids = await findIds(
    db,
    {
      table: 'journal_entry',
      within: and(
        eq(journalEntry.companyId, companyId),
        after ? sql`(${journalEntry.year}, ${journalEntry.number}) < (${after.year}, ${after.number})` : undefined,
      ),
      asked: and(...words.map(entryWord), account?.is),
      keys: [sql`${journalEntry.year}`, sql`${journalEntry.number}`],
      way: 'desc',
      limit: query.limit,
      rare: account?.rare ?? false,
      byWords: true,
    },
    { ...usual, ...limits },
  );
  if (ids.length === 0) return [];
  const rows = await db
    .select(columns)
    .from(journalEntry)
    .innerJoin(person, eq(person.id, journalEntry.postedBy))
    .where(inArray(journalEntry.id, ids))
    .orderBy(desc(journalEntry.year), desc(journalEntry.number));
  return rows.map(({ currency: _c, rate: _r, year, n, ...row }) => ({
    row: { ...row, postedAt: row.postedAt.toISOString() },
    year,
    number: n,
  }));
}
