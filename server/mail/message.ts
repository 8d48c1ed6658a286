import { eq } from 'drizzle-orm';
import { addFiles } from '../arrivals/take.ts';
import { arrival } from '../db/schema/index.ts';
import { cleaned } from '../db/text.ts';
import { record, transaction } from '../events/record.ts';
import { fetchFile, keep } from '../files/store.ts';
import { failedTry } from '../jobs/tries.ts';
import type { Services } from '../services.ts';

/** What is said of a message until it has been taken apart, and where that failed for good. */
const notes = {
  opening: 'Just came in; it is being taken apart.',
  failed: 'This message could not be taken apart. It is kept as it came: open it, or try again.',
};

/**
 * Keeps a message as it came, once for each company that it was sent to, and has it taken apart after that. The same message again, from a
 * sender who did not hear that it was kept, is kept already. Gives the new arrivals.
 */
export function keepMessage(services: Services, companies: string[], raw: Uint8Array, envelopeFrom: string | null): Promise<string[]> {
  return transaction(services.database.db, async (tx) => {
    const sha = await keep(tx, raw),
      now = services.now(),
      made: string[] = [];
    for (const companyId of [...companies].sort()) {
      const [row] = await tx
        .insert(arrival)
        .values({
          companyId,
          channel: 'email',
          sender: envelopeFrom ? cleaned(envelopeFrom).slice(0, 300) : null,
          fileSha256: sha,
          note: notes.opening,
          state: 'opening',
          doorKey: `mail ${companyId} ${sha}`,
        })
        .onConflictDoNothing({ target: arrival.doorKey })
        .returning({ id: arrival.id });
      if (!row) continue;
      made.push(row.id);
      record(tx, {
        companyId,
        subject: { type: 'arrival', id: row.id },
        verb: 'arrived',
        by: { personId: null, source: 'email' },
        at: now,
        after: { channel: 'email', bytes: raw.byteLength },
      });
      await services.queue.opening(tx, row.id);
    }
    return made;
  });
}

/** Takes a kept message apart into its documents, which are then read. Doing it twice equals doing it once. */
export async function openArrival(services: Services, arrivalId: string): Promise<void> {
  const { db } = services.database;
  const [kept] = await db.select().from(arrival).where(eq(arrival.id, arrivalId));
  if (kept?.state !== 'opening' || !kept.fileSha256) return;
  const raw = await fetchFile(db, kept.fileSha256);
  const opened = raw && (await services.opener.message(raw));
  if (!opened || 'fault' in opened) {
    // Whatever is wrong with it stays wrong: it waits for a person.
    await closeArrival(services, arrivalId);
    return;
  }
  await transaction(db, async (tx) => {
    const [came] = await tx.select().from(arrival).where(eq(arrival.id, arrivalId)).for('update');
    if (came?.state !== 'opening') return;
    const { sender, subject, body, headers, note, files } = opened;
    await tx
      .update(arrival)
      .set({ sender: sender ?? came.sender, subject, body, headers, note, state: 'open' })
      .where(eq(arrival.id, arrivalId));
    await addFiles(tx, services, came, files);
    record(tx, {
      companyId: came.companyId,
      subject: { type: 'arrival', id: arrivalId },
      verb: 'taken apart',
      by: { personId: null, source: 'email' },
      at: services.now(),
      note: subject,
      after: { sender: sender ?? came.sender, files: files.length },
    });
  });
}

/** Takes a message apart as a job; after the last failure it says so and waits to be tried again. */
export const openJob = (services: Services, arrivalId: string): Promise<void> =>
  failedTry(
    services.database.db,
    arrival,
    arrivalId,
    () => openArrival(services, arrivalId),
    () => closeArrival(services, arrivalId),
  );

async function closeArrival(services: Services, arrivalId: string): Promise<void> {
  await services.database.db.update(arrival).set({ state: 'failed', note: notes.failed }).where(eq(arrival.id, arrivalId));
}

/** A message that could not be taken apart waits to be tried again. */
export const waiting = { state: 'opening', note: notes.opening, tries: 0 };
