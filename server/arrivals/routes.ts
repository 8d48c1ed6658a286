import { ArrivalDetail, ArrivalList, ArrivalsQuery, Arrangement, Nothing, Uploaded } from '@ledgerline/contract';
import { fetchFile } from '../files/store.ts';
import { decodeCursor, nextOf } from '../http/cursor.ts';
import { filesOf } from '../http/body.ts';
import type { Api } from '../http/define.ts';
import { notFound } from '../http/problems.ts';
import { separatorSheet } from '../imaging/separator.ts';
import { fileType } from '../reading/filetype.ts';
import { arrange, arrangementOf } from './arrange.ts';
import { openAgain } from './pages.ts';
import { original, picture } from './show.ts';
import { documentsOf, findArrival, listArrivals, noticesNow } from './store.ts';
import type { Services } from '../services.ts';
import { takeIn, type ArrivedFile } from './take.ts';

const megabyte = 1024 * 1024;
export const uploadLimit = 100 * megabyte;

async function fileOfArrival(services: Services, companyId: string, id: string, sha: string): Promise<Buffer> {
  const { files } = await arrangementOf(services.database.db, companyId, id);
  const bytes = sha in files ? await fetchFile(services.database.db, sha) : null;
  if (!bytes) throw notFound('This file');
  return bytes;
}

export function arrivalRoutes(api: Api): void {
  api.query(
    { path: '/arrivals', access: 'arrivals:see', summary: 'What came in, newest first', query: ArrivalsQuery, answer: ArrivalList },
    async ({ services, caller, query }) => {
      const limit = query.limit ?? 50;
      const at = decodeCursor(query.cursor, 'moment');
      const arrivals = await listArrivals(services.database.db, caller.company.id, at ? { at: at[0]!, id: at[1]! } : null, limit);
      const notices = at ? [] : await noticesNow(services.database.db);
      return { arrivals, notices, next: nextOf(arrivals, limit, (last) => [last.receivedAt, last.id]) };
    },
  );
  api.raw(
    {
      method: 'post',
      path: '/arrivals',
      access: 'arrivals:add',
      summary: 'Add files (multipart, field "file", several at once)',
      answer: Uploaded,
    },
    async ({ c, services, caller }) => {
      const given = await filesOf(c, 'file', uploadLimit, 'This is more than 100 MB. Add fewer files at once, or a smaller one.');
      const files: ArrivedFile[] = await Promise.all(
        given.map(async (f) => ({
          name: f.name || 'file',
          mediaType: f.type || 'application/octet-stream',
          bytes: new Uint8Array(await f.arrayBuffer()),
        })),
      );
      const arrivalId = (await takeIn(services, {
        companyId: caller.company.id,
        channel: 'upload',
        sender: caller.me.name,
        subject: files.length === 1 ? files[0]!.name : `${files.length} files`,
        personId: caller.me.id,
        note: null,
        files,
      }))!;
      return { arrivalId, documents: (await documentsOf(services.database.db, [arrivalId])).get(arrivalId) ?? [] };
    },
  );
  api.raw({ method: 'get', path: '/scanning/separator', access: 'arrivals:see', summary: 'A separator sheet to print, as PDF' }, async () =>
    original(Buffer.from(await separatorSheet()), 'application/pdf', 'separator-sheet.pdf'),
  );
  api.query(
    { path: '/arrivals/:id', access: 'arrivals:see', summary: 'One arrival with its message', answer: ArrivalDetail },
    async ({ services, caller, params }) => {
      const { db } = services.database;
      const found = await findArrival(db, caller.company.id, params['id']!);
      if (!found) throw notFound('This arrival');
      return {
        id: found.id,
        channel: found.channel,
        sender: found.sender,
        subject: found.subject,
        note: found.note,
        state: found.state,
        receivedAt: found.receivedAt.toISOString(),
        body: found.body,
        headers: found.headers ?? [],
        hasOriginal: found.fileSha256 !== null,
        documents: (await documentsOf(db, [found.id])).get(found.id) ?? [],
      };
    },
  );
  api.command({ method: 'post', path: '/arrivals/:id/retry', summary: 'Try to take a message apart again', answer: Nothing }, openAgain);
  api.query(
    {
      path: '/arrivals/:id/pages',
      access: 'arrivals:see',
      summary: 'How an arrival’s pages are shared out among its documents',
      answer: Arrangement,
    },
    ({ services, caller, params }) => arrangementOf(services.database.db, caller.company.id, params['id']!),
  );
  api.command(
    {
      method: 'put',
      path: '/arrivals/:id/pages',
      summary: 'Share an arrival’s pages out anew; what changed is read again',
      answer: Arrangement,
    },
    arrange,
  );
  api.raw(
    { method: 'get', path: '/arrivals/:id/files/:sha', access: 'arrivals:see', summary: 'A file that pages of this arrival come from' },
    async ({ services, caller, params }) => {
      const bytes = await fileOfArrival(services, caller.company.id, params['id']!, params['sha']!);
      return original(bytes, fileType(bytes) === 'pdf' ? 'application/pdf' : 'application/octet-stream', 'pages.pdf');
    },
  );
  api.raw(
    {
      method: 'get',
      path: '/arrivals/:id/pictures/:sha/:page',
      access: 'arrivals:see',
      summary: 'A small picture of a page that is a picture, as PNG',
    },
    async ({ services, caller, params }) => {
      const bytes = await fileOfArrival(services, caller.company.id, params['id']!, params['sha']!);
      if (fileType(bytes) !== 'picture') throw notFound('This picture');
      return picture(services, bytes, Number(params['page']), 320);
    },
  );
  api.raw(
    { method: 'get', path: '/arrivals/:id/original', access: 'arrivals:see', summary: 'The message as it came' },
    async ({ services, caller, params }) => {
      const found = await findArrival(services.database.db, caller.company.id, params['id']!);
      const bytes = found?.fileSha256 ? await fetchFile(services.database.db, found.fileSha256) : null;
      if (!bytes) throw notFound('This original');
      return original(bytes, 'message/rfc822', 'message.eml');
    },
  );
}
