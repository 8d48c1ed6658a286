import { once } from 'node:events';
import { connect, type AddressInfo } from 'node:net';
import { createInterface } from 'node:readline';
import nodemailer from 'nodemailer';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { makePdf } from '@ledgerline/documents/maker';
import { keepMessage } from '../mail/message.ts';
import { mailReceiver } from '../mail/receiver.ts';
import { sha256 } from '../files/store.ts';
import { ReadingPool } from '../reading/pool.ts';
import { readArrived } from '../reading/service.ts';
import { invoiceOf, makeWorld, type World } from '../testing/world.ts';
import { openAgain } from './pages.ts';
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
const rows = async (text: string, ...values: unknown[]) => (await world.owner.query(text, values)).rows;
const mail = async (message: object) => {
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port, ignoreTLS: true });
  try {
    return await transport.sendMail({ from: 'accounts@quillhavengl.example', to: 'invoices@gardens.marrowby.example', ...message });
  } finally {
    transport.close();
  }
};
const upload = async (name: string, bytes: Uint8Array, mediaType = 'application/pdf') =>
  (await takeIn(world.services, {
    companyId: world.master.company('MBG').id,
    channel: 'upload',
    sender: null,
    subject: name,
    personId: null,
    note: null,
    files: [{ name, mediaType, bytes }],
  }))!;
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
    await world.drain();
    expect((await rows(`select note from arrival where subject = 'Hello'`))[0].note).toContain('no attachment');
  });
  it('refuses an address that no company has', () =>
    expect(mail({ to: 'someone@elsewhere.example', text: 'x' })).rejects.toMatchObject({ responseCode: 550 }));
  it('gives a company’s message to that company', async () => {
    await mail({ to: 'Invoices@Nursery.Marrowby.example', subject: 'For the nursery', text: 'x' });
    await world.drain();
    expect((await rows(`select company_id from arrival where subject = 'For the nursery'`))[0].company_id).toBe(
      world.master.company('MNT').id,
    );
  });
});

/** Speaks SMTP by hand, as a client without manners does, and gives the last line that was answered. */
async function spoken(raw: Buffer, to: string[]): Promise<string> {
  const socket = connect(port, '127.0.0.1');
  const lines = createInterface(socket)[Symbol.asyncIterator]();
  const answered = async () => {
    for (;;) {
      const line = (await lines.next()).value as string;
      if (!/^\d{3}-/.test(line)) return line;
    }
  };
  const say = async (text: string | Buffer) => {
    socket.write(text);
    return answered();
  };
  await answered();
  await say('EHLO client.example\r\n');
  await say('MAIL FROM:<accounts@quillhavengl.example>\r\n');
  for (const one of to) await say(`RCPT TO:<${one}>\r\n`);
  await say('DATA\r\n');
  const last = await say(Buffer.concat([raw, Buffer.from('\r\n.\r\n')]));
  socket.destroy();
  return last;
}
const gardens = 'invoices@gardens.marrowby.example',
  nursery = 'invoices@nursery.marrowby.example';

describe('a message', () => {
  const originals = async (subject: string) =>
    rows(
      `select c.code, a.id, a.note, a.state, encode(f.bytes, 'escape') as raw, f.bytes from arrival a join company c on c.id = a.company_id join file f on f.sha256 = a.file_sha256 where a.subject = $1 order by c.code`,
      subject,
    );
  it('is kept for each company that it was sent to, byte for byte, once however often it comes', async () => {
    const raw = Buffer.from('From: a@b.example\r\nSubject: to both\r\n\r\nOne text.');
    for (let i = 0; i < 2; i++) expect(await spoken(raw, [gardens, nursery, gardens.toUpperCase()])).toMatch(/^250/);
    await world.drain();
    const kept = await originals('to both');
    expect(kept.map((k) => k.code)).toEqual(['MBG', 'MNT']);
    for (const { bytes } of kept) expect(Buffer.compare(bytes.subarray(-raw.length - 2, -2), raw)).toBe(0);
  });
  it('is there before anything in it was looked at', async () => {
    await spoken(Buffer.from('Subject: not yet\r\n\r\nx'), [gardens]);
    const [before] = await rows(`select state, note, subject from arrival where state = 'opening'`);
    expect(before).toEqual({ state: 'opening', subject: null, note: expect.stringContaining('being taken apart') });
    await world.drain();
    expect((await originals('not yet'))[0]).toMatchObject({ state: 'open' });
  });
  const part = (head: string, body = 'x') => `--b\r\n${head}\r\n\r\n${body}\r\n`;
  const mixed = (subject: string, ...parts: string[]) =>
    `Subject: ${subject}\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n${parts.join('')}--b--\r\n`;
  it.each([
    ['zero bytes', 'zeros', Buffer.from('Subject: zeros\r\nX-A: \0\0\r\n\r\n\0\0\0')],
    [
      '3,000 parts',
      'many',
      Buffer.from(
        mixed(
          'many',
          ...Array.from({ length: 3000 }, (_, i) =>
            part(`Content-Type: application/pdf; name=${i}.pdf\r\nContent-Disposition: attachment`, `%PDF- ${i}`),
          ),
        ),
      ),
    ],
    [
      'an unknown charset',
      'odd',
      Buffer.from(
        mixed('odd', part('Content-Type: text/plain; charset=klingon-8'), part('Content-Type: application/pdf; name*=klingon%%ZZ')),
      ),
    ],
    ['no head at all', null, Buffer.from('\r\n\r\nnothing')],
    ['nothing', null, Buffer.from('')],
    ['bytes that are no text', null, Buffer.from(Array.from({ length: 4000 }, (_, i) => (i * 73) % 256)).subarray(1)],
    [
      'a boundary in a boundary, 400 deep',
      'deep',
      Buffer.from(
        `Subject: deep\r\n${Array.from({ length: 400 }, (_, i) => `Content-Type: multipart/mixed; boundary=b${i}\r\n\r\n--b${i}\r\n`).join('')}`,
      ),
    ],
    ['a head of a megabyte', 'long', Buffer.from(`Subject: long\r\nX-Long: ${'y'.repeat(1_000_000)}\r\n\r\nx`)],
  ])('with %s is taken, kept and said what it is', async (_, subject, raw) => {
    const before = (await rows('select count(*)::int as n from arrival'))[0].n;
    expect(await spoken(raw, [gardens])).toMatch(/^250/);
    await world.drain();
    const [last] = await rows('select * from arrival order by id desc limit 1');
    expect((await rows('select count(*)::int as n from arrival'))[0].n).toBe(before + 1);
    expect(last.state).not.toBe('opening');
    if (subject !== 'odd') expect(last.note).toBeTruthy();
    if (subject && last.state === 'open') expect(last.subject).toBe(subject);
    if (subject === 'many') {
      expect(last.note).toContain('3000 files; the first 200');
      expect((await rows('select count(*)::int as n from document where arrival_id = $1', last.id))[0].n).toBe(200);
    }
  });
  it('that could not be kept is asked for again, and then kept once', async () => {
    const raw = Buffer.from('Subject: later\r\n\r\nx');
    const error = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    await rows(
      'create function nothing_is_kept() returns trigger language plpgsql as $$ begin raise exception using errcode = $2; end $$'.replace(
        '$2',
        `'disk_full'`,
      ),
    );
    await rows('create trigger nothing_is_kept before insert on arrival for each row execute function nothing_is_kept()');
    expect(await spoken(raw, [gardens])).toMatch(/^452 .*room/);
    await rows('drop trigger nothing_is_kept on arrival');
    expect((await rows(`select count(*)::int as n from file where size = $1`, raw.length + 2))[0].n, 'nothing half-kept').toBe(0);
    expect(await spoken(raw, [gardens])).toMatch(/^250/);
    error.mockRestore();
    await world.drain();
    expect(await originals('later')).toHaveLength(1);
  });
  it('that cannot be taken apart is kept and can be tried again', async () => {
    const [id] = await keepMessage(world.services, [world.master.company('MBG').id], Buffer.from('Subject: hard\r\n\r\nx'), null);
    const { message } = world.services.opener;
    world.services.opener.message = async () => ({ fault: 'too-heavy' });
    await world.drain();
    expect((await rows('select state, note from arrival where id = $1', id))[0]).toEqual({
      state: 'failed',
      note: expect.stringContaining('could not be taken apart'),
    });
    world.services.opener.message = message.bind(world.services.opener);
    await world.run(openAgain, await world.as('Ines Okafor'), { id: id! }, {});
    await world.drain();
    expect((await originals('hard'))[0]).toMatchObject({ state: 'open' });
  });
  it('a client who says nothing does not hold back the end', async () => {
    const receiver = mailReceiver(world.services);
    await new Promise<void>((done) => receiver.listen(0, '127.0.0.1', done));
    const idle = connect((receiver.server.address() as AddressInfo).port, '127.0.0.1');
    await once(idle, 'data');
    const began = Date.now();
    await new Promise<void>((done) => receiver.close(done));
    expect(Date.now() - began).toBeLessThan(4000);
    idle.destroy();
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
  it('reading twice at once makes one bill', async () => {
    const id = await upload('left.pdf', await makePdf(invoiceOf(4, { number: 'A-4' })));
    const doc = await documentOf(id);
    await rows(`update document set state = 'reading' where id = $1`, doc.id);
    await Promise.all([readArrived(world.services, doc.id), readArrived(world.services, doc.id)]);
    world.queue.length = 0;
    expect(await rows(`select count(*)::int as n from bill where document_id = $1`, doc.id)).toEqual([{ n: 1 }]);
  });
});
