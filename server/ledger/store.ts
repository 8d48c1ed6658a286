import { and, asc, desc, eq, sql } from 'drizzle-orm';
import type { Company, Entry, EntryRow, Trail } from '@ledgerline/contract';
import { eventsOf, linesOf } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { bill, costCentre, journalEntry, journalLine, ledgerAccount, person, supplier, taxCode } from '../db/schema/index.ts';
import { notFound } from '../http/problems.ts';

const numberOf = sql<string>`${journalEntry.year} || '-' || lpad(${journalEntry.number}::text, 5, '0')`;
const columns = {
  id: journalEntry.id,
  number: numberOf,
  entryDate: journalEntry.entryDate,
  kind: journalEntry.kind,
  description: journalEntry.description,
  billId: journalEntry.billId,
  postedBy: person.name,
  postedAt: journalEntry.postedAt,
  total: sql<string>`(select sum(jl.debit)::text from journal_line jl where jl.entry_id = ${journalEntry.id})`,
  currency: journalEntry.currency,
  rate: journalEntry.rate,
};

export async function listEntries(
  db: Executor,
  companyId: string,
  query: { q?: string; account?: string; limit: number },
  at: string[] | null,
): Promise<EntryRow[]> {
  const words = query.q?.trim();
  const rows = await db
    .select(columns)
    .from(journalEntry)
    .innerJoin(person, eq(person.id, journalEntry.postedBy))
    .where(
      and(
        eq(journalEntry.companyId, companyId),
        words
          ? sql`(${journalEntry.description} ilike ${`%${words.replace(/[\\%_]/g, '\\$&')}%`} or ${numberOf} ilike ${`%${words.replace(/[\\%_]/g, '\\$&')}%`})`
          : undefined,
        query.account
          ? sql`exists (select 1 from journal_line jl where jl.entry_id = ${journalEntry.id} and jl.account_id = ${query.account}::uuid)`
          : undefined,
        at ? sql`(${journalEntry.year} * 1000000 + ${journalEntry.number}) < ${Number(at[0])}` : undefined,
      ),
    )
    .orderBy(desc(journalEntry.year), desc(journalEntry.number))
    .limit(query.limit);
  return rows.map(({ currency: _c, rate: _r, ...row }) => ({ ...row, postedAt: row.postedAt.toISOString() }));
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
      hasTrail: sql<boolean>`${journalEntry.billId} is not null`,
    })
    .from(journalLine)
    .innerJoin(journalEntry, eq(journalEntry.id, journalLine.entryId))
    .innerJoin(ledgerAccount, eq(ledgerAccount.id, journalLine.accountId))
    .leftJoin(costCentre, eq(costCentre.id, journalLine.costCentreId))
    .leftJoin(taxCode, eq(taxCode.id, journalLine.taxCodeId))
    .where(eq(journalLine.entryId, id))
    .orderBy(asc(journalLine.position));
  return { ...row, postedAt: row.postedAt.toISOString(), baseCurrency: company.baseCurrency, lines };
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
    people: (await eventsOf(db, row.bill.id)).map(({ what, person: who, at: when }) => ({ what, person: who, at: when })),
  };
}
