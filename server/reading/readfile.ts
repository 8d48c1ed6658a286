import { compare, readEInvoice, render, toReading, UnreadableXml, withMarks, type EInvoice } from '@ledgerline/core/einvoice';
import { withPrinted } from '@ledgerline/core/imaging';
import type { Page } from '@ledgerline/core/page';
import { renumber, takeApart } from '@ledgerline/core/pile';
import { readDocument, readScanned, unread, type Reading, type SpotSeen } from '@ledgerline/core/reading';
import { picturePages, pictureLimits, pointsOf, UnreadablePicture } from '../imaging/decode.ts';
import type { Look, ScanWanted } from '../imaging/result.ts';
import { fileType } from './filetype.ts';
import { UnreadablePdf } from './open.ts';
import { contentOfPdf } from './pdf.ts';
import type { Asked, Fault, Findings, PageSource, ReadPart, ReadResult, Separator, Wanting } from './result.ts';

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

/**
 * Reads what stands in one or more files: a whole file taken apart into its documents, or given pages as one document. Where it
 * needs pages read as pictures first, it answers with those.
 */
export async function readAsked(asked: Asked): Promise<ReadResult | Wanting> {
  try {
    const [first] = asked.files;
    if (!first || first.bytes.length === 0) return { ok: false, fault: 'empty', pages: 0 };
    if (asked.order) return await readArranged(asked, asked.order);
    switch (fileType(first.bytes)) {
      case 'pdf':
        return await readPdf(asked, first);
      case 'xml':
        return readXml(first.bytes);
      case 'picture':
        return await readPicture(asked, first);
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

/** What reading still lacks; thrown while parts are made, answered with as a whole. */
class Lacking {
  readonly scans: ScanWanted[] = [];
  readonly looks: Look[] = [];
}

/** One page to be read, with where it comes from; a picture is replaced by its words once it has been read as one. */
interface Opened {
  source: PageSource;
  page: Page;
  fault?: Fault;
}

function scannedPage(asked: Asked, lacking: Lacking, source: { sha: string; page: number; turn: number | null }, page: Page): Opened {
  const { sha, page: number, turn } = source;
  const scan = asked.scans.find((s) => s.sha === sha && s.page === number && (turn === null ? s.auto : s.turn === turn));
  if (!scan) lacking.scans.push({ sha, page: number, turn });
  const lies = { sha, page: number, turn: scan?.turn ?? turn ?? 0 };
  if (!scan?.read) return { source: lies, page, ...(scan?.fault ? { fault: scan.fault } : {}) };
  const { words, scan: ink } = scan.read;
  // Text on a page that was turned for reading is in its picture as well.
  const whole = page.words.length > 0 && ink && lies.turn === 0 ? withPrinted(words, page.words, ink.back) : words;
  return { source: lies, page: { ...scan.read, words: whole, number: page.number } };
}

const boxKey = ({ x, y, w, h }: Look['box']) => [x, y, w, h].map((v) => v.toFixed(2)).join();

/** Reads pages that belong together as one document; ink is looked at twice where it matters. */
function part(asked: Asked, lacking: Lacking, opened: Opened[]): ReadPart {
  const own = renumber(opened.map((o) => o.page)),
    sources = opened.map((o) => o.source);
  const fault = opened.find((o) => o.fault)?.fault;
  if (fault) return { sources, pages: own, reading: unread(own), findings: null, shown: 'paper', fault };
  if (own.every((p) => p.words.length === 0)) return { sources, pages: own, reading: unread(own), findings: null, shown: 'paper' };
  if (!own.some((p) => p.scan)) return { sources, pages: own, reading: readDocument(own, asked.known), findings: null, shown: 'paper' };
  const seen: SpotSeen[] | null =
    asked.seen &&
    asked.seen.flatMap((look) => {
      const at = sources.findIndex((s) => s.sha === look.sha && s.page === look.page && s.turn === look.turn);
      return at < 0 ? [] : [{ ...look.box, page: at + 1, digits: look.digits, words: look.words }];
    });
  const { reading, pages, spots } = readScanned(own, seen, asked.known);
  for (const { page, digits, ...box } of spots) {
    const { scan } = own[page - 1]!;
    if (!scan || lacking.looks.some((l) => l.page === sources[page - 1]!.page && boxKey(l.box) === boxKey(box))) continue;
    lacking.looks.push({ ...sources[page - 1]!, back: scan.back, box, digits, language: scan.language });
  }
  return { sources, pages, reading, findings: null, shown: 'paper' };
}

/** The parts, or what they lack first: pages as pictures before spots of them. */
function answer(lacking: Lacking, parts: () => ReadPart[], separators: PageSource[] = []): ReadResult | Wanting {
  if (lacking.scans.length > 0) return { ok: 'wanting', scans: lacking.scans, looks: [] };
  const done = parts();
  return lacking.looks.length > 0
    ? { ok: 'wanting', scans: [], looks: lacking.looks }
    : { ok: true, parts: done, attachments: [], separators };
}

const parts = (separator: Separator, { page, fault }: Opened): boolean =>
  !fault &&
  page.scan !== undefined &&
  (page.scan.separator === true || (separator === 'blank' && page.words.length === 0)) &&
  separator !== 'none';

/**
 * Pages of a file as documents: those that could not be read stand alone, the rest is taken apart between them, where separators are
 * in use at those and nowhere else.
 */
function grouped(opened: Opened[], separator: Separator): { groups: Opened[][]; separators: PageSource[] } {
  const groups: Opened[][] = [],
    separators: PageSource[] = [];
  let run: Opened[] = [];
  const close = () => {
    if (run.length === 0) return;
    if (separator !== 'none') groups.push(run);
    else for (const group of takeApart(run.map((o) => o.page))) groups.push(group.map((page) => run.find((o) => o.page === page)!));
    run = [];
  };
  for (const o of opened) {
    if (!o.fault && !parts(separator, o)) {
      run.push(o);
      continue;
    }
    close();
    if (o.fault) groups.push([o]);
    else separators.push(o.source);
  }
  close();
  // A file of nothing but separators is shown as it is.
  return groups.length > 0 ? { groups, separators } : { groups: [opened], separators: [] };
}

async function readPdf(asked: Asked, { sha, bytes }: Asked['files'][number]): Promise<ReadResult | Wanting> {
  const { pages, pictured, xml } = await contentOfPdf(bytes);
  const lacking = new Lacking();
  const opened = pages.map((page, i): Opened => {
    const source = { sha, page: page.number, turn: 0 };
    return pictured.includes(i) ? scannedPage(asked, lacking, { ...source, turn: null }, page) : { source, page };
  });
  const data = xml.length > 0 && lacking.scans.length === 0 ? hybrid(opened, xml) : null;
  if (data) return data;
  const { groups, separators } = grouped(opened, asked.separator);
  return answer(lacking, () => groups.map((group) => part(asked, lacking, group)), separators);
}

/** A PDF with an e-invoice inside: its data, with the marks of its pages, compared with them. Null when there is none. */
function hybrid(opened: Opened[], xml: Uint8Array[]): ReadResult | null {
  const pages = renumber(opened.map((o) => o.page)),
    sources = opened.map((o) => o.source);
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
        separators: [],
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
    separators: [],
    parts: [{ sources: [], pages: drawn.pages, reading: drawn.reading, findings: findingsOf(e, broken, []), shown: 'data' }],
  };
}

async function readPicture(asked: Asked, { sha, bytes }: Asked['files'][number]): Promise<ReadResult | Wanting> {
  const sizes = await picturePages(bytes);
  const lacking = new Lacking();
  const small = sizes.every((p) => p.width < pictureLimits.least || p.height < pictureLimits.least);
  const opened = sizes.map((size, i): Opened => {
    const source = { sha, page: i + 1, turn: 0 },
      page: Page = { number: i + 1, ...pointsOf(size), words: [] };
    return small ? { source, page } : scannedPage(asked, lacking, { ...source, turn: null }, page);
  });
  if (small) return answer(lacking, () => [{ ...part(asked, lacking, opened), shown: 'small' }]);
  const { groups, separators } = grouped(opened, asked.separator);
  return answer(lacking, () => groups.map((group) => part(asked, lacking, group)), separators);
}

/** Pages that a person put together, in that order, as one document. Each file is opened once. */
async function readArranged(asked: Asked, order: PageSource[]): Promise<ReadResult | Wanting> {
  const found = new Map<string, Opened>();
  const lacking = new Lacking();
  const key = (s: PageSource) => `${s.sha}:${s.page}:${s.turn}`;
  for (const { sha, bytes } of asked.files) {
    const own = order.filter((s) => s.sha === sha);
    if (fileType(bytes) === 'pdf') {
      const { pages, pictured, count, xml } = await contentOfPdf(bytes, undefined, own);
      const opened = pages.map((page, i): Opened =>
        pictured.includes(i) ? scannedPage(asked, lacking, own[i]!, page) : { source: own[i]!, page },
      );
      // All pages of a hybrid, turned or in another order, are still the hybrid.
      const still = own.length === order.length && own.length === count && lacking.scans.length === 0 ? hybrid(opened, xml) : null;
      if (still) return still;
      for (const [i, o] of opened.entries()) found.set(key(own[i]!), o);
    } else {
      const sizes = await picturePages(bytes);
      for (const source of own) {
        const size = sizes[source.page - 1];
        if (!size) continue;
        const { width, height } = pointsOf(size),
          lying = source.turn % 180 !== 0;
        const page: Page = { number: 0, width: lying ? height : width, height: lying ? width : height, words: [] };
        found.set(key(source), scannedPage(asked, lacking, source, page));
      }
    }
  }
  const there = order.flatMap((s) => found.get(key(s)) ?? []);
  return there.length === 0 ? { ok: false, fault: 'empty', pages: 0 } : answer(lacking, () => [part(asked, lacking, there)]);
}
