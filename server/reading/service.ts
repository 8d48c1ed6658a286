import { and, eq, inArray, ne } from 'drizzle-orm';
import type { Context } from '@ledgerline/core/reading';
import { fileOfAttachment } from '../arrivals/take.ts';
import { alone } from '../db/alone.ts';
import type { Executor } from '../db/client.ts';
import { ownCompanies } from '../companies/store.ts';
import { arrival, company, document } from '../db/schema/index.ts';
import { transaction } from '../events/record.ts';
import { fetchFile, keep } from '../files/store.ts';
import { failedTry } from '../jobs/tries.ts';
import type { Services } from '../services.ts';
import { failedNote, noteOf } from './notes.ts';
import type { Asked, PageSource, ReadResult, Separator, Wanting } from './result.ts';
import { settlePart } from './settle.ts';
import { shelfFor } from './shelf.ts';

type DocumentRow = typeof document.$inferSelect;

/** The files and pages that make a document; null where one is not there any more. */
async function askedOf(services: Services, row: DocumentRow): Promise<{ files: Asked['files']; order: PageSource[] | null } | null> {
  const { db } = services.database;
  const order = row.arranged && row.sources ? row.sources : null;
  const shas = order ? [...new Set(order.map((s) => s.sha))] : [row.fileSha256];
  const files = await Promise.all(shas.map(async (sha) => ({ sha, bytes: await fetchFile(db, sha) })));
  if (files.some((f) => f.bytes === null)) return null;
  return { files: files.map(({ sha, bytes }) => ({ sha, bytes: new Uint8Array(bytes!) })), order };
}

/**
 * Reads a waiting document and makes its bill, or, where the file held several, all of theirs, in one transaction at the end. Doing
 * it twice equals doing it once: a document that has been read, or that somebody reads just now, is left alone. One whose pages have to be
 * read as pictures first goes to the queue for those, unless it came from there.
 */
export async function readArrived(services: Services, documentId: string, patient = false): Promise<void> {
  await alone(services.database.pool, `document ${documentId}`, () => readHeld(services, documentId, patient));
}

/** Reads a document as a job: the last failure is said at the document, which then waits for a person to try it again. */
export function readJob(services: Services, documentId: string, patient: boolean): Promise<void> {
  const { db } = services.database;
  const given = { state: 'unreadable', note: failedNote, progress: null };
  return failedTry(
    db,
    document,
    documentId,
    () => readArrived(services, documentId, patient),
    () =>
      db
        .update(document)
        .set(given)
        .where(and(eq(document.id, documentId), inArray(document.state, ['waiting', 'reading']))),
  );
}

async function readHeld(services: Services, documentId: string, patient: boolean): Promise<void> {
  const { db } = services.database;
  const [claimed] = await db
    .update(document)
    .set({ state: 'reading' })
    .where(and(eq(document.id, documentId), inArray(document.state, ['waiting', 'reading'])))
    .returning();
  if (!claimed) return;
  const asked = await askedOf(services, claimed);
  const shelf = shelfFor(services, claimed.id);
  const separator = await separatorOf(services, claimed);
  const known = await knownTo(db);
  const result: ReadResult | Wanting = !asked
    ? { ok: false, fault: 'broken', pages: 0 }
    : patient
      ? await services.reader.readAll(asked.files, asked.order, shelf, separator, known)
      : await services.reader.readQuickly(asked.files, asked.order, shelf, separator, known);
  await shelf.settled();
  await transaction(db, async (tx) => {
    // The arrival is the lock: an e-invoice and its page that are read at once still find each other.
    const [came] = await tx.select().from(arrival).where(eq(arrival.id, claimed.arrivalId)).for('update');
    const [row] = await tx.select().from(document).where(eq(document.id, documentId)).for('update');
    // Pages that were shared out anew meanwhile are read by the job that came with them.
    if (!row || !came || row.state !== 'reading' || JSON.stringify(row.sources) !== JSON.stringify(claimed.sources)) return;
    if (result.ok === 'wanting') {
      const progress = { done: 0, of: result.scans.length, doing: 'waiting for its turn' };
      await tx.update(document).set({ progress }).where(eq(document.id, documentId));
      return services.queue.scanning(tx, documentId);
    }
    if (!result.ok) {
      await tx
        .update(document)
        .set({ state: 'unreadable', note: noteOf(result), progress: null, pageCount: result.pages || null, readAt: services.now() })
        .where(eq(document.id, documentId));
      return;
    }
    if (result.separators.length > 0)
      await tx
        .update(arrival)
        .set({ leftOut: [...came.leftOut, ...result.separators] })
        .where(eq(arrival.id, came.id));
    const [first, ...others] = result.parts;
    const home = await settlePart(tx, services, came, row, first!, result.parts.length);
    for (const [i, part] of others.entries()) {
      const { id: _id, ...same } = row;
      const [made] = await tx
        .insert(document)
        .values({ ...same, part: i + 1, state: 'reading' })
        .returning();
      await settlePart(tx, services, came, made!, part, result.parts.length);
    }
    await attach(tx, services, { ...row, ...home }, result.attachments);
  });
}

/** What the reader is told beforehand: what is ours is the buyer, wherever it stands, and never the supplier. */
export const knownTo = async (db: Executor): Promise<Context> => ({
  companies: await ownCompanies(db),
});

/** What parts the documents of a scan from the scan folder, as its company has set it; other arrivals are parted by their pages alone. */
async function separatorOf(services: Services, row: DocumentRow): Promise<Separator> {
  if (row.arranged) return 'none';
  const [found] = await services.database.db
    .select({ separator: company.scanSeparator })
    .from(arrival)
    .innerJoin(company, eq(company.id, arrival.companyId))
    .where(and(eq(arrival.id, row.arrivalId), eq(arrival.channel, 'folder')));
  return (found?.separator ?? 'none') as Separator;
}

/** What an e-invoice carries inside becomes documents beside it; those that may be its page are read. */
async function attach(
  tx: Executor,
  services: Services,
  row: DocumentRow,
  attachments: Extract<ReadResult, { ok: true }>['attachments'],
): Promise<void> {
  for (const [i, file] of attachments.entries()) {
    const sha = await keep(tx, file.bytes);
    const [there] = await tx
      .select({ id: document.id })
      .from(document)
      .where(and(eq(document.arrivalId, row.arrivalId), eq(document.fileSha256, sha), ne(document.id, row.id)));
    if (there) continue;
    const [made] = await tx
      .insert(document)
      .values({
        companyId: row.companyId,
        arrivalId: row.arrivalId,
        position: row.position,
        part: 100 + i,
        fileSha256: sha,
        ...fileOfAttachment(file, row.name),
      })
      .returning({ id: document.id, state: document.state });
    if (made!.state === 'waiting') await services.queue.reading(tx, made!.id);
  }
}
