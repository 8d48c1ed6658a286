import { alias } from 'drizzle-orm/pg-core';
import { and, asc, desc, eq, sql } from 'drizzle-orm';
import type { BankAccount, SupplierAccount, SupplierRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { bankAccount, bill, costCentre, journalEntry, ledgerAccount, openItem, person, supplier, taxCode } from '../db/schema/index.ts';
import { notFound } from '../http/problems.ts';
import { numberOf } from '../ledger/store.ts';

type OpenSum = { currency: string; amount: string };

/** One page of the master list by name, with bills, what is open by currency, and the last bill's date. */
export async function listSuppliers(
  db: Executor,
  companyId: string,
  q: string,
  after: [name: string, id: string] | null,
  limit: number,
): Promise<SupplierRow[]> {
  return db
    .select({
      id: supplier.id,
      code: supplier.code,
      name: supplier.name,
      currency: supplier.currency,
      terms: supplier.terms,
      taxId: supplier.taxId,
      bills: sql<number>`(select count(*)::int from bill b where b.supplier_id = ${col(supplier.id)} and b.stage <> 'discarded')`,
      lastBill: sql<
        string | null
      >`(select max(b.issue_date)::text from bill b where b.supplier_id = ${col(supplier.id)} and b.stage <> 'discarded')`,
      open: sql<
        OpenSum[]
      >`coalesce((select json_agg(json_build_object('currency', o.currency, 'amount', o.amount::text) order by o.currency) from (select i.currency, sum(i.amount - i.settled) as amount from open_item i where i.supplier_id = ${col(supplier.id)} group by i.currency having sum(i.amount - i.settled) <> 0) o), '[]')`,
    })
    .from(supplier)
    .where(
      and(
        eq(supplier.companyId, companyId),
        q ? sql`(${supplier.name} ilike ${like(q)} or ${supplier.code} ilike ${like(q)} or ${supplier.taxId} ilike ${like(q)})` : undefined,
        after ? sql`(${supplier.name}, ${supplier.id}) > (${after[0]}, ${after[1]}::uuid)` : undefined,
      ),
    )
    .orderBy(asc(supplier.name), asc(supplier.id))
    .limit(limit);
}

async function accountsOf(db: Executor, supplierId: string): Promise<BankAccount[]> {
  const verifier = alias(person, 'verifier');
  const rows = await db
    .select({ a: bankAccount, proposer: person.name, verifier: verifier.name })
    .from(bankAccount)
    .leftJoin(person, eq(person.id, bankAccount.proposedBy))
    .leftJoin(verifier, eq(verifier.id, bankAccount.verifiedBy))
    .where(eq(bankAccount.supplierId, supplierId))
    .orderBy(desc(bankAccount.proposedAt), desc(bankAccount.id));
  return rows.map(({ a, proposer, verifier: checked }) => ({
    id: a.id,
    iban: a.iban,
    state: a.retiredAt ? 'retired' : a.verifiedAt ? 'verified' : 'waiting',
    note: a.note,
    proposedBy: proposer,
    proposedById: a.proposedBy,
    proposedAt: a.proposedAt.toISOString(),
    verifiedBy: checked,
    verifiedAt: a.verifiedAt?.toISOString() ?? null,
    how: a.how,
  }));
}

const shownItems = 200;
/**
 * A supplier's master data and its account: what is open by currency, and its items, open ones before settled ones and new before
 * old, so that what the limit cuts is settled. Not found outside the company.
 */
export async function supplierAccount(db: Executor, companyId: string, id: string, shown = shownItems): Promise<SupplierAccount> {
  const [row] = await db
    .select({
      s: supplier,
      account: sql<string | null>`${col(ledgerAccount.code)} || ' ' || ${col(ledgerAccount.name)}`,
      centre: sql<string | null>`${col(costCentre.code)} || ' ' || ${col(costCentre.name)}`,
      code: taxCode.code,
    })
    .from(supplier)
    .leftJoin(ledgerAccount, eq(ledgerAccount.id, supplier.accountId))
    .leftJoin(costCentre, eq(costCentre.id, supplier.costCentreId))
    .leftJoin(taxCode, eq(taxCode.id, supplier.taxCodeId))
    .where(and(eq(supplier.companyId, companyId), eq(supplier.id, id)));
  if (!row) throw notFound('This supplier');
  const items = await db
    .select({
      sourceType: openItem.sourceType,
      sourceId: openItem.sourceId,
      kind: sql<string>`coalesce(${col(bill.kind)}, ${col(openItem.sourceType)})`,
      invoiceNumber: bill.invoiceNumber,
      issueDate: sql<string>`coalesce(${col(bill.issueDate)}, ${col(journalEntry.entryDate)})::text`,
      dueDate: openItem.dueDate,
      currency: openItem.currency,
      amount: openItem.amount,
      open: sql<string>`(${col(openItem.amount)} - ${col(openItem.settled)})::text`,
      entry: numberOf,
      entryId: openItem.entryId,
    })
    .from(openItem)
    .innerJoin(journalEntry, eq(journalEntry.id, openItem.entryId))
    .leftJoin(bill, eq(bill.id, openItem.billId))
    .where(eq(openItem.supplierId, row.s.id))
    .orderBy(sql`${openItem.amount} = ${openItem.settled}`, desc(journalEntry.entryDate), desc(openItem.id))
    .limit(shown + 1);
  const open = await db
    .select({ currency: openItem.currency, amount: sql<string>`sum(${col(openItem.amount)} - ${col(openItem.settled)})::text` })
    .from(openItem)
    .where(eq(openItem.supplierId, row.s.id))
    .groupBy(openItem.currency)
    .orderBy(openItem.currency);
  const s = row.s;
  return {
    id: s.id,
    code: s.code,
    name: s.name,
    taxId: s.taxId,
    bankAccounts: await accountsOf(db, s.id),
    email: s.email,
    phone: s.phone,
    address: s.address,
    currency: s.currency,
    terms: s.terms,
    rowVersion: s.rowVersion,
    accountId: s.accountId,
    costCentreId: s.costCentreId,
    taxCodeId: s.taxCodeId,
    usual: { account: row.account, costCentre: row.centre, taxCode: row.code },
    more: items.length > shown,
    open: open.filter((o) => Number(o.amount) !== 0),
    items: items.slice(0, shown),
  };
}
