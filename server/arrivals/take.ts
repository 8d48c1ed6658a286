import { and, eq, ne } from 'drizzle-orm';
import type { Executor } from '../db/client.ts';
import { arrival, document } from '../db/schema/index.ts';
import { keep } from '../files/store.ts';
import type { Services } from '../services.ts';

export interface ArrivedFile { name: string; mediaType: string; bytes: Uint8Array; /** Part of a message's text, such as a logo. */ inline?: boolean }
export interface Arriving {
  companyId: string; channel: 'email' | 'folder' | 'upload'; sender: string | null; subject: string | null; body: string | null; headers: [string, string][] | null;
  original: Uint8Array | null; personId: string | null; note: string | null; files: ArrivedFile[];
}

export const isPdf = (file: ArrivedFile): boolean => file.mediaType === 'application/pdf' || /\.pdf$/i.test(file.name) || Buffer.from(file.bytes.subarray(0, 5)).toString('latin1') === '%PDF-';

/** What becomes of a file at the door: its state and, where nothing more happens to it, the reason. */
function fate(file: ArrivedFile): { state: string; note: string | null } {
  if (file.inline) return { state: 'aside', note: 'A picture in the text of the message.' };
  if (file.bytes.length === 0) return { state: 'unreadable', note: 'This file is empty. Ask the supplier to send it again.' };
  if (!isPdf(file)) return { state: 'unreadable', note: `${/^image\//.test(file.mediaType) ? 'Pictures' : 'Files of this kind'} cannot be read yet. It is kept as it came.` };
  return { state: 'waiting', note: null };
}

async function earlier(tx: Executor, companyId: string, sha: string): Promise<{ id: string; name: string } | null> {
  const [found] = await tx.select({ id: document.id, name: document.name }).from(document)
    .where(and(eq(document.companyId, companyId), eq(document.fileSha256, sha), ne(document.state, 'duplicate'))).limit(1);
  return found ?? null;
}

/**
 * Takes in a message, a scan or an upload: originals and rows in one transaction, then each file to be read is queued. A file that
 * is already there is noted as the same and goes no further. Gives the arrival's id.
 */
export async function takeIn(services: Services, arriving: Arriving): Promise<string> {
  const queue: string[] = [];
  const arrivalId = await services.database.db.transaction(async (tx) => {
    const fileSha256 = arriving.original ? await keep(tx, arriving.original) : null;
    const { companyId, channel, sender, subject, body, headers, personId, note } = arriving;
    const [made] = await tx.insert(arrival).values({ companyId, channel, sender, subject, body, headers, personId, note, fileSha256 }).returning({ id: arrival.id });
    for (const [position, file] of arriving.files.entries()) {
      const sha = await keep(tx, file.bytes);
      const same = file.inline ? null : await earlier(tx, companyId, sha);
      const { state, note: why } = same ? { state: 'duplicate', note: `The same file as ${same.name}, which is already here.` } : fate(file);
      const [row] = await tx.insert(document).values({ companyId, arrivalId: made!.id, position, name: file.name.slice(0, 200), mediaType: file.mediaType.slice(0, 100), fileSha256: sha, size: file.bytes.length, state, note: why, duplicateOf: same?.id ?? null }).returning({ id: document.id });
      if (state === 'waiting') queue.push(row!.id);
    }
    return made!.id;
  });
  for (const id of queue) await services.queueReading(id);
  return arrivalId;
}
