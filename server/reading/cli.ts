import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { readDocument, toFormat } from '@ledgerline/core/reading';
import { pagesOfPdf } from './pdf.ts';

for (const file of process.argv.slice(2)) {
  try {
    const pages = await pagesOfPdf(new Uint8Array(await readFile(file)));
    console.log(JSON.stringify(toFormat(basename(file), [readDocument(pages)])));
  } catch (e) { console.error(file, e); }
}
