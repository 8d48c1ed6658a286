import type { Broken, Difference } from '@ledgerline/core/einvoice';
import type { Page } from '@ledgerline/core/page';
import type { Context, Reading } from '@ledgerline/core/reading';
import type { Look, Scanned, ScanWanted, Seen } from '../imaging/result.ts';
import type { PdfFault } from './open.ts';

/** A page of a stored file: its address, its number there, and how far it is turned clockwise. */
export interface PageSource {
  sha: string;
  page: number;
  turn: number;
}

/** What an e-invoice's data says about itself and, in a hybrid file, about its page. */
export interface Findings {
  syntax: 'UBL' | 'CII';
  profile: string | null;
  payable: string | null;
  broken: Broken[];
  differences: Difference[];
}

/** One document of what was read. Pages are numbered from 1; `sources` says where each comes from, and is empty for pure data. */
export interface ReadPart {
  sources: PageSource[];
  pages: Page[];
  reading: Reading;
  findings: Findings | null;
  /** paper: pages of the file; data: drawn from data; small: a logo rather than a page */ shown: 'paper' | 'data' | 'small';
  /** Why its one page could not be read as a picture. */ fault?: Fault;
}

export type Fault = PdfFault | 'too-long' | 'too-large' | 'xml' | 'picture' | 'kind';
export interface Attachment {
  name: string;
  mediaType: string;
  bytes: Uint8Array;
}
/** What reading needs before it can go on: pages as pictures, or spots of them looked at again. */
export type Wanting = { ok: 'wanting'; scans: ScanWanted[]; looks: Look[] };
export type ReadResult =
  | { ok: true; parts: ReadPart[]; attachments: Attachment[]; /** Pages that only part documents. */ separators: PageSource[] }
  | { ok: false; fault: Fault; pages: number; /** More exact than the fault's own words. */ note?: string };

/** What parts the documents of a scan: nothing but what the pages say, a blank page, or a sheet with our code. */
export type Separator = 'none' | 'blank' | 'sheet';

/** Files to read: one as it came (`order` null), or given pages of them as one document. */
export interface Asked {
  files: { sha: string; bytes: Uint8Array }[];
  order: PageSource[] | null;
  /** Pages that were read as pictures, and spots that were looked at again, as far as they are known. */
  scans: Scanned[];
  seen: Seen[] | null;
  separator: Separator;
  /** Our own companies, and suppliers, as far as they are told. */
  known?: Context;
}

/** A part's reading with the page numbers that its pages have in the file. */
export const inFile = ({ reading, sources }: ReadPart): Reading => ({
  ...reading,
  pages: sources.length ? sources.map((s) => s.page) : reading.pages,
});
