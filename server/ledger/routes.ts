import {
  Accrual,
  AccrualQuery,
  Changed,
  EntriesFileQuery,
  EntriesQuery,
  Entry,
  EntryList,
  Nothing,
  PeriodList,
  Posted,
  TaxFileQuery,
  TaxLines,
  TaxLinesQuery,
  TaxSummary,
  TaxSummaryQuery,
  Trail,
} from '@ledgerline/contract';
import { decodeCursor, nextOf } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { accrualOn, postAccrual } from './accruals.ts';
import { openYear, setPeriod } from './periods.ts';
import { postBills } from './posting.ts';
import { entryTable } from './file.ts';
import { listEntries } from './search.ts';
import { savedAs } from '../imports/saved.ts';
import { taxLines, taxSummary, taxTable } from './tax-summary.ts';
import { findEntry, listPeriods, trailOf } from './store.ts';

const perYear = 1_000_000_000;

export function ledgerRoutes(api: Api): void {
  const { db } = api.services.database;
  api.command(
    { method: 'post', path: '/postings', summary: 'Post approved bills: all or nothing; the same key posts once', answer: Posted },
    postBills,
  );
  api.query(
    { path: '/entries', access: 'ledger:see', summary: 'Journal entries, newest first', query: EntriesQuery, answer: EntryList },
    async ({ caller, query }) => {
      const limit = query.limit ?? 100,
        at = decodeCursor(query.cursor, 'whole'),
        key = Number(at?.[0] ?? 0);
      const rows = await listEntries(
        db,
        caller.company.id,
        { q: query.q, account: query.account, limit },
        at && { year: Math.floor(key / perYear), number: key % perYear },
      );
      return {
        entries: rows.map((r) => r.row),
        next: nextOf(rows, limit, (last) => [String(last.year * perYear + last.number), last.row.id]),
      };
    },
  );
  api.raw(
    {
      method: 'get',
      path: '/entries/file',
      access: 'ledger:see',
      summary: 'Journal entries as CSV or XLSX, as they are found',
      query: EntriesFileQuery,
    },
    async ({ services, caller, query: { format, ...asked } }) =>
      savedAs(services, await entryTable(db, caller.company, asked), format, 'entries'),
  );
  api.query(
    { path: '/entries/:id', access: 'ledger:see', summary: 'One journal entry with its lines', answer: Entry },
    ({ caller, params }) => findEntry(db, caller.company, params['id']!),
  );
  api.query(
    {
      path: '/entry-lines/:id/trail',
      access: 'ledger:see',
      summary: 'From an amount back to the mark on the page',
      answer: Trail,
    },
    ({ caller, params }) => trailOf(db, caller.company.id, params['id']!),
  );
  api.query(
    {
      path: '/tax-summary',
      access: 'ledger:see',
      summary: 'What was posted by tax code and month',
      query: TaxSummaryQuery,
      answer: TaxSummary,
    },
    ({ caller, query }) => taxSummary(db, caller.company, query.from, query.to),
  );
  api.query(
    {
      path: '/tax-summary/lines',
      access: 'ledger:see',
      summary: 'The entries behind a tax summary',
      query: TaxLinesQuery,
      answer: TaxLines,
    },
    async ({ caller, query }) => {
      const limit = query.limit ?? 100,
        at = decodeCursor(query.cursor, 'dayed');
      const after = at && { entryDate: at[0].slice(0, 10), code: at[0].slice(10), entryId: at[1] };
      const lines = await taxLines(db, caller.company.id, query, after, limit);
      return { lines, next: nextOf(lines, limit, (last) => [last.entryDate + last.code, last.entryId]) };
    },
  );
  api.raw(
    {
      method: 'get',
      path: '/tax-summary/file',
      access: 'ledger:see',
      summary: 'The entries behind a tax summary as CSV or XLSX',
      query: TaxFileQuery,
    },
    async ({ services, caller, query }) =>
      savedAs(services, await taxTable(db, caller.company.id, query.from, query.to), query.format, `tax ${query.from} to ${query.to}`),
  );
  api.query(
    {
      path: '/accruals',
      access: 'ledger:see',
      summary: 'What had come by the end of a month and was not billed: posted for it, and still to be',
      query: AccrualQuery,
      answer: Accrual,
    },
    ({ caller, query }) => accrualOn(db, caller.company, query.on),
  );
  api.command({ method: 'post', path: '/accruals', summary: 'Post it, and take it back the day after', answer: Changed }, postAccrual);
  api.query({ path: '/periods', access: 'ledger:see', summary: 'Periods, open and closed', answer: PeriodList }, ({ caller }) =>
    listPeriods(db, caller.company.id),
  );
  api.command({ method: 'put', path: '/periods', summary: 'Open or close a period', answer: Nothing }, setPeriod);
  api.command({ method: 'post', path: '/periods/year', summary: 'Open the periods of a year', answer: Nothing }, openYear);
}
