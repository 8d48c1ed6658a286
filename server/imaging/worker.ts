import sharp from 'sharp';
import type { Language, Word } from '@ledgerline/core/page';
import { serveProcess } from '../processes/serve.ts';
import { shownPicture, UnreadablePicture, type Sheet } from './decode.ts';
import { Ocr } from './ocr.ts';
import type { Look } from './result.ts';
import { prepareSheet, readSpot, scanSheet, sheetOf, type ScannedSheet } from './scan.ts';

/** What a process is asked about one page of a file: to read it, to be ready for spots of it, to read those again, to draw it as it was cleaned, or as it came. */
export type PageAsk = { bytes: Uint8Array; sha: string; page: number } & (
  | { want: 'scan'; turn: number | null; likely: Language | null }
  | { want: 'ready'; language: Language }
  | { want: 'spots'; looks: Look[] }
  | { want: 'clean'; turn: number; wide: number }
  | { want: 'show'; wide: number }
);
export type PageAnswer =
  { scan: ScannedSheet } | { ready: true } | { spots: Word[][] } | { png: Uint8Array } | { fault: 'picture' | 'broken' };

const ocr = new Ocr();
/** The page that was opened last: several looks at one page follow each other. */
let last: { key: string; sheet: Sheet } | null = null;

async function open({ bytes, sha, page }: PageAsk): Promise<Sheet> {
  const key = `${sha}:${page}`;
  if (last?.key !== key || sha === '') last = { key, sheet: await sheetOf(bytes, page) };
  return last.sheet;
}

serveProcess<PageAsk, PageAnswer>(async (ask, tell) => {
  try {
    if (ask.want === 'show') return { png: await shownPicture(ask.bytes, ask.page, ask.wide) };
    tell('opening');
    const sheet = await open(ask);
    if (ask.want === 'scan') return { scan: await scanSheet(ocr, sheet, ask.turn, ask.likely, tell) };
    if (ask.want === 'ready') {
      await ocr.load(ask.language);
      return { ready: true };
    }
    if (ask.want === 'clean') {
      const { gray } = prepareSheet(sheet, ask.turn);
      const raw = { width: gray.width, height: gray.height, channels: 1 as const };
      return {
        png: await sharp(gray.data, { raw }).resize({ width: ask.wide, withoutEnlargement: true }).png({ compressionLevel: 6 }).toBuffer(),
      };
    }
    const spots: Word[][] = [];
    for (const look of ask.looks) spots.push(await readSpot(ocr, sheet, look));
    return { spots };
  } catch (error) {
    return { fault: error instanceof UnreadablePicture ? 'picture' : 'broken' };
  }
});
