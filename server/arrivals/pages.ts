import { and, asc, eq } from 'drizzle-orm';
import { Nothing } from '@ledgerline/contract';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { document, documentPage } from '../db/schema/index.ts';
import { fetchFile } from '../files/store.ts';
import { notFound, Refusal } from '../http/problems.ts';
import type { Services } from '../services.ts';
import { findDocument } from './store.ts';

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
    await tx.update(document).set({ state: 'waiting', note: null }).where(eq(document.id, found.id));
    hand.record({ subject: { type: 'document', id: found.id }, verb: 'read again' });
    hand.after(() => hand.services.queueReading(found.id));
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
