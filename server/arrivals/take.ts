import { and, eq, ne } from 'drizzle-orm';
import type { Executor } from '../db/client.ts';
import { arrival, document } from '../db/schema/index.ts';
import { cleaned } from '../db/text.ts';
import { record, transaction } from '../events/record.ts';
import { keep } from '../files/store.ts';
import { fileType } from '../reading/filetype.ts';
import { faultNotes } from '../reading/notes.ts';
import type { Services } from '../services.ts';

export interface ArrivedFile {
  name: string;
  mediaType: string;
  bytes: Uint8Array;
  /** Part of a message's text, such as a logo. */ inline?: boolean;
  /** What becomes of it is settled already. */ kept?: { state: string; note: string };
}
export interface Arriving {
  companyId: string;
  channel: 'folder' | 'upload';
  sender: string | null;
  subject: string | null;
  personId: string | null;
  note: string | null;
  /** Tells the same thing that comes through the same door again. */
  doorKey?: string;
  /** The bill that the files are brought for. */ forBill?: { id: string; further: boolean };
  files: ArrivedFile[];
}

/** What becomes of a file at the door: its state and, where nothing more happens to it, the reason. */
function fate(file: ArrivedFile): { state: string; note: string | null } {
  if (file.kept) return file.kept;
  if (file.inline) return { state: 'aside', note: 'A picture in the text of the message.' };
  if (file.bytes.length === 0) return { state: 'unreadable', note: faultNotes.empty };
  return ['pdf', 'xml', 'picture'].includes(fileType(file.bytes))
    ? { state: 'waiting', note: null }
    : { state: 'unreadable', note: faultNotes.kind };
}

/** A file that stands inside an e-invoice: a PDF may be its page and is read, all else is kept beside it. */
export function fileOfAttachment(file: ArrivedFile, inside: string) {
  const read = fileType(file.bytes) === 'pdf';
  return {
    name: cleaned(file.name.slice(0, 200)),
    mediaType: cleaned(file.mediaType.slice(0, 100)),
    size: file.bytes.length,
    state: read ? 'waiting' : 'aside',
    note: read ? null : `Stands inside ${inside}.`,
  };
}

/** The same file as it came before to a company. */
export async function earlier(tx: Executor, companyId: string, sha: string): Promise<{ id: string; name: string } | null> {
  const [found] = await tx
    .select({ id: document.id, name: document.name })
    .from(document)
    .where(and(eq(document.companyId, companyId), eq(document.fileSha256, sha), ne(document.state, 'duplicate')))
    .limit(1);
  return found ?? null;
}

type ArrivalRow = typeof arrival.$inferSelect;

/**
 * Adds files to an arrival, each with what becomes of it, and queues those that are to be read, in the same transaction. A file that is
 * already there is noted as the same and goes no further.
 */
export async function addFiles(
  tx: Executor,
  services: Services,
  came: Pick<ArrivalRow, 'id' | 'companyId'>,
  files: ArrivedFile[],
  forBill?: Arriving['forBill'],
): Promise<void> {
  const { companyId } = came;
  for (const [position, file] of files.entries()) {
    const sha = await keep(tx, file.bytes);
    const same = file.inline || file.kept ? null : await earlier(tx, companyId, sha);
    const { state, note } = same ? { state: 'duplicate', note: `The same file as ${same.name}, which is already here.` } : fate(file);
    const [row] = await tx
      .insert(document)
      .values({
        companyId,
        arrivalId: came.id,
        position,
        name: cleaned(file.name.slice(0, 200)),
        mediaType: cleaned(file.mediaType.slice(0, 100)),
        fileSha256: sha,
        size: file.bytes.length,
        state,
        note,
        duplicateOf: same?.id ?? null,
        forBill: forBill?.id ?? null,
        further: forBill?.further ?? false,
      })
      .returning({ id: document.id });
    if (state === 'waiting') await services.queue.reading(tx, row!.id);
  }
}

/**
 * Takes in a scan or an upload, zips and forwarded messages opened: originals, rows and what is to be read, in one transaction. Gives the
 * arrival's id; null where the same came through the same door before.
 */
export async function takeIn(services: Services, arriving: Arriving): Promise<string | null> {
  const files = await services.opener.files(arriving.files);
  return transaction(services.database.db, async (tx) => {
    const { companyId, channel, personId, note, doorKey } = arriving;
    const { sender, subject } = cleaned({ sender: arriving.sender, subject: arriving.subject });
    const [made] = await tx
      .insert(arrival)
      .values({ companyId, channel, sender, subject, personId, note, doorKey: doorKey ?? null })
      .onConflictDoNothing({ target: arrival.doorKey })
      .returning();
    if (!made) return null;
    await addFiles(tx, services, made, files, arriving.forBill);
    record(tx, {
      companyId,
      subject: { type: 'arrival', id: made.id },
      verb: 'arrived',
      by: { personId, source: channel === 'upload' ? 'web' : channel },
      at: services.now(),
      note: subject,
      after: { channel, sender, files: files.length },
    });
    return made.id;
  });
}
