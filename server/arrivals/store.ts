import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Arrival, ArrivalDocument } from '@ledgerline/contract';
import type { PageSource } from '../reading/result.ts';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { arrival, bill, document, notice, supplier } from '../db/schema/index.ts';

const sameBill = alias(bill, 'same_bill');

export async function documentsOf(db: Executor, arrivalIds: string[]): Promise<Map<string, ArrivalDocument[]>> {
  if (arrivalIds.length === 0) return new Map();
  const rows = await db
    .select({
      arrivalId: document.arrivalId,
      id: document.id,
      name: document.name,
      mediaType: document.mediaType,
      size: document.size,
      state: document.state,
      note: document.note,
      pageCount: document.pageCount,
      progress: document.progress,
      part: document.part,
      sources: document.sources,
      arranged: document.arranged,
      billId: bill.id,
      billStage: bill.stage,
      billLabel: sql<string | null>`concat_ws(' ', coalesce(${col(supplier.name)}, ${col(bill.supplierName)}), ${col(bill.invoiceNumber)})`,
      duplicateOf: document.duplicateOf,
      duplicateBillId: sameBill.id,
    })
    .from(document)
    .leftJoin(bill, and(eq(bill.documentId, document.id), sql`${bill.stage} <> 'discarded'`))
    .leftJoin(supplier, eq(supplier.id, bill.supplierId))
    .leftJoin(sameBill, and(eq(sameBill.documentId, document.duplicateOf), sql`${sameBill.stage} <> 'discarded'`))
    .where(inArray(document.arrivalId, arrivalIds))
    .orderBy(asc(document.position), asc(document.part));
  const byArrival = new Map<string, ArrivalDocument[]>();
  // A document whose pages all went elsewhere is not shown, unless nothing else came.
  const empty = (r: (typeof rows)[number]) => r.arranged && r.sources?.length === 0;
  const emptied = (r: (typeof rows)[number]) => empty(r) && rows.some((o) => o.arrivalId === r.arrivalId && !empty(o));
  const parted = new Set(rows.filter((r) => r.part > 0 || r.arranged).map((r) => r.arrivalId));
  for (const { arrivalId, sources, arranged, ...doc } of rows.filter((r) => !emptied(r))) {
    const paper = (sources?.length ?? 0) > 0,
      pages = paper || arranged;
    byArrival.set(arrivalId, [
      ...(byArrival.get(arrivalId) ?? []),
      {
        ...doc,
        paper: pages,
        pagesOf: paper && parted.has(arrivalId) ? pagesOf(sources!) : null,
        billLabel: doc.billId ? doc.billLabel : null,
      },
    ]);
  }
  return byArrival;
}

/** "page 4", "pages 2–3", or how many where they do not follow each other. */
function pagesOf(sources: PageSource[]): string {
  const first = sources[0]!,
    follows = sources.every((s, i) => s.sha === first.sha && s.page === first.page + i);
  return sources.length === 1
    ? `page ${first.page}`
    : follows
      ? `pages ${first.page}–${first.page + sources.length - 1}`
      : `${sources.length} p.`;
}

const columns = {
  id: arrival.id,
  channel: arrival.channel,
  sender: arrival.sender,
  subject: arrival.subject,
  note: arrival.note,
  state: arrival.state,
  receivedAt: arrival.receivedAt,
};

/** What the doors cannot take in and somebody has to see to. */
export async function noticesNow(db: Executor): Promise<string[]> {
  const rows = await db.select({ sentence: notice.sentence }).from(notice).orderBy(asc(notice.since), asc(notice.key)).limit(20);
  return rows.map((r) => r.sentence);
}

/** Newest first, by keyset on time and id. */
export async function listArrivals(
  db: Executor,
  companyId: string,
  cursor: { at: string; id: string } | null,
  limit: number,
): Promise<Arrival[]> {
  const rows = await db
    .select(columns)
    .from(arrival)
    .where(
      and(
        eq(arrival.companyId, companyId),
        cursor ? sql`(${arrival.receivedAt}, ${arrival.id}) < (${cursor.at}::timestamptz, ${cursor.id}::uuid)` : undefined,
      ),
    )
    .orderBy(desc(arrival.receivedAt), desc(arrival.id))
    .limit(limit);
  const documents = await documentsOf(
    db,
    rows.map((r) => r.id),
  );
  return rows.map((r) => ({ ...r, receivedAt: r.receivedAt.toISOString(), documents: documents.get(r.id) ?? [] }));
}

export async function findArrival(db: Executor, companyId: string, id: string) {
  const [row] = await db
    .select()
    .from(arrival)
    .where(and(eq(arrival.companyId, companyId), eq(arrival.id, id)));
  return row ?? null;
}

export async function findDocument(db: Executor, companyId: string, id: string) {
  const [row] = await db
    .select()
    .from(document)
    .where(and(eq(document.companyId, companyId), eq(document.id, id)));
  return row ?? null;
}
