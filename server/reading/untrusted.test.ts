import { readdirSync, readFileSync } from 'node:fs';
import { deflateSync } from 'node:zlib';
import { afterAll, describe, expect, it } from 'vitest';
import { deflatedPdf, vastPng, zipOf } from '@ledgerline/documents/hostile';
import { makePdf } from '@ledgerline/documents/maker';
import { Opener } from '../arrivals/opener.ts';
import { invoiceOf } from '../testing/world.ts';
import { ReadingPool } from './pool.ts';
import { hasHeavyStream, mayHideText } from './streams.ts';

/** Files that become large when they are opened. */
const pool = new ReadingPool(1),
  opener = new Opener();
afterAll(() => Promise.all([pool.close(), opener.close()]));
const megabyte = 1024 * 1024;

/** The most memory that any of our processes had while something was done, in megabytes. */
async function mostWhile(work: () => Promise<unknown>): Promise<number> {
  let most = 0;
  const look = () => {
    for (const pid of readdirSync('/proc').filter((p) => /^\d+$/.test(p)))
      try {
        if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('processes/entry.mjs')) continue;
        most = Math.max(most, Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024);
      } catch {
        // It ended meanwhile.
      }
  };
  const timer = setInterval(look, 20);
  await work();
  clearInterval(timer);
  return most;
}

describe('a PDF', () => {
  it('of a few kilobytes that deflates to gigabytes is told before it is opened', async () => {
    const file = deflatedPdf(700 * megabyte, 2);
    expect(file.length).toBeLessThan(16 * 1024);
    await pool.read(await makePdf(invoiceOf(0, { number: 'U-1', lines: 1 })));
    const most = await mostWhile(async () => expect(await pool.read(file)).toMatchObject({ ok: false, fault: 'too-heavy' }));
    expect(most).toBeLessThan(900);
  }, 60_000);
  it('is judged by what its streams become, not by how they are packed', async () => {
    expect(await hasHeavyStream(deflatedPdf(megabyte))).toBe(false);
    expect(await hasHeavyStream(deflatedPdf(megabyte, 2))).toBe(false);
    expect(await hasHeavyStream(deflatedPdf(megabyte, 4))).toBe(false);
    expect(await hasHeavyStream(deflatedPdf(400 * megabyte))).toBe(true);
    expect(await hasHeavyStream(deflatedPdf(400 * megabyte, 3))).toBe(true);
    const said = (filter: string, of: Uint8Array) =>
      Buffer.concat([
        Buffer.from(`%PDF-1.7\n9 0 obj\n[/FlateDecode/FlateDecode]\nendobj\n4 0 obj\n<</Length 5/Filter ${filter}>>\nstream\r\n`),
        of,
        Buffer.from('\nendstream'),
      ]);
    const twice = deflateSync(deflateSync(Buffer.alloc(500 * megabyte)));
    expect(await hasHeavyStream(said('9 0 R', twice)), 'named elsewhere').toBe(true);
    expect(await hasHeavyStream(said('[/LZWDecode/FlateDecode]', Buffer.alloc(5000))), 'LZW first').toBe(true);
    expect(await hasHeavyStream(said('[/ASCII85Decode/FlateDecode]', Buffer.alloc(5000))), 'text of one').toBe(false);
    expect(await hasHeavyStream(said('/DCTDecode', Buffer.alloc(5_000_000)))).toBe(false);
  }, 60_000);
  it('made by the document maker never is heavy', async () => {
    for (let i = 0; i < 20; i++) expect(await hasHeavyStream(await makePdf(invoiceOf(i, { number: `U-${i}` })))).toBe(false);
  });
});

describe('text that may be invisible', () => {
  const page = (said: string, content: Uint8Array) =>
    Buffer.concat([
      Buffer.from(`%PDF-1.7\n4 0 obj\n<</Length ${content.length}${said}>>\nstream\n`),
      content,
      Buffer.from('\nendstream\nendobj'),
    ]);
  const flate = (text: string) => page('/Filter/FlateDecode', deflateSync(Buffer.from(text)));
  it('is told by how it is set, packed or not', () => {
    for (const seen of ['BT 0 Tr (Total) Tj ET', 'BT (3 Tring Road) Tj ET', 'BT /F1 9 Tf (x) Tj ET'])
      for (const file of [flate(seen), page('', Buffer.from(seen))]) expect(mayHideText(file), seen).toBe(false);
    for (const hidden of ['BT 3 Tr (Total) Tj ET', 'BT (x)Tj 7\nTr(y) Tj', 'BT 3.0 Tr (x) Tj', '0 Tr 3 Tr'])
      for (const file of [flate(hidden), page('', Buffer.from(hidden))]) expect(mayHideText(file), hidden).toBe(true);
  });
  it('may be there in whatever cannot be looked into', () => {
    expect(mayHideText(page('/Filter/LZWDecode', Buffer.from('x')))).toBe(true);
    expect(mayHideText(page('/Filter[/ASCII85Decode/FlateDecode]', Buffer.from('x')))).toBe(true);
    expect(mayHideText(page('/Filter/FlateDecode', deflateSync(Buffer.from('0 Tr (x) Tj')).subarray(0, 9))), 'cut short').toBe(true);
    expect(mayHideText(page('/Filter/FlateDecode/DecodeParms<</Predictor 12>>', deflateSync(Buffer.from('x')))), 'by differences').toBe(
      true,
    );
    expect(mayHideText(page('/Filter/FlateDecode', deflateSync(Buffer.alloc(30 * megabyte)))), 'too much').toBe(true);
    expect(mayHideText(Buffer.from('%PDF-1.7 trailer <</Encrypt 5 0 R>>'))).toBe(true);
  });
  it('is in nothing that the document maker draws', async () => {
    for (let i = 0; i < 20; i++) expect(mayHideText(await makePdf(invoiceOf(i, { number: `U-${i}` })))).toBe(false);
  });
});

describe('a picture', () => {
  it('of more pixels than a page can have is refused before they are made', async () => {
    const most = await mostWhile(async () =>
      expect(await pool.read(vastPng(60_000, 60_000))).toMatchObject({ ok: false, fault: 'picture' }),
    );
    expect(most).toBeLessThan(500);
  });
  it('in HEIC that says it is vast is refused too', async () => {
    const box = (type: string, ...of: Buffer[]) => {
      const body = Buffer.concat(of),
        head = Buffer.alloc(8);
      head.writeUInt32BE(body.length + 8, 0);
      head.write(type, 4, 'latin1');
      return Buffer.concat([head, body]);
    };
    const size = Buffer.alloc(12);
    size.writeUInt32BE(50_000, 4);
    size.writeUInt32BE(50_000, 8);
    const heic = Buffer.concat([
      box('ftyp', Buffer.from('heic\0\0\0\0mif1heic', 'latin1')),
      box('meta', Buffer.alloc(4), box('iprp', box('ipco', box('ispe', size)))),
    ]);
    expect(await pool.read(heic)).toMatchObject({ ok: false, fault: 'picture' });
  });
});

describe('a zip', () => {
  it('that grows a thousandfold is kept whole', async () => {
    const zip = zipOf([{ name: 'white.pdf', bytes: new Uint8Array(60 * megabyte) }]);
    expect(zip.length).toBeLessThan(80 * 1024);
    const found = await opener.files([{ name: 'x.zip', mediaType: 'application/zip', bytes: zip }]);
    expect(found.map((f) => [f.name, f.kept?.note])).toEqual([['x.zip', expect.stringContaining('too much')]]);
  });
  it('of many that each grow a little too much is kept whole, and a real one is opened', async () => {
    const many = zipOf(Array.from({ length: 40 }, (_, i) => ({ name: `${i}.pdf`, bytes: new Uint8Array(4 * megabyte) })));
    expect((await opener.files([{ name: 'x.zip', mediaType: 'application/zip', bytes: many }])).length).toBe(1);
    const real = zipOf([{ name: 'a.pdf', bytes: await makePdf(invoiceOf(0, { number: 'U-9' })) }]);
    expect((await opener.files([{ name: 'x.zip', mediaType: 'application/zip', bytes: real }])).map((f) => f.name)).toEqual([
      'x.zip',
      'a.pdf',
    ]);
  });
});
