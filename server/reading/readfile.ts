import { compare, readEInvoice, render, toReading, UnreadableXml, withMarks, type EInvoice } from '@ledgerline/core/einvoice';
import type { Page } from '@ledgerline/core/page';
import { renumber, takeApart } from '@ledgerline/core/pile';
import { readDocument, unread, type Reading } from '@ledgerline/core/reading';
import { fileType } from './filetype.ts';
import { contentOfPdf, UnreadablePdf } from './pdf.ts';
import { pagesOfPicture, UnreadablePicture } from './picture.ts';
import type { Asked, Findings, PageSource, ReadPart, ReadResult } from './result.ts';

const findingsOf = (e: EInvoice, broken: Findings['broken'], differences: Findings['differences']): Findings => ({
  syntax: e.syntax,
  profile: e.profile,
  payable: e.totals.payable,
  broken,
  differences,
});
const attachmentsOf = (e: EInvoice) =>
  e.attachments
    .slice(0, 20)
    .map((a) => ({ name: a.name, mediaType: a.mediaType, bytes: new Uint8Array(Buffer.from(a.base64, 'base64')) }))
    .filter((a) => a.bytes.length > 0);

/** Reads what stands in one or more files: a whole file taken apart into its documents, or given pages as one document. */
export async function readAsked(asked: Asked): Promise<ReadResult> {
  try {
    const [first] = asked.files;
    if (!first || first.bytes.length === 0) return { ok: false, fault: 'empty', pages: 0 };
    if (asked.order) return await readArranged(asked.files, asked.order);
    switch (fileType(first.bytes)) {
      case 'pdf':
        return await readPdf(first);
      case 'xml':
        return readXml(first.bytes);
      case 'picture':
        return await readPicture(first);
      default:
        return { ok: false, fault: 'kind', pages: 0 };
    }
  } catch (error) {
    if (error instanceof UnreadablePdf) return { ok: false, fault: error.fault, pages: error.pages };
    if (error instanceof UnreadableXml) return { ok: false, fault: 'xml', pages: 0, note: error.message };
    if (error instanceof UnreadablePicture) return { ok: false, fault: 'picture', pages: 0 };
    return { ok: false, fault: 'broken', pages: 0 };
  }
}

const sourcesOf = (sha: string, pages: Page[]): PageSource[] => pages.map((p) => ({ sha, page: p.number, turn: 0 }));

function part(sources: PageSource[], pages: Page[]): ReadPart {
  const own = renumber(pages);
  const blank = own.every((p) => p.words.length === 0);
  return { sources, pages: own, reading: blank ? unread(own) : readDocument(own), findings: null, shown: 'paper' };
}

async function readPdf({ sha, bytes }: Asked['files'][number]): Promise<ReadResult> {
  const { pages, xml } = await contentOfPdf(bytes);
  return (
    hybrid(sourcesOf(sha, pages), pages, xml) ?? {
      ok: true,
      attachments: [],
      parts: takeApart(pages).map((group) => part(sourcesOf(sha, group), group)),
    }
  );
}

/** A PDF with an e-invoice inside: its data, with the marks of its pages, compared with them. Null when there is none. */
function hybrid(sources: PageSource[], pages: Page[], xml: Uint8Array[]): ReadResult | null {
  for (const data of xml) {
    try {
      const e = readEInvoice(data),
        { reading, broken } = toReading(e),
        paper = readDocument(pages);
      // Profiles without lines carry the totals only; the lines then come from the page.
      const whole: Reading = reading.lines.length === 0 ? { ...reading, lines: paper.lines, charges: paper.charges } : reading;
      return {
        ok: true,
        attachments: attachmentsOf(e),
        parts: [
          { sources, pages, reading: withMarks(whole, paper), findings: findingsOf(e, broken, compare(reading, paper)), shown: 'paper' },
        ],
      };
    } catch (error) {
      // An attachment that is some other XML is no e-invoice; the page is read.
      if (!(error instanceof UnreadableXml)) throw error;
    }
  }
  return null;
}

function readXml(bytes: Uint8Array): ReadResult {
  const e = readEInvoice(bytes),
    { reading, broken } = toReading(e);
  const drawn = render(e, reading);
  return {
    ok: true,
    attachments: attachmentsOf(e),
    parts: [{ sources: [], pages: drawn.pages, reading: drawn.reading, findings: findingsOf(e, broken, []), shown: 'data' }],
  };
}

async function readPicture({ sha, bytes }: Asked['files'][number]): Promise<ReadResult> {
  const found = await pagesOfPicture(bytes);
  const pages = found.map((p): Page => ({ number: p.page, width: p.width, height: p.height, words: [] }));
  return {
    ok: true,
    attachments: [],
    parts: [
      {
        sources: sourcesOf(sha, pages),
        pages,
        reading: unread(pages),
        findings: null,
        shown: found.every((p) => p.small) ? 'small' : 'paper',
      },
    ],
  };
}

/** Pages that a person put together, in that order, as one document. Each file is opened once. */
async function readArranged(files: Asked['files'], order: PageSource[]): Promise<ReadResult> {
  const found = new Map<string, Page>();
  const key = (s: PageSource) => `${s.sha}:${s.page}:${s.turn}`;
  for (const { sha, bytes } of files) {
    const own = order.filter((s) => s.sha === sha);
    if (fileType(bytes) === 'pdf') {
      const { pages, count, xml } = await contentOfPdf(bytes, undefined, own);
      // All pages of a hybrid, turned or in another order, are still the hybrid.
      const still = own.length === order.length && own.length === count ? hybrid(order, renumber(pages), xml) : null;
      if (still) return still;
      for (const [i, page] of pages.entries()) found.set(key(own[i]!), page);
    } else {
      const pictures = await pagesOfPicture(bytes);
      for (const source of own) {
        const picture = pictures[source.page - 1],
          lying = source.turn % 180 !== 0;
        if (picture)
          found.set(key(source), {
            number: 0,
            width: lying ? picture.height : picture.width,
            height: lying ? picture.width : picture.height,
            words: [],
          });
      }
    }
  }
  const there = order.filter((s) => found.has(key(s)));
  return there.length === 0
    ? { ok: false, fault: 'empty', pages: 0 }
    : {
        ok: true,
        attachments: [],
        parts: [
          part(
            there,
            there.map((s) => found.get(key(s))!),
          ),
        ],
      };
}
