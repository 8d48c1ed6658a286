import { alias } from 'drizzle-orm/pg-core';
import { and, asc, desc, eq, ne, sql, type SQL } from 'drizzle-orm';
import type { BankAccount, ItemsQuery, SupplierAccount, SupplierItems, SupplierRow } from '@ledgerline/contract';
import { holdsPayment } from '@ledgerline/core/checks';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { bankAccount, bill, journalEntry, openItem, person, supplier, supplierBills, supplierOwed } from '../db/schema/index.ts';
import { givenOf, namedIn, shownOf } from '../coding/named.ts';
import { contactsOf } from './contacts.ts';
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
      blocked: supplier.blocked,
      paymentsHeld: supplier.paymentsHeld,
      currency: supplier.currency,
      terms: supplier.terms,
      taxId: supplier.taxId,
      bills: sql<number>`coalesce((select k.bills from supplier_bills k where k.supplier_id = ${col(supplier.id)}), 0)`,
      lastBill: sql<
        string | null
      >`(select b.issue_date::text from bill b where b.company_id = ${col(supplier.companyId)} and b.supplier_id = ${col(supplier.id)} and b.issue_date is not null and b.stage <> 'discarded' order by b.issue_date desc limit 1)`,
      open: sql<
        OpenSum[]
      >`coalesce((select json_agg(json_build_object('currency', o.currency, 'amount', o.amount::text) order by o.currency) from supplier_owed o where o.supplier_id = ${col(supplier.id)} and o.amount <> 0), '[]')`,
    })
    .from(supplier)
    .where(
      and(
        eq(supplier.companyId, companyId),
        q
          ? sql`(${supplier.name} ilike ${like(q)} or ${supplier.code} ilike ${like(q)} or ${supplier.taxId} ilike ${like(q)} or array_to_string(${supplier.otherTaxIds}, ' ') ilike ${like(q)})`
          : undefined,
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

/** A supplier's master data, its bank accounts and what is open with it. Not found outside the company. */
export async function supplierAccount(db: Executor, companyId: string, id: string): Promise<SupplierAccount> {
  const [s] = await db
    .select()
    .from(supplier)
    .where(and(eq(supplier.companyId, companyId), eq(supplier.id, id)));
  if (!s) throw notFound('This supplier');
  const open = await db
    .select({ currency: supplierOwed.currency, amount: supplierOwed.amount })
    .from(supplierOwed)
    .where(and(eq(supplierOwed.supplierId, id), ne(supplierOwed.amount, '0')))
    .orderBy(supplierOwed.currency);
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
    coding: givenOf(s),
    usual: shownOf(s, await namedIn(db, companyId, [s])),
    contacts: await contactsOf(db, s.id),
    otherTaxIds: s.otherTaxIds,
    otherAddresses: s.otherAddresses,
    suggests: s.suggests,
    blocked: s.blocked,
    paymentsHeld: s.paymentsHeld,
    open,
  };
}

type Item = SupplierItems['items'][number];
/** Where a list of items goes on: after the last one, by whether it is open, its entry's date and its id. */
export interface ItemKey {
  open: boolean;
  day: string;
  id: string;
}

/** One page of a supplier's items: open ones before settled ones, new before old. Not found outside the company. */
export async function supplierItems(
  db: Executor,
  companyId: string,
  supplierId: string,
  show: ItemsQuery['show'],
  after: ItemKey | null,
  limit: number,
): Promise<{ item: Item; key: ItemKey }[]> {
  const [known] = await db
    .select({ id: supplier.id })
    .from(supplier)
    .where(and(eq(supplier.companyId, companyId), eq(supplier.id, supplierId)));
  if (!known) throw notFound('This supplier');
  const rows = await db
    .select({
      id: openItem.id,
      isOpen: openItem.isOpen,
      entryDate: openItem.entryDate,
      sourceType: openItem.sourceType,
      sourceId: openItem.sourceId,
      kind: sql<string>`coalesce(${col(bill.kind)}, ${col(openItem.sourceType)})`,
      invoiceNumber: bill.invoiceNumber,
      issueDate: sql<string>`coalesce(${col(bill.issueDate)}, ${col(openItem.entryDate)})::text`,
      dueDate: openItem.dueDate,
      currency: openItem.currency,
      amount: openItem.amount,
      open: sql<string>`(${col(openItem.amount)} - ${col(openItem.settled)})::text`,
      entry: numberOf,
      entryId: openItem.entryId,
      held: sql<boolean>`(${col(openItem.isOpen)} and exists (select 1 from bill_exception x where x.bill_id = ${col(openItem.billId)} and x.state = 'open' and x.code in ${holdsPayment}))`,
    })
    .from(openItem)
    .innerJoin(journalEntry, eq(journalEntry.id, openItem.entryId))
    .leftJoin(bill, eq(bill.id, openItem.billId))
    .where(
      and(
        eq(openItem.supplierId, supplierId),
        show === 'all' || show === undefined ? undefined : eq(openItem.isOpen, show === 'open'),
        after
          ? sql`(${openItem.isOpen}, ${openItem.entryDate}, ${openItem.id}) < (${after.open}, ${after.day}::date, ${after.id}::uuid)`
          : undefined,
      ),
    )
    .orderBy(desc(openItem.isOpen), desc(openItem.entryDate), desc(openItem.id))
    .limit(limit);
  return rows.map(({ id, isOpen, entryDate, ...item }) => ({ item, key: { open: isOpen, day: entryDate!, id } }));
}

/** A LIKE pattern of a word in a supplier's name: three letters or more are found anywhere, fewer at the beginning of a word. */
const inName = (word: string): SQL =>
  word.length < 3 ? sql`(' ' || ${supplier.name}) ilike ${like(` ${word}`)}` : sql`${supplier.name} ilike ${like(word)}`;

/** The suppliers of a company that have a word in their name: how many bills each has, by its id. */
export async function suppliersLike(db: Executor, companyId: string, word: string): Promise<Map<string, number>> {
  const rows = await db
    .select({ id: supplier.id, bills: supplierBills.bills })
    .from(supplier)
    .leftJoin(supplierBills, eq(supplierBills.supplierId, supplier.id))
    .where(and(eq(supplier.companyId, companyId), inName(word)));
  return new Map(rows.map((r) => [r.id, r.bills ?? 0]));
}
