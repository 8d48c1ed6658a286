import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Arrival, ArrivalDocument } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { arrival, bill, document, supplier } from '../db/schema/index.ts';

const sameBill = alias(bill, 'same_bill');

export async function documentsOf(db: Executor, arrivalIds: string[]): Promise<Map<string, ArrivalDocument[]>> {
  if (arrivalIds.length === 0) return new Map();
  const rows = await db.select({
    arrivalId: document.arrivalId, id: document.id, name: document.name, mediaType: document.mediaType, size: document.size, state: document.state, note: document.note, pageCount: document.pageCount, part: document.part, paper: sql<boolean>`coalesce(jsonb_array_length(${document.sources}), 0) > 0`,
    billId: bill.id, billStage: bill.stage, billLabel: sql<string | null>`concat_ws(' ', coalesce(${supplier.name}, ${bill.supplierName}), ${bill.invoiceNumber})`, duplicateOf: document.duplicateOf, duplicateBillId: sameBill.id,
  }).from(document).leftJoin(bill, and(eq(bill.documentId, document.id), sql`${bill.stage} <> 'discarded'`)).leftJoin(supplier, eq(supplier.id, bill.supplierId))
    .leftJoin(sameBill, and(eq(sameBill.documentId, document.duplicateOf), sql`${sameBill.stage} <> 'discarded'`))
    .where(inArray(document.arrivalId, arrivalIds)).orderBy(asc(document.position), asc(document.part));
  const byArrival = new Map<string, ArrivalDocument[]>();
  for (const { arrivalId, ...doc } of rows) byArrival.set(arrivalId, [...(byArrival.get(arrivalId) ?? []), { ...doc, billLabel: doc.billId ? doc.billLabel : null }]);
  return byArrival;
}

const columns = { id: arrival.id, channel: arrival.channel, sender: arrival.sender, subject: arrival.subject, note: arrival.note, receivedAt: arrival.receivedAt };

/** Newest first, by keyset on time and id. */
export async function listArrivals(db: Executor, companyId: string, cursor: { at: string; id: string } | null, limit: number): Promise<Arrival[]> {
  const rows = await db.select(columns).from(arrival)
    .where(and(eq(arrival.companyId, companyId), cursor ? sql`(${arrival.receivedAt}, ${arrival.id}) < (${cursor.at}::timestamptz, ${cursor.id}::uuid)` : undefined))
    .orderBy(desc(arrival.receivedAt), desc(arrival.id)).limit(limit);
  const documents = await documentsOf(db, rows.map((r) => r.id));
  return rows.map((r) => ({ ...r, receivedAt: r.receivedAt.toISOString(), documents: documents.get(r.id) ?? [] }));
}

export async function findArrival(db: Executor, companyId: string, id: string) {
  const [row] = await db.select().from(arrival).where(and(eq(arrival.companyId, companyId), eq(arrival.id, id)));
  return row ?? null;
}

export async function findDocument(db: Executor, companyId: string, id: string) {
  const [row] = await db.select().from(document).where(and(eq(document.companyId, companyId), eq(document.id, id)));
  return row ?? null;
}
