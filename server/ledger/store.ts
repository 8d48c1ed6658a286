import { and, asc, eq, or, sql } from 'drizzle-orm';
import type { Company, Entry, PeriodList, Trail } from '@ledgerline/contract';
import { linesOf } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import {
  accrual,
  accrualLine,
  bill,
  costCentre,
  journalEntry,
  journalLine,
  ledgerAccount,
  orderLine,
  period,
  periodEntries,
  person,
  purchaseOrder,
  supplier,
  taxCode,
} from '../db/schema/index.ts';
import { historyOf } from '../events/store.ts';
import { dimensionsIn, dimensionsSaid, namesOn } from '../dimensions/store.ts';
import { notFound } from '../http/problems.ts';

/** An entry's number as people write it: 2026-00042; longer where there are more than 99,999. */
export const numberOf = sql<string>`entry_number(${col(journalEntry.year)}, ${col(journalEntry.number)})`;
/** What the journal shows of an entry. */
export const columns = {
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
      dimensions: dimensionsIn(journalLine),
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
  const [named, codes] = await namesOn(
    db,
    company.id,
    lines.map((l) => l.dimensions),
  );
  const orders = await db
    .selectDistinct({ id: purchaseOrder.id, number: purchaseOrder.number })
    .from(accrual)
    .innerJoin(accrualLine, eq(accrualLine.accrualId, accrual.id))
    .innerJoin(orderLine, eq(orderLine.id, accrualLine.orderLineId))
    .innerJoin(purchaseOrder, eq(purchaseOrder.id, orderLine.orderId))
    .where(or(eq(accrual.entryId, id), eq(accrual.backId, id)))
    .orderBy(purchaseOrder.number);
  const { year: _y, n: _n, ...entry } = row;
  return {
    ...entry,
    postedAt: row.postedAt.toISOString(),
    baseCurrency: company.baseCurrency,
    orders,
    lines: lines.map((line) => ({ ...line, dimensions: dimensionsSaid(line.dimensions, named, codes) })),
  };
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
