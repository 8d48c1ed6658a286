import { and, eq, isNotNull, isNull, ne } from 'drizzle-orm';
import { v7 } from 'uuid';
import { cellPath } from '@ledgerline/core/bills';
import { matchSupplier, tracesOf, type KnownCompany } from '@ledgerline/core/matching';
import type { HeaderField, Reading } from '@ledgerline/core/reading';
import { dueOf } from '@ledgerline/core/terms';
import type { Executor } from '../db/client.ts';
import { calendarOf } from '../companies/store.ts';
import { passAlone } from '../matching/pass.ts';
import { meantTerms } from '../terms/store.ts';
import { bankAccount, bill, company, supplier, supplierContact } from '../db/schema/index.ts';
import { record, type Actor } from '../events/record.ts';
import { recheck } from './checking.ts';
import { discountOf } from './hand.ts';
import { addLines, stored } from './read-lines.ts';
import { editable, findBill, workersOf } from './store.ts';

const reader: Actor = { personId: null, source: 'reader' };

const fields: Partial<Record<HeaderField, string>> = {
  supplierName: 'supplierId',
  invoiceNumber: 'invoiceNumber',
  issueDate: 'issueDate',
  dueDate: 'dueDate',
  paymentTerms: 'terms',
  currency: 'currency',
  purchaseOrder: 'purchaseOrder',
  netTotal: 'net',
  taxTotal: 'tax',
  grossTotal: 'gross',
};
const paths: Record<string, string> = { 'supplier.name': 'supplierId', netTotal: 'net', taxTotal: 'tax', grossTotal: 'gross' };

/** A flag of the reading on a row ("lines[2].amount") by the id that the row got. */
function ofLine(flag: string, ids: string[]): string {
  const [, row, cell] = /^lines\[(\d+)\]\.(\w+)$/.exec(flag) ?? [];
  const id = ids[Number(row)];
  return id && cell ? cellPath(id, cell) : flag;
}

/** A supplier of the master list with the bank accounts that count, and its contacts' mail addresses. */
export type SupplierRow = typeof supplier.$inferSelect & { iban: string | null; ibans: string[]; emails: string[] };

/** The master list as the reader matches with it: each supplier with the bank accounts that count, and its contacts' mail addresses. */
export async function knownSuppliers(tx: Executor, companyId: string): Promise<SupplierRow[]> {
  const known = await tx.select().from(supplier).where(eq(supplier.companyId, companyId));
  const accounts = await tx
    .select({ supplierId: bankAccount.supplierId, iban: bankAccount.iban })
    .from(bankAccount)
    .where(and(eq(bankAccount.companyId, companyId), isNull(bankAccount.retiredAt), isNotNull(bankAccount.verifiedAt)));
  const contacts = await tx
    .select({ supplierId: supplierContact.supplierId, email: supplierContact.email })
    .from(supplierContact)
    .where(and(eq(supplierContact.companyId, companyId), isNotNull(supplierContact.email)));
  const ibans = new Map<string, string[]>(),
    emails = new Map<string, string[]>();
  for (const { supplierId, iban } of accounts) ibans.set(supplierId, [...(ibans.get(supplierId) ?? []), iban]);
  for (const { supplierId, email } of contacts) emails.set(supplierId, [...(emails.get(supplierId) ?? []), email!]);
  return known.map((s) => {
    const [iban = null, ...others] = ibans.get(s.id) ?? [];
    return { ...s, iban, ibans: others, emails: emails.get(s.id) ?? [] };
  });
}

interface NewBill {
  companyId: string;
  documentId: string;
  reading: Reading;
  suppliers: SupplierRow[];
  /** The lines come from an e-invoice's data, with unit codes. */ data: boolean;
  addressedTo: KnownCompany | null;
  receivedAt: Date;
  now: Date;
}

/** Makes the bill of a document that was read: supplier matched with its reason, lines coded by what this supplier's lines were. */
export async function makeBill(
  tx: Executor,
  { companyId, documentId, reading, suppliers, data, addressedTo, receivedAt, now }: NewBill,
): Promise<string> {
  const h = reading.header;
  const match = matchSupplier(tracesOf(reading), suppliers);
  const found = suppliers.find((s) => s.id === match?.id) ?? null;
  const lineIds = [...reading.lines, ...reading.charges].map(() => v7());
  const unsure = reading.flags
    .map((flag) => paths[flag] ?? ofLine(flag, lineIds))
    .filter((flag) => !flag.startsWith('supplier.') && flag !== 'buyer.name');
  const settled = match?.sure ? unsure.filter((u) => u !== 'supplierId') : match ? [...new Set([...unsure, 'supplierId'])] : unsure;
  const marks = Object.fromEntries(
    Object.entries(fields).flatMap(([field, name]) => {
      const read = h[field as HeaderField];
      return read ? [[name, stored(read)]] : [];
    }),
  );
  const [own] = await tx.select().from(company).where(eq(company.id, companyId));
  const read = h.paymentTerms?.value.slice(0, 200),
    usual = await meantTerms(tx, companyId, found?.terms);
  // What an e-invoice says by a name of ours is what the company means by it.
  const terms = (await meantTerms(tx, companyId, read)) ?? usual,
    counted = read && terms !== read ? terms : usual;
  const due =
    h.dueDate?.value ?? (h.issueDate && counted && reading.kind === 'invoice' ? dueOf(h.issueDate.value, counted, calendarOf(own!)) : null);
  const untaxed = h.taxTotal === null && h.netTotal === null && h.grossTotal !== null;
  const [made] = await tx
    .insert(bill)
    .values({
      companyId,
      documentId,
      stage: 'read',
      kind: reading.kind === 'credit-note' ? 'credit-note' : 'invoice',
      supplierId: found?.id ?? null,
      supplierName: h.supplierName?.value ?? null,
      supplierTaxId: h.supplierTaxId?.value ?? null,
      supplierIban: h.supplierIban?.value ?? null,
      supplierReason: match?.reason ?? null,
      invoiceNumber: h.invoiceNumber?.value ?? null,
      issueDate: h.issueDate?.value ?? null,
      dueDate: due,
      terms,
      currency: h.currency?.value ?? found?.currency ?? own!.baseCurrency,
      purchaseOrder: h.purchaseOrder?.value ?? null,
      net: h.netTotal?.value ?? (untaxed ? h.grossTotal!.value : null),
      tax: h.taxTotal?.value ?? (untaxed ? '0' : null),
      gross: h.grossTotal?.value ?? null,
      pricesIncludeTax: reading.pricesIncludeTax,
      marks,
      unsure: [...new Set(settled)],
      createdAt: receivedAt,
      discountUntil: discountOf(h.issueDate?.value ?? null, terms),
      addressedTo: addressedTo && addressedTo.id !== companyId ? addressedTo.id : null,
    })
    .returning();
  await addLines(tx, companyId, made!.id, lineIds, reading, data, found, now.toISOString().slice(0, 10));
  const subject = { type: 'bill', id: made!.id };
  record(tx, { companyId, subject, verb: 'arrived', by: reader, at: receivedAt });
  record(tx, { companyId, subject, verb: 'read', by: reader, at: now, note: addressedTo ? `Addressed to ${addressedTo.name}` : null });
  const open = await recheck(tx, own!, made!, { personId: null, now });
  // What is found of two bills is so of the earlier one, too.
  for (const id of [...new Set(open.flatMap((e) => e.other ?? []))].sort()) {
    const other = await findBill(tx, companyId, id, true);
    if (other && editable.includes(other.stage)) await recheck(tx, own!, other, { personId: null, now });
  }
  await passAlone(tx, made!, open, now);
  return made!.id;
}

/**
 * Lets go of a document's bill because the document is read anew. A bill that somebody has begun to work on or sent on stays: the
 * answer is false then. True when there is none, or it went.
 */
export async function dropBill(
  tx: Executor,
  documentId: string,
  why: string,
  now: Date,
  by: Actor = reader,
  begun = false,
): Promise<boolean> {
  const [made] = await tx
    .select()
    .from(bill)
    .where(and(eq(bill.documentId, documentId), ne(bill.stage, 'discarded')))
    .for('update');
  if (!made) return true;
  if (!(begun ? ['read', 'returned', 'set-aside'] : ['read']).includes(made.stage) || (!begun && (await workersOf(tx, made.id)).length > 0))
    return false;
  await tx.update(bill).set({ stage: 'discarded', note: why }).where(eq(bill.id, made.id));
  record(tx, {
    companyId: made.companyId,
    subject: { type: 'bill', id: made.id },
    verb: 'discarded',
    by,
    at: now,
    note: why,
    before: { stage: made.stage },
    after: { stage: 'discarded' },
  });
  return true;
}
