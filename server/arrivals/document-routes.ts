import { closed, DocumentPages, Nothing, Spot, SpotText, type PageSource } from '@ledgerline/contract';
import type { Language } from '@ledgerline/core/page';
import { fetchFile } from '../files/store.ts';
import { asked } from '../http/body.ts';
import type { Api } from '../http/define.ts';
import { notFound } from '../http/problems.ts';
import { fileType } from '../reading/filetype.ts';
import { imagesOf } from './arrange.ts';
import { documentWithPages, readAgain, scanOf } from './pages.ts';
import { original, picture } from './show.ts';
import { findDocument } from './store.ts';

/** One document: its file, its pages, its words, and spots of them read anew. */
export function documentRoutes(api: Api): void {
  api.raw(
    { method: 'get', path: '/documents/:id/file', access: 'bills:see', summary: 'The document as it came, byte for byte' },
    async ({ services, caller, params }) => {
      const found = await findDocument(services.database.db, caller.company.id, params['id']!);
      const bytes = found && (await fetchFile(services.database.db, found.fileSha256));
      if (!bytes) throw notFound('This document');
      return original(bytes, found.mediaType, found.name);
    },
  );
  api.query(
    { path: '/documents/:id/pages', access: 'bills:see', summary: 'Words and boxes of a document', answer: DocumentPages },
    async ({ services, caller, params }) => {
      const { found, pages } = await documentWithPages(services.database.db, caller.company.id, params['id']!);
      const first = pages.find((p) => p.scan),
        from = first && found.sources?.[first.number - 1];
      // Nobody waits for it: whoever has the page before them may draw a box on it next.
      if (first?.scan && from)
        void services.reader.scans.ready(
          () => fetchFile(services.database.db, from.sha),
          from.sha,
          from.page,
          first.scan.language as Language,
        );
      const images = await imagesOf(
        services.database.db,
        (found.sources ?? []).map((p) => p.sha),
      );
      return {
        pages: pages.map(({ number, width, height, words, scan }) => {
          const source = found.sources?.[number - 1] ?? null;
          return {
            number,
            width,
            height,
            source: source as PageSource | null,
            image: source ? (images.get(source.sha) ?? 'pdf') : found.shown === 'data' ? 'words' : 'pdf',
            scan: scan ? { ...scan, back: [...scan.back] } : null,
            words: words.map(({ text, x, y, w, h, size, font }) => ({ text, x, y, w, h, size, bold: font === 'bold' })),
          };
        }),
      };
    },
  );
  api.raw(
    { method: 'get', path: '/documents/:id/files/:sha', access: 'bills:see', summary: 'A file that pages of this document come from' },
    async ({ services, caller, params }) => {
      const found = await findDocument(services.database.db, caller.company.id, params['id']!);
      if (!found?.sources?.some((p) => p.sha === params['sha'])) throw notFound('This file');
      const bytes = await fetchFile(services.database.db, params['sha']!);
      if (!bytes) throw notFound('This file');
      return original(bytes, fileType(bytes) === 'pdf' ? 'application/pdf' : 'application/octet-stream', found.name);
    },
  );
  api.raw(
    { method: 'get', path: '/documents/:id/picture/:number', access: 'bills:see', summary: 'A page that is a picture, as PNG' },
    async ({ services, caller, params }) => {
      const found = await findDocument(services.database.db, caller.company.id, params['id']!);
      const source = found?.sources?.[Number(params['number']) - 1];
      const bytes = source && (await fetchFile(services.database.db, source.sha));
      if (!source || !bytes || fileType(bytes) !== 'picture') throw notFound('This picture');
      return picture(services, bytes, source.page);
    },
  );
  api.command({ method: 'post', path: '/documents/:id/retry', summary: 'Try to read a document again', answer: Nothing }, readAgain);
  api.raw(
    {
      method: 'get',
      path: '/documents/:id/cleaned/:number',
      access: 'bills:see',
      summary: 'A page that was read from a picture as it was cleaned for reading, as PNG',
    },
    async ({ services, caller, params }) => {
      const page = await scanOf(services, caller.company.id, params['id']!, Number(params['number']));
      const png = await services.reader.scans.clean(page.bytes, page.source.sha, page.source.page, page.source.turn);
      if (!png) throw notFound('This page');
      return original(Buffer.from(png), 'image/png', 'page.png');
    },
  );
  api.raw(
    {
      method: 'post',
      path: '/documents/:id/spot',
      access: 'bills:see',
      summary: 'What stands in a box drawn on a page: read from its words, or anew from its picture; nothing is changed',
      body: Spot,
      answer: SpotText,
    },
    async ({ c, services, caller, params }) => {
      const { page: number, digits, ...box } = await asked(c, spot);
      const page = await scanOf(services, caller.company.id, params['id']!, number);
      const { sha, page: of, turn } = page.source;
      const look = { sha, page: of, turn, back: page.scan.back, box, digits, language: page.scan.language };
      const [seen] = await services.reader.scans.look(new Map([[sha, page.bytes]]), [look], true);
      return { text: (seen?.words ?? []).map((w) => w.text).join(' ') };
    },
  );
}
const spot = closed(Spot);
