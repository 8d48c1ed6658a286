import { asc, eq } from 'drizzle-orm';
import {
  Arrange,
  ArrivalsQuery,
  type ArrivalDetail,
  type ArrivalList,
  type Arrangement,
  type DocumentPages,
  type PageSource,
  type Uploaded,
} from '@ledgerline/contract';
import { document, documentPage } from '../db/schema/index.ts';
import { fetchFile } from '../files/store.ts';
import { decodeCursor, encodeCursor } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { fileType } from '../reading/filetype.ts';
import { shownPicture, UnreadablePicture } from '../reading/picture.ts';
import { arrange, arrangementOf, imagesOf } from './arrange.ts';
import { documentsOf, findArrival, findDocument, listArrivals } from './store.ts';
import type { Services } from '../services.ts';
import { takeIn, type ArrivedFile } from './take.ts';

const megabyte = 1024 * 1024;
export const uploadLimit = 100 * megabyte;

/** A file is shown as itself only where it can't carry scripts; all else is a download. */
function original(bytes: Buffer, mediaType: string, name: string): Response {
  const safe = ['application/pdf', 'image/png', 'image/jpeg'].includes(mediaType);
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': safe ? mediaType : 'application/octet-stream',
      'content-disposition': `${safe ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(name)}`,
      'x-content-type-options': 'nosniff',
      'content-security-policy': "sandbox; default-src 'none'",
      'cache-control': 'private, max-age=3600',
    },
  });
}

/** A page of a picture file as PNG; a page that is not there, or can't be drawn any more, is not found. */
async function picture(bytes: Buffer, page: number, wide?: number): Promise<Response> {
  if (!Number.isInteger(page) || page < 1) throw notFound('This picture');
  const png = await shownPicture(bytes, page, wide).catch((error: unknown) => {
    throw error instanceof UnreadablePicture ? notFound('This picture') : error;
  });
  return original(png, 'image/png', 'page.png');
}

async function fileOfArrival(services: Services, companyId: string, id: string, sha: string): Promise<Buffer> {
  const { files } = await arrangementOf(services.database.db, companyId, id);
  const bytes = sha in files ? await fetchFile(services.database.db, sha) : null;
  if (!bytes) throw notFound('This file');
  return bytes;
}

export function arrivalRoutes(api: Api): void {
  api.define(
    { method: 'get', path: '/arrivals', access: 'arrivals:see', summary: 'What came in, newest first', query: ArrivalsQuery },
    async ({ services, caller, query }): Promise<ArrivalList> => {
      const limit = query.limit ?? 50;
      const at = decodeCursor(query.cursor);
      const arrivals = await listArrivals(services.database.db, caller.company.id, at ? { at: at[0]!, id: at[1]! } : null, limit);
      const last = arrivals[arrivals.length - 1];
      return { arrivals, next: last && arrivals.length === limit ? encodeCursor([last.receivedAt, last.id]) : null };
    },
  );
  api.define(
    { method: 'post', path: '/arrivals', access: 'arrivals:add', summary: 'Add files (multipart, field "file", several at once)' },
    async ({ c, services, caller }): Promise<Uploaded> => {
      if (Number(c.req.header('content-length') ?? 0) > uploadLimit)
        throw new Refusal(413, 'This is more than 100 MB. Add fewer files at once, or a smaller one.');
      const form = await c.req.parseBody({ all: true }).catch(() => {
        throw new Refusal(400, 'The upload broke off. Nothing was kept; please try again.');
      });
      const given = [form['file']].flat().filter((f): f is File => f instanceof File);
      if (given.length === 0) throw new Refusal(400, 'No file was chosen.');
      const files: ArrivedFile[] = await Promise.all(
        given.map(async (f) => ({
          name: f.name || 'file',
          mediaType: f.type || 'application/octet-stream',
          bytes: new Uint8Array(await f.arrayBuffer()),
        })),
      );
      const arrivalId = await takeIn(services, {
        companyId: caller.company.id,
        channel: 'upload',
        sender: caller.me.name,
        subject: files.length === 1 ? files[0]!.name : `${files.length} files`,
        body: null,
        headers: null,
        original: null,
        personId: caller.me.id,
        note: null,
        files,
      });
      return { arrivalId, documents: (await documentsOf(services.database.db, [arrivalId])).get(arrivalId) ?? [] };
    },
  );
  api.define(
    { method: 'get', path: '/arrivals/:id', access: 'arrivals:see', summary: 'One arrival with its message' },
    async ({ services, caller, params }): Promise<ArrivalDetail> => {
      const { db } = services.database;
      const found = await findArrival(db, caller.company.id, params['id']!);
      if (!found) throw notFound('This arrival');
      return {
        id: found.id,
        channel: found.channel,
        sender: found.sender,
        subject: found.subject,
        note: found.note,
        receivedAt: found.receivedAt.toISOString(),
        body: found.body,
        headers: found.headers ?? [],
        hasOriginal: found.fileSha256 !== null,
        documents: (await documentsOf(db, [found.id])).get(found.id) ?? [],
      };
    },
  );
  api.define(
    {
      method: 'get',
      path: '/arrivals/:id/pages',
      access: 'arrivals:see',
      summary: 'How an arrival’s pages are shared out among its documents',
    },
    ({ services, caller, params }): Promise<Arrangement> => arrangementOf(services.database.db, caller.company.id, params['id']!),
  );
  api.define(
    {
      method: 'put',
      path: '/arrivals/:id/pages',
      access: 'arrivals:add',
      summary: 'Share an arrival’s pages out anew; what changed is read again',
      body: Arrange,
    },
    ({ services, caller, params, body }): Promise<Arrangement> => arrange(services, caller, params['id']!, body),
  );
  api.define(
    { method: 'get', path: '/arrivals/:id/files/:sha', access: 'arrivals:see', summary: 'A file that pages of this arrival come from' },
    async ({ services, caller, params }) => {
      const bytes = await fileOfArrival(services, caller.company.id, params['id']!, params['sha']!);
      return original(bytes, fileType(bytes) === 'pdf' ? 'application/pdf' : 'application/octet-stream', 'pages.pdf');
    },
  );
  api.define(
    {
      method: 'get',
      path: '/arrivals/:id/pictures/:sha/:page',
      access: 'arrivals:see',
      summary: 'A small picture of a page that is a picture, as PNG',
    },
    async ({ services, caller, params }) => {
      const bytes = await fileOfArrival(services, caller.company.id, params['id']!, params['sha']!);
      if (fileType(bytes) !== 'picture') throw notFound('This picture');
      return picture(bytes, Number(params['page']), 320);
    },
  );
  api.define(
    { method: 'get', path: '/arrivals/:id/original', access: 'arrivals:see', summary: 'The message as it came' },
    async ({ services, caller, params }) => {
      const found = await findArrival(services.database.db, caller.company.id, params['id']!);
      const bytes = found?.fileSha256 ? await fetchFile(services.database.db, found.fileSha256) : null;
      if (!bytes) throw notFound('This original');
      return original(bytes, 'message/rfc822', 'message.eml');
    },
  );
  api.define(
    { method: 'get', path: '/documents/:id/file', access: 'bills:see', summary: 'The document as it came, byte for byte' },
    async ({ services, caller, params }) => {
      const found = await findDocument(services.database.db, caller.company.id, params['id']!);
      const bytes = found && (await fetchFile(services.database.db, found.fileSha256));
      if (!bytes) throw notFound('This document');
      return original(bytes, found.mediaType, found.name);
    },
  );
  api.define(
    { method: 'get', path: '/documents/:id/pages', access: 'bills:see', summary: 'Words and boxes of a document' },
    async ({ services, caller, params }): Promise<DocumentPages> => {
      const found = await findDocument(services.database.db, caller.company.id, params['id']!);
      if (!found) throw notFound('This document');
      const pages = await services.database.db
        .select()
        .from(documentPage)
        .where(eq(documentPage.documentId, found.id))
        .orderBy(asc(documentPage.number));
      const images = await imagesOf(
        services.database.db,
        (found.sources ?? []).map((p) => p.sha),
      );
      return {
        pages: pages.map(({ number, width, height, words }) => {
          const source = found.sources?.[number - 1] ?? null;
          return {
            number,
            width,
            height,
            source: source as PageSource | null,
            image: source ? (images.get(source.sha) ?? 'pdf') : found.shown === 'data' ? 'words' : 'pdf',
            words: words.map(({ text, x, y, w, h, size, font }) => ({ text, x, y, w, h, size, bold: font === 'bold' })),
          };
        }),
      };
    },
  );
  api.define(
    { method: 'get', path: '/documents/:id/files/:sha', access: 'bills:see', summary: 'A file that pages of this document come from' },
    async ({ services, caller, params }) => {
      const found = await findDocument(services.database.db, caller.company.id, params['id']!);
      if (!found?.sources?.some((p) => p.sha === params['sha'])) throw notFound('This file');
      const bytes = await fetchFile(services.database.db, params['sha']!);
      if (!bytes) throw notFound('This file');
      return original(bytes, fileType(bytes) === 'pdf' ? 'application/pdf' : 'application/octet-stream', found.name);
    },
  );
  api.define(
    { method: 'get', path: '/documents/:id/picture/:number', access: 'bills:see', summary: 'A page that is a picture, as PNG' },
    async ({ services, caller, params }) => {
      const found = await findDocument(services.database.db, caller.company.id, params['id']!);
      const source = found?.sources?.[Number(params['number']) - 1];
      const bytes = source && (await fetchFile(services.database.db, source.sha));
      if (!source || !bytes || fileType(bytes) !== 'picture') throw notFound('This picture');
      return picture(bytes, source.page);
    },
  );
  api.define(
    { method: 'post', path: '/documents/:id/retry', access: 'arrivals:add', summary: 'Try to read a document again' },
    async ({ services, caller, params }) => {
      const found = await findDocument(services.database.db, caller.company.id, params['id']!);
      if (!found) throw notFound('This document');
      if (found.state !== 'unreadable') throw new Refusal(409, 'This document has been read already.');
      await services.database.db.update(document).set({ state: 'waiting', note: null }).where(eq(document.id, found.id));
      await services.queueReading(found.id);
    },
  );
}
