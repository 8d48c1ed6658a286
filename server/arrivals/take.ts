import { and, eq, ne } from 'drizzle-orm';
import type { Executor } from '../db/client.ts';
import { arrival, document } from '../db/schema/index.ts';
import { cleaned } from '../db/text.ts';
import { record, transaction } from '../events/record.ts';
import { keep } from '../files/store.ts';
import { fileType } from '../reading/filetype.ts';
import { faultNotes } from '../reading/notes.ts';
import type { Services } from '../services.ts';
import { unpack } from './unpack.ts';

export interface ArrivedFile {
  name: string;
  mediaType: string;
  bytes: Uint8Array;
  /** Part of a message's text, such as a logo. */ inline?: boolean;
  /** What becomes of it is settled already. */ kept?: { state: string; note: string };
}
export interface Arriving {
  companyId: string;
  channel: 'email' | 'folder' | 'upload';
  sender: string | null;
  subject: string | null;
  body: string | null;
  headers: [string, string][] | null;
  original: Uint8Array | null;
  personId: string | null;
  note: string | null;
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

async function earlier(tx: Executor, companyId: string, sha: string): Promise<{ id: string; name: string } | null> {
  const [found] = await tx
    .select({ id: document.id, name: document.name })
    .from(document)
    .where(and(eq(document.companyId, companyId), eq(document.fileSha256, sha), ne(document.state, 'duplicate')))
    .limit(1);
  return found ?? null;
}

/**
 * Takes in a message, a scan or an upload, zips and forwarded messages opened: originals and rows in one transaction, then each file to be read is queued. A file that
 * is already there is noted as the same and goes no further. Gives the arrival's id.
 */
export async function takeIn(services: Services, arriving: Arriving): Promise<string> {
  const queue: string[] = [];
  const files = await unpack(arriving.files);
  const arrivalId = await transaction(services.database.db, async (tx) => {
    const fileSha256 = arriving.original ? await keep(tx, arriving.original) : null;
    const { companyId, channel, personId, note } = arriving;
    const { sender, subject, body, headers } = cleaned({
      sender: arriving.sender,
      subject: arriving.subject,
      body: arriving.body,
      headers: arriving.headers,
    });
    const [made] = await tx
      .insert(arrival)
      .values({ companyId, channel, sender, subject, body, headers, personId, note, fileSha256 })
      .returning({ id: arrival.id });
    for (const [position, file] of files.entries()) {
      const sha = await keep(tx, file.bytes);
      const same = file.inline || file.kept ? null : await earlier(tx, companyId, sha);
      const { state, note: why } = same
        ? { state: 'duplicate', note: `The same file as ${same.name}, which is already here.` }
        : fate(file);
      const [row] = await tx
        .insert(document)
        .values({
          companyId,
          arrivalId: made!.id,
          position,
          name: cleaned(file.name.slice(0, 200)),
          mediaType: cleaned(file.mediaType.slice(0, 100)),
          fileSha256: sha,
          size: file.bytes.length,
          state,
          note: why,
          duplicateOf: same?.id ?? null,
        })
        .returning({ id: document.id });
      if (state === 'waiting') queue.push(row!.id);
    }
    record(tx, {
      companyId,
      subject: { type: 'arrival', id: made!.id },
      verb: 'arrived',
      by: { personId, source: channel === 'upload' ? 'web' : channel },
      at: services.now(),
      note: subject,
      after: { channel, sender, files: files.length },
    });
    return made!.id;
  });
  for (const id of queue) await services.queueReading(id);
  return arrivalId;
}
