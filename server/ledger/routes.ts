import { and, asc, eq, sql } from 'drizzle-orm';
import { EntriesQuery, PostBills, SetPeriod, type EntryList, type PeriodList } from '@ledgerline/contract';
import { journalEntry, period } from '../db/schema/index.ts';
import { decodeCursor, encodeCursor } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { postBills } from './posting.ts';
import { findEntry, listEntries, trailOf } from './store.ts';

export function ledgerRoutes(api: Api): void {
  api.define(
    {
      method: 'post',
      path: '/postings',
      access: 'bills:post',
      summary: 'Post approved bills: all or nothing; the same key posts once',
      body: PostBills,
    },
    ({ services, caller, body }) => postBills(services, caller, body),
  );
  api.define(
    { method: 'get', path: '/entries', access: 'ledger:see', summary: 'Journal entries, newest first', query: EntriesQuery },
    async ({ services, caller, query }): Promise<EntryList> => {
      const limit = query.limit ?? 100;
      const entries = await listEntries(services.database.db, caller.company.id, { ...query, limit }, decodeCursor(query.cursor));
      const last = entries[entries.length - 1];
      return {
        entries,
        next:
          last && entries.length === limit
            ? encodeCursor([String(Number(last.number.slice(0, 4)) * 1_000_000 + Number(last.number.slice(5))), last.id])
            : null,
      };
    },
  );
  api.define(
    { method: 'get', path: '/entries/:id', access: 'ledger:see', summary: 'One journal entry with its lines' },
    ({ services, caller, params }) => findEntry(services.database.db, caller.company, params['id']!),
  );
  api.define(
    { method: 'get', path: '/entry-lines/:id/trail', access: 'ledger:see', summary: 'From an amount back to the mark on the page' },
    ({ services, caller, params }) => trailOf(services.database.db, caller.company.id, params['id']!),
  );
  api.define(
    { method: 'get', path: '/periods', access: 'ledger:see', summary: 'Periods, open and closed' },
    async ({ services, caller }): Promise<PeriodList> => {
      const rows = await services.database.db
        .select({ year: period.year, month: period.month, open: period.open, entries: sql<number>`count(${journalEntry.id})::int` })
        .from(period)
        .leftJoin(
          journalEntry,
          and(eq(journalEntry.companyId, period.companyId), eq(journalEntry.year, period.year), eq(journalEntry.month, period.month)),
        )
        .where(eq(period.companyId, caller.company.id))
        .groupBy(period.year, period.month, period.open)
        .orderBy(asc(period.year), asc(period.month));
      return { periods: rows };
    },
  );
  api.define(
    { method: 'put', path: '/periods', access: 'periods:set', summary: 'Open or close a period', body: SetPeriod },
    async ({ services, caller, body }) => {
      await services.database.db
        .insert(period)
        .values({ companyId: caller.company.id, ...body })
        .onConflictDoUpdate({ target: [period.companyId, period.year, period.month], set: { open: body.open } });
    },
  );
}
