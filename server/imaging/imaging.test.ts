import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Language } from '@ledgerline/core/page';
import { suppliers } from '@ledgerline/documents/suppliers';
import { mailOf, password } from '../testing/master.ts';
import { makePdf } from '@ledgerline/documents/maker';
import { paperFile, wornPage } from '@ledgerline/documents/paper';
import { pastedPdf, pictureOf, scannedPdf } from '@ledgerline/documents/picture';
import { ReadingPool } from '../reading/pool.ts';
import { fileType } from '../reading/filetype.ts';
import { pagesOfPdf } from '../reading/pdf.ts';
import { looking, takeFiles } from '../testing/arrivals.ts';
import { invoiceOf, makeWorld, type World } from '../testing/world.ts';
import { decodePage, isHeic, picturePages, pointsOf, tiffResolution, UnreadablePicture } from './decode.ts';
import { Ocr } from './ocr.ts';
import { ScanPool } from './pool.ts';
import { prepareSheet, recognise, sheetOf } from './scan.ts';
import { isSeparator, separatorSheet } from './separator.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

const { rows, billsOf, documents, numbers } = looking(() => world);
const take = (channel: 'upload' | 'folder', name: string, bytes: Uint8Array) => takeFiles(world, [{ name, bytes }], { channel });

const dutch = suppliers.findIndex((s) => s.country === 'NL');

async function signedIn(name: string) {
  const answer = await world.api.app.request('/api/session', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: mailOf(name), password }),
  });
  const cookie = answer.headers.getSetCookie()[0]!.split(';')[0]!;
  return (method: string, path: string, body?: object, code = 'MBG') =>
    world.api.app.request(`/api/companies/${world.master.company(code).id}${path}`, {
      method,
      headers: { cookie, 'content-type': 'application/json' },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
}

describe('a picture is opened', () => {
  const wide = () => sharp({ create: { width: 600, height: 420, channels: 3, background: '#fff' } });
  it('upright by what the camera noted', async () => {
    const bytes = new Uint8Array(await wide().jpeg().withMetadata({ orientation: 6 }).toBuffer());
    const { picture } = await decodePage(bytes, 1);
    expect([picture.width, picture.height]).toEqual([420, 600]);
  });
  it('a fax with pixels that are not square keeps the shape of its paper', async () => {
    const fax = sharp({ create: { width: 1728, height: 1078, channels: 3, background: '#fff' } }).toColourspace('b-w');
    const bytes = new Uint8Array(await fax.tiff({ compression: 'ccittfax4', bitdepth: 1, xres: 204 / 25.4, yres: 98 / 25.4 }).toBuffer());
    const told = tiffResolution(bytes, 0)!;
    expect([Math.round(told.x), Math.round(told.y)]).toEqual([204, 98]);
    const { points } = await decodePage(bytes, 1);
    expect([points.width, points.height]).toEqual([610, 792]);
  });
  it('one that says nothing of its size is taken to be as wide as A4', () =>
    expect(pointsOf({ width: 1190, height: 1684, dpi: null })).toEqual({ width: 595, height: 842 }));
  it('TIFFs have all their pages, WebP is a picture as well', async () => {
    const pages = [1, 2, 3].map(() => ({ width: 500, height: 700, data: new Uint8Array(350_000).fill(240) }));
    expect(await picturePages(await paperFile(pages, 'tiff'))).toHaveLength(3);
    const webp = new Uint8Array(await wide().webp().toBuffer());
    expect([fileType(webp), (await decodePage(webp, 1)).picture.width]).toEqual(['picture', 600]);
  });
  it('what only says that it is a picture is refused in one way, whatever is wrong', async () => {
    const heic = new Uint8Array(Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic and nothing more', 'latin1'));
    expect([isHeic(heic), fileType(heic)]).toEqual([true, 'picture']);
    const endless = new Uint8Array([0x49, 0x49, 0x2a, 0, 8, 0, 0, 0, 255, 255, ...Array.from({ length: 40 }, (_, i) => i)]);
    const huge = new Uint8Array(await wide().png().toBuffer());
    new DataView(huge.buffer).setUint32(16, 60_000);
    new DataView(huge.buffer).setUint32(20, 60_000);
    for (const bytes of [heic, endless, huge, new Uint8Array(0), new Uint8Array([0xff, 0xd8, 0xff, 0xe0])])
      await expect(decodePage(bytes, 1)).rejects.toBeInstanceOf(UnreadablePicture);
  });
});

describe('scans among arrivals', () => {
  it('text that a scanner hid behind its picture does not count, the ink does', async () => {
    const sent = invoiceOf(5, { number: 'IMG-2041', lines: 1 });
    const bytes = await scannedPdf(
      [await pictureOf([sent], 'jpeg', { skew: -1.4 })],
      'lnvoice no. 9999\nT0tal 1.00\nsome more words here\nand here',
    );
    const id = await take('upload', 'hidden.pdf', bytes);
    expect(await numbers(id)).toEqual([sent.number]);
  }, 120_000);
  it('a table pasted as a picture into a letter is read from its ink, the letter from its text', async () => {
    const sent = invoiceOf(5, { number: 'IMG-2048' }),
      pdf = await makePdf(sent),
      [page] = await pagesOfPdf(pdf.slice()),
      { words } = page!;
    // All from the table's heading down becomes a picture.
    const heading = Math.min(
        ...words.filter((w) => /^(Description|Particulars|Item|Details|Omschrijving|Artikel)$/i.test(w.text)).map((w) => w.y),
      ),
      cut = Math.round(((heading - 12) / 842) * 2339);
    const sheet = await wornPage(pdf, 1, { dpi: 200, grain: 0 });
    const table = await sharp(sheet.data, { raw: { width: sheet.width, height: sheet.height, channels: 1 } })
      .extract({ left: 0, top: cut, width: sheet.width, height: sheet.height - cut })
      .png()
      .toBuffer();
    const top = (cut / sheet.height) * 842,
      letter = words.filter((w) => w.y + w.h < top).map((w) => ({ ...w, y: w.y + w.h }));
    const id = await take('upload', 'pasted.pdf', await pastedPdf(letter, new Uint8Array(table), { x: 0, y: top, w: 595, h: 842 - top }));
    expect(await numbers(id)).toEqual([sent.number]);
    const [bill] = await billsOf(id),
      lines = await rows('select * from bill_line where bill_id = $1', bill.id);
    expect([lines.length, bill.gross]).toEqual([sent.lines.length, sent.gross]);
  }, 120_000);
  it('a scan put in on its side is read and shown upright', async () => {
    const sent = invoiceOf(5, { number: 'IMG-2042', lines: 1 });
    const id = await take('upload', 'lying.png', await pictureOf([sent], 'png', { turn: 90 }));
    const [doc] = await documents(id);
    expect([await numbers(id), doc.sources[0].turn]).toEqual([[sent.number], 270]);
  }, 120_000);
  it('a page that takes too long stands by itself with its reason, and is read when it is tried again', async () => {
    const sent = invoiceOf(5, { number: 'IMG-2043', lines: 1 });
    const good = world.services.reader;
    const hasty = new ReadingPool(1, good.limits, new ScanPool(1, { seconds: 0.02, megabytes: 1024 }));
    world.services.reader = hasty;
    const id = await take('upload', 'slow.png', await pictureOf([sent]));
    world.services.reader = good;
    await hasty.close();
    const [doc] = await documents(id);
    expect(doc).toMatchObject({ state: 'unreadable', progress: null, note: expect.stringContaining('took too long') });
    const ines = await signedIn('ines');
    expect((await ines('POST', `/documents/${doc.id}/retry`)).status).toBeLessThan(300);
    await world.drain();
    expect(await numbers(id)).toEqual([sent.number]);
  }, 120_000);
  it('says how far it is while pages are read, in the queue of its own', async () => {
    const told: unknown[] = [];
    await world.services.reader.readAll([{ sha: '', bytes: await pictureOf([invoiceOf(5, { number: 'IMG-2044', lines: 1 })]) }], null, {
      find: async () => [],
      put: async () => undefined,
      alone: (_, scan) => scan(),
      tell: (progress) => told.push(progress),
    });
    expect(told).toEqual(
      expect.arrayContaining([
        { done: 0, of: 1, doing: 'straightening page 1' },
        { done: 0, of: 1, doing: 'recognising page 1' },
      ]),
    );
  }, 120_000);
});

describe('the language of a page', () => {
  const sheetIn = async (index: number) => sheetOf(await pictureOf([invoiceOf(index, { number: 'IMG-2061' })]), 1);
  /** What the recogniser is asked for while a page is read. */
  const asked = async (index: number, likely: Language | null) => {
    const ocr = new Ocr(),
      read = vi.spyOn(ocr, 'read');
    const { gray, dpi } = prepareSheet(await sheetIn(index), null);
    const { language } = await recognise(ocr, gray, dpi, likely);
    await ocr.close();
    return { language, pages: read.mock.calls.filter(([, how]) => !how?.mode).map(([, how]) => how?.language) };
  };
  it('is told from a few lines, so that the page is read once, in that', async () => {
    expect(await asked(dutch, null)).toEqual({ language: 'nld', pages: ['nld'] });
  }, 60_000);
  it('is that of the page before, unless the page itself tells another', async () => {
    expect(await asked(dutch, 'nld')).toEqual({ language: 'nld', pages: ['nld'] });
    expect(await asked(dutch, 'fra')).toEqual({ language: 'nld', pages: ['fra', 'nld'] });
  }, 60_000);
});

describe('a page that somebody looks at', () => {
  it('is opened before a box is drawn on it, once', async () => {
    const pool = new ScanPool(1),
      file = await pictureOf([invoiceOf(5, { number: 'IMG-2062', lines: 1 })]),
      fetch = vi.fn(async () => file);
    expect([await pool.ready(fetch, 'a', 1, 'eng'), await pool.ready(fetch, 'a', 1, 'eng')]).toEqual([true, true]);
    expect(fetch).toHaveBeenCalledTimes(1);
    expect(await pool.ready(fetch, 'b', 7, 'eng')).toBe(false);
    expect(await pool.ready(async () => null, 'c', 1, 'eng')).toBe(false);
    expect(await pool.ready(() => Promise.reject(new Error('no file')), 'c', 1, 'eng')).toBe(false);
    expect(await pool.ready(fetch, 'c', 1, 'eng')).toBe(true);
    await pool.close();
  }, 60_000);
  it('is the one they stop at, not each that they leaf through', async () => {
    const pool = new ScanPool(1),
      file = await pictureOf([invoiceOf(5, { number: 'IMG-2064', lines: 1 })]),
      fetch = vi.fn(async () => file);
    const leafed = ['a', 'b', 'c', 'd'].map((sha) => pool.ready(fetch, sha, 1, 'eng'));
    expect(await Promise.all(leafed)).toEqual([false, false, false, true]);
    expect(fetch).toHaveBeenCalledTimes(1);
    await pool.close();
  }, 60_000);
  it('a page that breaks its thread is no reason not to read the next', async () => {
    const pool = new ScanPool(1, { seconds: 60, megabytes: 1024 });
    const wanted = { sha: '', page: 1, turn: null };
    const broken = await pool.scan(new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 0, 0]), wanted, () => null);
    expect(broken).toMatchObject({ read: null, fault: 'picture' });
    const good = await pool.scan(await pictureOf([invoiceOf(5, { number: 'IMG-2063', lines: 1 })]), wanted, () => null);
    expect(good.read!.words.map((w) => w.text)).toContain('IMG-2063');
    await pool.close();
  }, 60_000);
});

describe('separators', () => {
  const pages = async () => {
    const worn = async (pdf: Uint8Array, seed: number) => wornPage(pdf, 1, { seed, skew: 0.8 });
    const [a, b] = [invoiceOf(5, { number: 'SEP-3101', lines: 1 }), invoiceOf(5, { number: 'SEP-3102', lines: 1 })];
    const blank = { width: 1654, height: 2339, data: new Uint8Array(1654 * 2339).fill(244) };
    return { sheet: await worn(await separatorSheet(), 1), blank, a: await worn(await makePdf(a), 2), b: await worn(await makePdf(b), 3) };
  };
  const set = async (separator: string) => (await (await signedIn('ines'))('PUT', '/scanning', { separator })).status;
  it('a printed sheet is known from its code, however it was scanned; an invoice is none', async () => {
    const { sheet, a } = await pages();
    expect([await isSeparator({ ...sheet, channels: 1 }), await isSeparator({ ...a, channels: 1 })]).toEqual([true, false]);
    expect(await isSeparator({ ...(await wornPage(await separatorSheet(), 1, { fax: true, skew: 3, turn: 180 })), channels: 1 })).toBe(
      true,
    );
  });
  it('parts a scan from the folder where its company wants it, and is left out of both documents', async () => {
    const { sheet, blank, a, b } = await pages();
    expect(await set('sheet')).toBeLessThan(300);
    const id = await take('folder', 'two.tif', await paperFile([a, sheet, b], 'tiff'));
    expect([await numbers(id), (await documents(id)).map((d) => d.sources.map((s: { page: number }) => s.page))]).toEqual([
      ['SEP-3101', 'SEP-3102'],
      [[1], [3]],
    ]);
    expect((await rows('select left_out from arrival where id = $1', id))[0].left_out).toMatchObject([{ page: 2 }]);
    expect(await set('blank')).toBeLessThan(300);
    const other = await take('folder', 'blank.tif', await paperFile([b, blank, a, blank], 'tiff'));
    expect((await documents(other)).map((d) => d.sources.map((s: { page: number }) => s.page))).toEqual([[1], [3]]);
    expect(await set('none')).toBeLessThan(300);
  }, 120_000);
  it('only those who take arrivals in may set it, and only to what there is', async () => {
    expect((await (await signedIn('marguerite'))('PUT', '/scanning', { separator: 'blank' })).status).toBe(403);
    expect(await set('perforation')).toBe(400);
    const sheet = await (await signedIn('ines'))('GET', '/scanning/separator');
    expect([sheet.status, sheet.headers.get('content-type')]).toEqual([200, 'application/pdf']);
  });
});

describe('at the desk', () => {
  it('a drawn box is read anew, the page is shown as it was cleaned, and neither to strangers of the company', async () => {
    const sent = invoiceOf(5, { number: 'IMG-2051', lines: 1 });
    const id = await take('upload', 'desk.png', await pictureOf([sent], 'png', { skew: 2 }));
    const [doc] = await documents(id);
    const ines = await signedIn('ines'),
      ready = vi.spyOn(world.services.reader.scans, 'ready');
    const shown = (await (await ines('GET', `/documents/${doc.id}/pages`)).json()) as {
      pages: { scan: { skew: number }; words: { text: string; x: number; y: number; w: number; h: number }[] }[];
    };
    expect(shown.pages[0]!.scan.skew).toBeCloseTo(2, 0);
    expect(ready).toHaveBeenCalledWith(expect.any(Function), doc.sources[0].sha, 1, 'eng');
    const word = shown.pages[0]!.words.find((w) => w.text === 'IMG-2051')!;
    const box = { page: 1, x: word.x - 3, y: word.y - 2, w: word.w + 6, h: word.h + 3, digits: false };
    expect(await (await ines('POST', `/documents/${doc.id}/spot`, box)).json()).toEqual({ text: 'IMG-2051' });
    expect(await (await ines('POST', `/documents/${doc.id}/spot`, { ...box, digits: true })).json()).toEqual({
      text: expect.not.stringMatching(/[A-Z]/),
    });
    const cleaned = await ines('GET', `/documents/${doc.id}/cleaned/1`);
    expect([cleaned.status, cleaned.headers.get('content-type')]).toEqual([200, 'image/png']);
    expect((await sharp(await cleaned.arrayBuffer()).metadata()).width).toBe(1700);
    const tobias = await signedIn('tobias');
    expect((await tobias('POST', `/documents/${doc.id}/spot`, box, 'MNT')).status).toBe(404);
    expect((await ines('GET', `/documents/${doc.id}/cleaned/2`)).status).toBe(404);
    expect((await ines('POST', `/documents/${doc.id}/spot`, { ...box, w: -4 })).status).toBe(400);
  }, 120_000);
});
