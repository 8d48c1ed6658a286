import { and, desc, eq, sql, type SQL } from 'drizzle-orm';
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

/** The entries of an account in the journal's order, by its own lines, so many at most. */
const ofAccount =
  (companyId: string, account: string, after: { year: number; number: number } | null) =>
  (most: number): SQL =>
    sql`(select journal_entry.* from (select distinct entry_year, entry_number, entry_id from journal_line
      where company_id = ${companyId}::uuid and account_id = ${account}::uuid ${after ? sql`and (entry_year, entry_number) < (${after.year}, ${after.number})` : sql``}
      order by entry_year desc, entry_number desc, entry_id desc limit ${most}) l join journal_entry on journal_entry.id = l.entry_id)`;

/** One page of the journal, newest first; of entries that have all words, or that touch an account. */
export async function listEntries(
  db: Executor,
  companyId: string,
  query: { q?: string | undefined; account?: string | undefined; limit: number },
  after: { year: number; number: number } | null,
  limits: FindLimits = usual,
): Promise<{ row: EntryRow; year: number; number: number }[]> {
  const words = (query.q ?? '').trim().split(/\s+/).filter(Boolean).slice(0, 6);
  const { account } = query;
  const touched = account
    ? sql`exists (select 1 from journal_line jl where jl.entry_id = ${journalEntry.id} and jl.account_id = ${account}::uuid)`
    : undefined;
  const ids = await findIds(
    db,
    {
      table: 'journal_entry',
      within: and(
        eq(journalEntry.companyId, companyId),
        after ? sql`(${journalEntry.year}, ${journalEntry.number}) < (${after.year}, ${after.number})` : undefined,
        touched,
      ),
      inOrder: account ? ofAccount(companyId, account, after) : undefined,
      asked: undefined,
      ways: words.length > 0 ? [and(...words.map(entryWord))!] : [],
      keys: [sql`${journalEntry.year}`, sql`${journalEntry.number}`],
      way: 'desc',
      limit: query.limit,
      rare: null,
    },
    limits,
  );
  if (ids.length === 0) return [];
  const rows = await db
    .select(columns)
    .from(journalEntry)
    .innerJoin(person, eq(person.id, journalEntry.postedBy))
    .where(sql`${journalEntry.id} = any(${sql.param(ids)}::uuid[])`)
    .orderBy(desc(journalEntry.year), desc(journalEntry.number));
  return rows.map(({ currency: _c, rate: _r, year, n, ...row }) => ({
    row: { ...row, postedAt: row.postedAt.toISOString() },
    year,
    number: n,
  }));
}
