import { and, eq, inArray } from 'drizzle-orm';
import { matchCompany } from '@ledgerline/core/matching';
import { makeBill } from '../bills/intake.ts';
import { arrival, bill, company, document, documentPage } from '../db/schema/index.ts';
import { fetchFile } from '../files/store.ts';
import type { Services } from '../services.ts';
import { faultNotes } from './notes.ts';

/**
 * Reads a waiting document and makes its bill, in one transaction at the end. Doing it twice equals doing it once: a document that has
 * been read, or has a bill, is left alone.
 */
export async function readArrived(services: Services, documentId: string): Promise<void> {
  const { db } = services.database;
  const [claimed] = await db.update(document).set({ state: 'reading' }).where(and(eq(document.id, documentId), inArray(document.state, ['waiting', 'reading']))).returning();
  if (!claimed) return;
  const bytes = await fetchFile(db, claimed.fileSha256);
  const result = bytes ? await services.reader.read(bytes) : { ok: false as const, fault: 'broken' as const, pages: 0 };
  await db.transaction(async (tx) => {
    const [row] = await tx.select().from(document).where(eq(document.id, documentId)).for('update');
    if (!row || row.state !== 'reading' || (await tx.select({ id: bill.id }).from(bill).where(eq(bill.documentId, documentId))).length > 0) return;
    if (!result.ok) {
      await tx.update(document).set({ state: 'unreadable', note: faultNotes[result.fault], pageCount: result.pages || null, readAt: services.now() }).where(eq(document.id, documentId));
      return;
    }
    const { pages, reading } = result;
    await tx.delete(documentPage).where(eq(documentPage.documentId, documentId));
    for (const page of pages) await tx.insert(documentPage).values({ documentId, ...page });
    const [from] = await tx.select().from(arrival).where(eq(arrival.id, row.arrivalId));
    const companies = await tx.select({ id: company.id, name: company.name, taxId: company.taxId }).from(company);
    const addressed = matchCompany(reading.header.buyerName?.value ?? null, companies);
    // Scans and mail go to the company on the page; an upload stays where a person put it.
    const companyId = addressed && from?.channel !== 'upload' ? addressed.id : row.companyId;
    if (companyId !== row.companyId) {
      await tx.update(document).set({ companyId }).where(eq(document.arrivalId, row.arrivalId));
      await tx.update(arrival).set({ companyId }).where(eq(arrival.id, row.arrivalId));
    }
    const aside = reading.kind === 'other';
    await tx.update(document).set({ state: aside ? 'aside' : 'read', note: aside ? 'Not an invoice or credit note: set to one side.' : null, reading, pageCount: pages.length, readAt: services.now() }).where(eq(document.id, documentId));
    if (!aside) await makeBill(tx, { companyId, documentId, reading, addressedTo: addressed, receivedAt: from?.receivedAt ?? services.now(), now: services.now() });
  });
}

/** What a stopped server left unread is queued again. */
export async function resumeReading(services: Services): Promise<number> {
  const left = await services.database.db.select({ id: document.id }).from(document).where(inArray(document.state, ['waiting', 'reading']));
  for (const { id } of left) await services.queueReading(id);
  return left.length;
}
