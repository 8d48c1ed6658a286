import { mkdtemp, readdir, writeFile } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import nodemailer from 'nodemailer';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makePdf } from '@ledgerline/documents/maker';
import { mailReceiver } from '../mail/receiver.ts';
import { sha256 } from '../files/store.ts';
import { ReadingPool } from '../reading/pool.ts';
import { readArrived, resumeReading } from '../reading/service.ts';
import { invoiceOf, makeWorld, type World } from '../testing/world.ts';
import { takeScan } from './folder.ts';
import { takeIn } from './take.ts';

let world: World, port: number;
const receivers: { close(done: () => void): void }[] = [];
beforeAll(async () => {
  world = await makeWorld();
  const receiver = mailReceiver(world.services);
  receivers.push(receiver);
  await new Promise<void>((done) => receiver.listen(0, '127.0.0.1', done));
  port = (receiver.server.address() as AddressInfo).port;
});
afterAll(async () => {
  for (const r of receivers) await new Promise<void>((done) => r.close(done));
  await world.close();
});
const rows = async (text: string, ...values: unknown[]) => (await world.database.pool.query(text, values)).rows;
const mail = async (message: object) => {
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port, ignoreTLS: true });
  try {
    return await transport.sendMail({ from: 'accounts@quillhavengl.example', to: 'invoices@gardens.marrowby.example', ...message });
  } finally {
    transport.close();
  }
};
const upload = (name: string, bytes: Uint8Array, mediaType = 'application/pdf') =>
  takeIn(world.services, {
    companyId: world.master.company('MBG').id,
    channel: 'upload',
    sender: null,
    subject: name,
    body: null,
    headers: null,
    original: null,
    personId: null,
    note: null,
    files: [{ name, mediaType, bytes }],
  });
const documentOf = async (arrivalId: string) => (await rows('select * from document where arrival_id = $1', arrivalId))[0];

describe('signs that no database keeps', () => {
  it('in a subject, a text, a header or a name do not lose a message', async () => {
    const content = Buffer.from(await makePdf(invoiceOf(1, { number: 'ZERO-1', lines: 1 })));
    const message = ['From: accounts@quillhavengl.example', 'To: invoices@gardens.marrowby.example', 'X-Odd: =?utf-8?Q?a=00b?='];
    message.push('Subject: =?utf-8?Q?Zero=00_signs?=', 'MIME-Version: 1.0', 'Content-Type: multipart/mixed; boundary=b', '', '--b');
    message.push('Content-Type: text/plain; charset=utf-8', 'Content-Transfer-Encoding: quoted-printable', '', 'Please=00 pay.', '--b');
    message.push('Content-Type: application/pdf; name="=?utf-8?Q?z=00.pdf?="', 'Content-Transfer-Encoding: base64');
    message.push('Content-Disposition: attachment; filename="=?utf-8?Q?z=00.pdf?="', '', content.toString('base64'), '--b--', '');
    await mail({ raw: message.join('\r\n'), envelope: { from: 'accounts@quillhavengl.example', to: 'invoices@gardens.marrowby.example' } });
    await world.drain();
    const [a] = await rows(`select id, body from arrival where subject like 'Zero%'`);
    expect(a.body).toContain('Please pay.');
    expect((await documentOf(a.id)).state).toBe('read');
  });
  it('in an upload’s name go, half a character is replaced', async () => {
    const id = await upload('a\u0000b\ud83d.pdf', await makePdf(invoiceOf(2, { number: 'ZERO-2', lines: 1 })));
    await world.drain();
    expect(await documentOf(id)).toMatchObject({ name: 'ab\ufffd.pdf', state: 'read' });
  });
});

describe('mail', () => {
  it('keeps a message, its body and headers, and reads its attachment into a bill', async () => {
    const invoice = invoiceOf(0, { number: 'A-1', lines: 3 });
    const content = Buffer.from(await makePdf(invoice));
    await mail({ subject: 'Invoice A-1', text: 'Please pay soon.', attachments: [{ filename: 'a-1.pdf', content }] });
    await world.drain();
    const [a] = await rows(`select * from arrival where subject = 'Invoice A-1'`);
    expect(a).toMatchObject({ channel: 'email', note: null });
    expect(a.body).toContain('Please pay soon.');
    expect(a.headers.map((h: string[]) => h[0])).toContain('message-id');
    const doc = await documentOf(a.id);
    expect(doc).toMatchObject({ state: 'read', file_sha256: sha256(content), page_count: 1 });
    const [b] = await rows('select * from bill where document_id = $1', doc.id);
    expect(b).toMatchObject({ invoice_number: 'A-1', gross: invoice.gross, supplier_reason: expect.stringContaining('Tax number') });
  });
  it('says so when a message has no attachment', async () => {
    await mail({ subject: 'Hello', text: 'Nothing attached' });
    expect((await rows(`select note from arrival where subject = 'Hello'`))[0].note).toContain('no attachment');
  });
  it('refuses an address that no company has', () =>
    expect(mail({ to: 'someone@elsewhere.example', text: 'x' })).rejects.toMatchObject({ responseCode: 550 }));
  it('gives a company’s message to that company', async () => {
    await mail({ to: 'Invoices@Nursery.Marrowby.example', subject: 'For the nursery', text: 'x' });
    expect((await rows(`select company_id from arrival where subject = 'For the nursery'`))[0].company_id).toBe(
      world.master.company('MNT').id,
    );
  });
});

describe('files', () => {
  it('notices the same file and makes no second bill', async () => {
    const bytes = await makePdf(invoiceOf(1, { number: 'A-2' }));
    await upload('first.pdf', bytes);
    await world.drain();
    const again = await documentOf(await upload('again.pdf', bytes));
    expect(again).toMatchObject({ state: 'duplicate', note: expect.stringContaining('first.pdf') });
    expect(await rows(`select count(*)::int as n from bill where invoice_number = 'A-2'`)).toEqual([{ n: 1 }]);
  });
  it.each([
    ['an empty file', 'empty.pdf', new Uint8Array(0), 'empty'],
    ['a torn PDF', 'torn.pdf', new TextEncoder().encode('%PDF-1.7 torn'), 'damaged'],
    ['a broken picture', 'scan.png', new Uint8Array([137, 80, 78, 71]), 'cannot be opened'],
    ['a file of another kind', 'notes.docx', new TextEncoder().encode('just words'), 'cannot be read'],
    ['XML that is no invoice', 'menu.xml', new TextEncoder().encode('<?xml version="1.0"?><menu/>'), 'not an e-invoice'],
    ['a zip that is none', 'x.zip', new Uint8Array([0x50, 0x4b, 3, 4, 1, 2, 3]), 'damaged'],
    ['a file of 50 MB', 'huge.pdf', Buffer.concat([Buffer.from('%PDF-1.7\n'), Buffer.alloc(50 * 1024 * 1024, 32)]), 'too large'],
  ])('keeps %s with a clear note', async (_, name, bytes, note) => {
    const id = await upload(name, bytes, name.endsWith('png') ? 'image/png' : 'application/pdf');
    await world.drain();
    const doc = await documentOf(id);
    expect(doc).toMatchObject({ state: 'unreadable', size: bytes.length, note: expect.stringContaining(note) });
  });
  it('a file that takes too long is stopped and the next one is read', async () => {
    const pool = new ReadingPool(1, { seconds: 0.001, megabytes: 256, bytes: 1e8 });
    const bytes = await makePdf(invoiceOf(2, { number: 'A-3' }));
    expect(await pool.read(bytes)).toMatchObject({ ok: false, fault: 'too-long' });
    await pool.close();
    expect(await world.services.reader.read(bytes)).toMatchObject({ ok: true });
  });
  it('reading twice makes one bill, and what was left unread is queued at start', async () => {
    const id = await upload('left.pdf', await makePdf(invoiceOf(4, { number: 'A-4' })));
    const doc = await documentOf(id);
    world.queue.length = 0;
    await rows(`update document set state = 'reading' where id = $1`, doc.id);
    expect(await resumeReading(world.services)).toBe(1);
    await Promise.all([readArrived(world.services, doc.id), readArrived(world.services, doc.id)]);
    world.queue.length = 0;
    expect(await rows(`select count(*)::int as n from bill where document_id = $1`, doc.id)).toEqual([{ n: 1 }]);
  });
});

describe('scan folder', () => {
  it('takes a scan in and moves the original to done', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'scans-'));
    await writeFile(join(folder, 'scan-1.pdf'), await makePdf(invoiceOf(6, { number: 'A-5' })));
    await takeScan(world.services, folder, join(folder, 'scan-1.pdf'));
    await world.drain();
    expect(await readdir(folder)).toEqual(['done']);
    expect(await rows(`select stage from bill where invoice_number = 'A-5'`)).toEqual([{ stage: 'read' }]);
  });
  it('goes to the company that the page names', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'scans-'));
    await writeFile(join(folder, 'scan-2.pdf'), await makePdf(invoiceOf(9, { number: 'A-6' })));
    await takeScan(world.services, folder, join(folder, 'scan-2.pdf'));
    await world.drain();
    expect(await rows(`select company_id from bill where invoice_number = 'A-6'`)).toEqual([
      { company_id: world.master.company('MNT').id },
    ]);
  });
});
