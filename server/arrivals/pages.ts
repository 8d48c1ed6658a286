import { and, asc, eq } from 'drizzle-orm';
import { Nothing } from '@ledgerline/contract';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { arrival, document, documentPage } from '../db/schema/index.ts';
import { fetchFile } from '../files/store.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { waiting } from '../mail/message.ts';
import type { Services } from '../services.ts';
import { findArrival, findDocument } from './store.ts';

/** A document of the company with its pages in order. */
export async function documentWithPages(db: Executor, companyId: string, id: string) {
  const found = await findDocument(db, companyId, id);
  if (!found) throw notFound('This document');
  const pages = await db.select().from(documentPage).where(eq(documentPage.documentId, found.id)).orderBy(asc(documentPage.number));
  return { found, pages };
}

/** A document that could not be read waits to be read again. */
export const readAgain = command(
  {
    body: Nothing,
    may: 'arrivals:add',
    async subject(tx, caller, params) {
      const found = await findDocument(tx, caller.company.id, params['id']!);
      if (!found) throw notFound('This document');
      return found;
    },
  },
  async (tx, _, __, hand) => {
    const found = hand.subject;
    if (found.state !== 'unreadable') throw new Refusal(409, 'This document has been read already.');
    await tx.update(document).set({ state: 'waiting', note: null, progress: null, tries: 0 }).where(eq(document.id, found.id));
    hand.record({ subject: { type: 'document', id: found.id }, verb: 'read again' });
    await hand.services.queue.reading(tx, found.id);
    return {};
  },
);

/** A message that could not be taken apart waits to be taken apart again. */
export const openAgain = command(
  {
    body: Nothing,
    may: 'arrivals:add',
    async subject(tx, caller, params) {
      const found = await findArrival(tx, caller.company.id, params['id']!);
      if (!found) throw notFound('This arrival');
      return found;
    },
  },
  async (tx, _, __, hand) => {
    const found = hand.subject;
    if (found.state !== 'failed') throw new Refusal(409, 'This message has been taken apart already.');
    await tx.update(arrival).set(waiting).where(eq(arrival.id, found.id));
    hand.record({ subject: { type: 'arrival', id: found.id }, verb: 'opened again' });
    await hand.services.queue.opening(tx, found.id);
    return {};
  },
);

/** A page that was read from a picture, with its file. */
export async function scanOf(services: Services, companyId: string, id: string, number: number) {
  const { db } = services.database;
  const found = Number.isInteger(number) ? await findDocument(db, companyId, id) : null;
  const source = found?.sources?.[number - 1];
  const [page] = source
    ? await db
        .select({ scan: documentPage.scan })
        .from(documentPage)
        .where(and(eq(documentPage.documentId, id), eq(documentPage.number, number)))
    : [];
  const bytes = source && page?.scan ? await fetchFile(db, source.sha) : null;
  if (!source || !page?.scan || !bytes) throw notFound('This page');
  return { source, scan: page.scan, bytes: new Uint8Array(bytes) };
}
