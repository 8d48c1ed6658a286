import { and, asc, desc, eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { Company, Entry, EntryRow, PeriodList, Trail } from '@ledgerline/contract';
import { linesOf } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import {
  bill,
  costCentre,
  journalEntry,
  journalLine,
  ledgerAccount,
  period,
  periodEntries,
  person,
  supplier,
  taxCode,
} from '../db/schema/index.ts';
import { historyOf } from '../events/store.ts';
import { notFound } from '../http/problems.ts';

/** An entry's number as people write it: 2026-00042; longer where there are more than 99,999. */
export const numberOf = sql<string>`entry_number(${col(journalEntry.year)}, ${col(journalEntry.number)})`;
const columns = {
  id: journalEntry.id,
  number: numberOf,
  entryDate: journalEntry.entryDate,
  sourceType: journalEntry.sourceType,
  sourceId: journalEntry.sourceId,
  reverses: journalEntry.reverses,
  reversedBy: sql<string | null>`(select r.id from journal_entry r where r.reverses = ${col(journalEntry.id)})`,
  description: journalEntry.description,
  postedBy: person.name,
  postedAt: journalEntry.postedAt,
  total: sql<string>`(select sum(jl.debit)::text from journal_line jl where jl.entry_id = ${col(journalEntry.id)})`,
  currency: journalEntry.currency,
  rate: journalEntry.rate,
  year: journalEntry.year,
  n: journalEntry.number,
};

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

/** So many entries are looked through in their order before they are searched for by what they hold. */
const walked = 6000;

/**
 * One page of the journal, newest first; of entries that have all words, or that touch an account. As with bills, what is common is found
 * in the journal's own order, what is rare by its indexes.
 */
export async function listEntries(
  db: Executor,
  companyId: string,
  query: { q?: string | undefined; account?: string | undefined; limit: number },
  after: { year: number; number: number } | null,
): Promise<{ row: EntryRow; year: number; number: number }[]> {
  const words = (query.q ?? '').trim().split(/\s+/).filter(Boolean).slice(0, 6);
  const within = and(
    eq(journalEntry.companyId, companyId),
    after ? sql`(${journalEntry.year}, ${journalEntry.number}) < (${after.year}, ${after.number})` : undefined,
  );
  const asked = and(
    ...words.map(entryWord),
    query.account
      ? sql`${journalEntry.id} in (select jl.entry_id from journal_line jl where jl.company_id = ${companyId}::uuid and jl.account_id = ${query.account}::uuid)`
      : undefined,
  );
  const order = sql`${journalEntry.year} desc, ${journalEntry.number} desc`;
  const ids = async (statement: SQL) => (await db.execute<{ id: string }>(statement)).rows.map((r) => r.id);
  // An account that few entries touch is asked for its entries; one that many touch is met soon in the journal's order.
  const few = query.account ? await entriesOf(db, companyId, query.account) : null;
  const words_ = and(...words.map(entryWord));
  if (few)
    return few.length === 0
      ? []
      : entryRows(
          db,
          await ids(
            sql`select ${journalEntry.id} from journal_entry where ${and(within, words_, sql`${journalEntry.id} = any(${sql.param(few)}::uuid[])`)} order by ${order} limit ${query.limit}`,
          ),
        );
  const touching = query.account
    ? sql`exists (select 1 from journal_line jl where jl.entry_id = ${journalEntry.id} and jl.account_id = ${query.account}::uuid)`
    : undefined;
  if (!words_ && !touching)
    return entryRows(
      db,
      await ids(sql`select ${journalEntry.id} from journal_entry where ${within} order by ${order} limit ${query.limit}`),
    );
  const first = await ids(
    sql`select journal_entry.id from (select * from journal_entry where ${within} order by ${order} limit ${walked}) journal_entry where ${and(words_, touching)} order by ${order} limit ${query.limit}`,
  );
  const chosen =
    first.length === query.limit
      ? first
      : await ids(
          sql`select id from (select ${journalEntry.id}, ${journalEntry.year}, ${journalEntry.number} from journal_entry where ${within} and ${asked} offset 0) e order by year desc, number desc limit ${query.limit}`,
        );
  return entryRows(db, chosen);
}

/** An account with more entries than this is met often enough in the journal's own order. */
const fewEntries = 20_000;
/** The entries that touch an account, where they are few; null where they are many. */
async function entriesOf(db: Executor, companyId: string, account: string): Promise<string[] | null> {
  const { rows } = await db.execute<{ id: string }>(
    sql`select distinct entry_id as id from (select entry_id from journal_line where company_id = ${companyId}::uuid and account_id = ${account}::uuid limit ${fewEntries}) l`,
  );
  return rows.length < fewEntries / 10 ? rows.map((r) => r.id) : null;
}

/** Entries by their ids, newest first. */
async function entryRows(db: Executor, ids: string[]): Promise<{ row: EntryRow; year: number; number: number }[]> {
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

export async function findEntry(db: Executor, company: Company, id: string): Promise<Entry> {
  const [row] = await db
    .select(columns)
    .from(journalEntry)
    .innerJoin(person, eq(person.id, journalEntry.postedBy))
    .where(and(eq(journalEntry.companyId, company.id), eq(journalEntry.id, id)));
  if (!row) throw notFound('This journal entry');
  const lines = await db
    .select({
      id: journalLine.id,
      account: ledgerAccount.code,
      accountName: ledgerAccount.name,
      costCentre: costCentre.code,
      taxCode: taxCode.code,
      description: journalLine.description,
      debit: journalLine.debit,
      credit: journalLine.credit,
      currencyAmount: journalLine.currencyAmount,
      hasTrail: sql<boolean>`${col(journalEntry.billId)} is not null`,
    })
    .from(journalLine)
    .innerJoin(journalEntry, eq(journalEntry.id, journalLine.entryId))
    .innerJoin(ledgerAccount, eq(ledgerAccount.id, journalLine.accountId))
    .leftJoin(costCentre, eq(costCentre.id, journalLine.costCentreId))
    .leftJoin(taxCode, eq(taxCode.id, journalLine.taxCodeId))
    .where(eq(journalLine.entryId, id))
    .orderBy(asc(journalLine.position));
  const { year: _y, n: _n, ...entry } = row;
  return { ...entry, postedAt: row.postedAt.toISOString(), baseCurrency: company.baseCurrency, lines };
}

/** From an amount in the ledger to the ink: journal line → bill line → mark on the page. Tax and payable lines lead to the header's mark. */
export async function trailOf(db: Executor, companyId: string, lineId: string): Promise<Trail> {
  const [row] = await db
    .select({ line: journalLine, entry: journalEntry, number: numberOf, account: ledgerAccount, bill, supplier: supplier.name })
    .from(journalLine)
    .innerJoin(journalEntry, eq(journalEntry.id, journalLine.entryId))
    .innerJoin(ledgerAccount, eq(ledgerAccount.id, journalLine.accountId))
    .innerJoin(bill, eq(bill.id, journalEntry.billId))
    .innerJoin(supplier, eq(supplier.id, bill.supplierId))
    .where(and(eq(journalLine.companyId, companyId), eq(journalLine.id, lineId)));
  if (!row) throw notFound('The trail of this amount');
  const lines = await linesOf(db, row.bill.id);
  const at = lines.findIndex((l) => l.id === row.line.billLineId);
  const line = lines[at];
  const stored = line ? line.marks['amount'] : row.line.supplierId ? row.bill.marks['gross'] : row.bill.marks['tax'];
  return {
    journal: {
      entry: row.number,
      entryId: row.entry.id,
      account: `${row.account.code} ${row.account.name}`,
      debit: row.line.debit,
      credit: row.line.credit,
      description: row.line.description,
    },
    bill: {
      id: row.bill.id,
      supplier: row.supplier,
      invoiceNumber: row.bill.invoiceNumber!,
      kind: row.bill.kind,
      currency: row.bill.currency,
      gross: row.bill.gross!,
      issueDate: row.bill.issueDate,
    },
    line: line
      ? { row: at + 1, description: line.description, quantity: line.quantity, unitPrice: line.unitPrice, amount: line.amount }
      : null,
    documentId: row.bill.documentId,
    mark: stored?.mark ?? null,
    proof: stored?.proof ?? null,
    people: (await historyOf(db, companyId, 'bill', row.bill.id))
      .filter((e) => e.verb !== 'changed')
      .map(({ verb, person: who, at: when }) => ({ what: verb, person: who, at: when })),
  };
}

/** The company's periods, oldest first, with how many entries each has. */
export async function listPeriods(db: Executor, companyId: string): Promise<PeriodList> {
  const periods = await db
    .select({ year: period.year, month: period.month, open: period.open, entries: sql<number>`coalesce(${col(periodEntries.entries)}, 0)` })
    .from(period)
    .leftJoin(
      periodEntries,
      and(eq(periodEntries.companyId, period.companyId), eq(periodEntries.year, period.year), eq(periodEntries.month, period.month)),
    )
    .where(eq(period.companyId, companyId))
    .orderBy(asc(period.year), asc(period.month));
  return { periods };
}
