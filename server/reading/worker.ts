import { parentPort } from 'node:worker_threads';
import { readDocument } from '@ledgerline/core/reading';
import { pagesOfPdf, UnreadablePdf } from './pdf.ts';
import type { ReadResult } from './pool.ts';

async function read(bytes: Uint8Array): Promise<ReadResult> {
  try {
    const pages = await pagesOfPdf(bytes);
    return { ok: true, pages, reading: readDocument(pages) };
  } catch (error) {
    if (error instanceof UnreadablePdf) return { ok: false, fault: error.fault, pages: error.pages };
    return { ok: false, fault: 'broken', pages: 0 };
  }
}

// A stray rejection inside the PDF library belongs to a page it gave up on; the read itself answers for the file.
process.on('unhandledRejection', () => undefined);
parentPort?.on('message', (bytes: Uint8Array) => { void read(bytes).then((result) => parentPort?.postMessage(result)); });
