import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dec } from '@ledgerline/core/money';
import { ciiOf, hybridOf, pileOf, ublOf } from '@ledgerline/documents/einvoice';
import { zipOf } from '@ledgerline/documents/hostile';
import { makePdf } from '@ledgerline/documents/maker';
import { paperFile } from '@ledgerline/documents/paper';
import { pictureOf, scannedPdf } from '@ledgerline/documents/picture';
import { changeBill } from '../bills/change.ts';
import { sendOn } from '../bills/moves.ts';
import { settleException } from '../bills/settle.ts';
import { keepMessage } from '../mail/message.ts';
import { damaged } from '@ledgerline/documents/damage';
import { noteOf } from '../reading/notes.ts';
import { readAsked } from '../reading/readfile.ts';
import { looking, takeFiles, type Given } from '../testing/arrivals.ts';
import { invoiceOf, makeWorld, type World } from '../testing/world.ts';
import { unpack } from './unpack.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const { rows, documents, billsOf } = looking(() => world);
const pdf = 'application/pdf',
  xml = 'application/xml';
const upload = (...files: Given[]) => takeFiles(world, files);
const message = async (raw: string) => (await keepMessage(world.services, [world.master.company('MBG').id], Buffer.from(raw), null))[0]!;

describe('e-invoices', () => {
  it.each([
    ['a day that is none', '2026-11-20</cbc:IssueDate>', '99999999999-11-16</cbc:IssueDate>', { issue_date: null }],
    ['a currency that is none', '>GBP</cbc:DocumentCurrencyCode>', '>POUNDS</cbc:DocumentCurrencyCode>', { currency: 'GBP' }],
    ['a rate that is none', '<cbc:Percent>20</cbc:Percent>', '<cbc:Percent>one fifth</cbc:Percent>', {}],
  ])('with %s become a bill that asks for it', async (what, said, instead, kept) => {
    const number = `X-9${what.length}`;
    const data = ublOf(invoiceOf(0, { number, lines: 2 }));
    expect(data).toContain(said);
    const [bill] = await billsOf(await upload({ name: `${number}.xml`, mediaType: xml, bytes: data.replaceAll(said, instead) }));
    expect(bill).toMatchObject({ invoice_number: number, ...kept });
  });
  it('become a bill exactly as the data has it, with a page drawn from it', async () => {
    const invoice = invoiceOf(0, { number: 'X-1', lines: 3, charge: true });
    const [bill] = await billsOf(await upload({ name: 'x-1.xml', mediaType: xml, bytes: ublOf(invoice) }));
    expect(bill).toMatchObject({
      invoice_number: 'X-1',
      net: invoice.net,
      tax: invoice.tax,
      gross: invoice.gross,
      unsure: [],
      supplier_reason: expect.stringContaining('Tax number'),
    });
    expect((await rows('select unit from bill_line where bill_id = $1 and kind = $2', bill.id, 'line')).map((l) => l.unit)).toEqual([
      'pc',
      'pc',
      'pc',
    ]);
    const [page] = await rows('select words from document_page where document_id = $1', bill.document_id);
    expect(page.words.map((w: { text: string }) => w.text)).toContain('X-1');
    expect(bill.marks.gross.mark).toMatchObject({ page: 1 });
  });
  it.each([
    ['the data first', true],
    ['the page first', false],
  ])('data beside its page is one bill: %s', async (_, dataFirst) => {
    const invoice = invoiceOf(1, { number: `X-2${dataFirst}`, lines: 2 });
    const data = { name: 'x.xml', mediaType: xml, bytes: ublOf(invoice) },
      page = { name: 'x.pdf', mediaType: pdf, bytes: await makePdf(invoice) };
    const id = await upload(...(dataFirst ? [data, page] : [page, data]));
    expect((await documents(id)).map((d) => [d.name, d.state])).toEqual(
      dataFirst
        ? [
            ['x.xml', 'read'],
            ['x.pdf', 'duplicate'],
          ]
        : [
            ['x.pdf', 'duplicate'],
            ['x.xml', 'read'],
          ],
    );
    const bills = await billsOf(id);
    expect(bills).toHaveLength(1);
    expect(bills[0].document_id).toBe((await documents(id)).find((d) => d.name === 'x.xml').id);
  });
  it('a page whose bill somebody works on keeps it', async () => {
    const invoice = invoiceOf(1, { number: 'X-3', lines: 2 });
    const id = await upload({ name: 'x.pdf', mediaType: pdf, bytes: await makePdf(invoice) });
    const [begun] = await rows('select id from bill where invoice_number = $1', 'X-3');
    await world.run(
      changeBill,
      await world.as('Ines Okafor'),
      { id: begun.id },
      { rowVersion: 1, operations: [{ do: 'set', field: 'terms', value: 'net 9' }] },
    );
    await takeIntoArrival(id, { name: 'x.xml', mediaType: xml, bytes: ublOf(invoice) });
    expect((await documents(id)).map((d) => d.state).sort()).toEqual(['duplicate', 'read']);
    expect(await billsOf(id)).toHaveLength(1);
  });
  it('a hybrid takes the data; what its page says otherwise holds it back with both values until one is chosen', async () => {
    const page = invoiceOf(2, { number: 'X-4', lines: 2 });
    const gross = dec(page.gross).plus(10).toFixed(2);
    const [bill] = await billsOf(await upload({ name: 'x.pdf', mediaType: pdf, bytes: await hybridOf(page, ciiOf({ ...page, gross })) }));
    const clerk = await world.as('Ines Okafor');
    const shown = await world.show(bill.id);
    const differs = shown.exceptions.find((e) => e.code === 'data-differs')!;
    expect([shown.gross, differs.severity, differs.sentence]).toEqual([
      gross,
      'stops',
      `The total is ${gross} in the e-invoice’s data, but ${page.gross} on its page.`,
    ]);
    expect(differs.choices.map((c) => c.value)).toEqual([gross, page.gross]);
    expect(shown.exceptions.filter((e) => e.code === 'e-invoice-rule').map((e) => e.key)).toContain('BR-CO-15');
    const params = { id: bill.id };
    await expect(world.run(sendOn, clerk, params, { rowVersion: shown.rowVersion })).rejects.toThrow('The total is');
    const { code, path, key } = differs;
    const settled = await world.run(settleException, clerk, params, {
      rowVersion: shown.rowVersion,
      code,
      path,
      key,
      how: 'choose',
      take: 'page',
    });
    expect(settled.gross).toBe(page.gross);
    expect(settled.exceptions.filter((e) => e.severity === 'stops')).toEqual([]);
    expect(settled.settled).toEqual([expect.objectContaining({ code: 'data-differs', how: 'choose:page', person: 'Ines Okafor' })]);
    expect(settled.events.at(-1)).toMatchObject({ verb: 'settled', person: 'Ines Okafor' });
  });
  it('what stands inside the XML is kept beside it, and its page is no second bill', async () => {
    const invoice = invoiceOf(1, { number: 'X-5', lines: 2 });
    const inside = (name: string, type: string, bytes: Uint8Array) =>
      `<cac:AdditionalDocumentReference><cbc:ID>1</cbc:ID><cac:Attachment><cbc:EmbeddedDocumentBinaryObject mimeCode="${type}" filename="${name}">${Buffer.from(bytes).toString('base64')}</cbc:EmbeddedDocumentBinaryObject></cac:Attachment></cac:AdditionalDocumentReference>`;
    const id = await upload({
      name: 'x.xml',
      mediaType: xml,
      bytes: ublOf(
        invoice,
        inside('page.pdf', pdf, await makePdf(invoice)) + inside('hours.csv', 'text/csv', new TextEncoder().encode('a,b')),
      ),
    });
    expect((await documents(id)).map((d) => [d.name, d.state])).toEqual([
      ['x.xml', 'read'],
      ['page.pdf', 'duplicate'],
      ['hours.csv', 'aside'],
    ]);
    expect(await billsOf(id)).toHaveLength(1);
  });
});

async function takeIntoArrival(arrivalId: string, file: { name: string; mediaType: string; bytes: string }): Promise<void> {
  const other = await upload(file);
  const [doc] = await documents(other);
  await rows(`delete from bill_line where bill_id in (select id from bill where document_id = $1)`, doc.id);
  await rows(`delete from bill_exception where bill_id in (select id from bill where document_id = $1)`, doc.id);
  await rows('delete from bill where document_id = $1', doc.id);
  await rows(`update document set arrival_id = $1, state = 'waiting' where id = $2`, arrivalId, doc.id);
  world.queue.push(doc.id);
  await world.drain();
}

describe('piles and packed files', () => {
  it('one PDF with three invoices becomes three bills, each with its own page', async () => {
    const invoices = [0, 1, 7].map((i) => invoiceOf(i, { number: `P-${i}`, lines: 2 }));
    const id = await upload({ name: 'pile.pdf', mediaType: pdf, bytes: await pileOf(invoices) });
    expect((await documents(id)).map((d) => d.sources.map((s: { page: number }) => s.page))).toEqual([[1], [2], [3]]);
    const bills = await billsOf(id);
    expect(bills.map((b) => [b.invoice_number, b.gross])).toEqual(invoices.map((i) => [i.number, i.gross]));
    expect(bills.every((b) => b.marks.gross.mark.page === 1)).toBe(true);
  });
  it('what is addressed to another company goes there together, from mail', async () => {
    const own = invoiceOf(0, { number: 'M-0', lines: 2 }),
      theirs = [9, 10].map((i) => invoiceOf(i, { number: `M-${i}`, lines: 2 }));
    const boundary = 'b',
      part = async (name: string, bytes: Uint8Array) =>
        `--${boundary}\r\nContent-Type: application/pdf; name=${name}\r\nContent-Disposition: attachment; filename=${name}\r\nContent-Transfer-Encoding: base64\r\n\r\n${Buffer.from(bytes).toString('base64')}\r\n`;
    const raw = `From: a@b.example\r\nSubject: three\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=${boundary}\r\n\r\n${(await Promise.all([own, ...theirs].map(async (i, k) => part(`m${k}.pdf`, await makePdf(i))))).join('')}--${boundary}--\r\n`;
    const id = await message(raw);
    await world.drain();
    expect((await billsOf(id)).map((b) => b.invoice_number)).toEqual(['M-0']);
    const [there] = await rows('select id, note from arrival where came_with = $1', id);
    expect(there.note).toContain('another company');
    expect((await rows('select note from arrival where id = $1', id))[0].note).toBe(
      'What is addressed to Marrowby Nursery Trading Ltd went there.',
    );
    expect((await billsOf(there.id)).map((b) => [b.invoice_number, b.company_id])).toEqual(
      theirs.map((i) => [i.number, world.master.company('MNT').id]),
    );
  });
  it('an e-invoice that goes to another company takes along what stands inside it', async () => {
    const invoice = invoiceOf(9, { number: 'M-77', lines: 2 });
    const inside = `<cac:AdditionalDocumentReference><cbc:ID>1</cbc:ID><cac:Attachment><cbc:EmbeddedDocumentBinaryObject mimeCode="application/pdf" filename="page.pdf">${Buffer.from(await makePdf(invoice)).toString('base64')}</cbc:EmbeddedDocumentBinaryObject></cac:Attachment></cac:AdditionalDocumentReference>`;
    const raw = `From: a@b.example\r\nSubject: one\r\nMIME-Version: 1.0\r\nContent-Type: application/xml; name=m.xml\r\nContent-Disposition: attachment; filename=m.xml\r\nContent-Transfer-Encoding: base64\r\n\r\n${Buffer.from(ublOf(invoice, inside)).toString('base64')}\r\n`;
    const id = await message(raw);
    await world.drain();
    const theirs = world.master.company('MNT').id;
    expect((await documents(id)).map((d) => [d.name, d.state, d.company_id])).toEqual([
      ['m.xml', 'read', theirs],
      ['page.pdf', 'duplicate', theirs],
    ]);
    expect(await rows(`select count(*)::int as n from bill where invoice_number = 'M-77'`)).toEqual([{ n: 1 }]);
  });
  it('a zip in a forwarded message is opened, the packing stays beside it', async () => {
    const invoice = invoiceOf(0, { number: 'Z-1', lines: 2 });
    const packed = Buffer.from(
      zipOf([
        { name: 'in/z-1.pdf', bytes: await makePdf(invoice) },
        { name: '__MACOSX/._z', bytes: new Uint8Array(3) },
      ]),
    ).toString('base64');
    const inner = `From: a@quillhavengl.example\r\nSubject: ours\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=i\r\n\r\n--i\r\nContent-Type: application/zip; name=all.zip\r\nContent-Disposition: attachment; filename=all.zip\r\nContent-Transfer-Encoding: base64\r\n\r\n${packed}\r\n--i--\r\n`;
    const raw = `From: cafe@marrowby.example\r\nSubject: Fwd\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=o\r\n\r\n--o\r\nContent-Type: message/rfc822\r\nContent-Disposition: attachment\r\n\r\n${inner}\r\n--o--\r\n`;
    const id = await message(raw);
    await world.drain();
    expect((await documents(id)).map((d) => [d.name, d.state])).toEqual([
      ['attachment-1.eml', 'aside'],
      ['all.zip', 'aside'],
      ['z-1.pdf', 'read'],
    ]);
    expect((await billsOf(id)).map((b) => b.invoice_number)).toEqual(['Z-1']);
  });
  it.each([
    ['too many files', zipOf(Array.from({ length: 12 }, (_, i) => ({ name: `${i}.pdf`, bytes: new Uint8Array(10) }))), 'too much'],
    ['more than it may hold', zipOf([{ name: 'a.pdf', bytes: new Uint8Array(200_000) }]), 'too much'],
    ['another size than it says', zipOf([{ name: 'a.pdf', bytes: new Uint8Array(90_000), said: 10 }]), 'damaged'],
    ['nothing that is a zip', new Uint8Array([0x50, 0x4b, 3, 4, 9, 9, 9]), 'damaged'],
  ])('a zip with %s is kept whole', async (_, bytes, note) => {
    const found = await unpack([{ name: 'x.zip', mediaType: 'application/zip', bytes }], {
      files: 10,
      bytes: 100_000,
      depth: 2,
      ratio: 100,
    });
    expect(found.map((f) => [f.name, f.kept?.state, f.kept?.note])).toEqual([['x.zip', 'unreadable', expect.stringContaining(note)]]);
  });
  it('a zip in a zip in a zip is opened only so far', async () => {
    let bytes = zipOf([{ name: 'a.txt', bytes: new Uint8Array(4) }]);
    for (let i = 0; i < 4; i++) bytes = zipOf([{ name: `${i}.zip`, bytes }]);
    const found = await unpack([{ name: 'x.zip', mediaType: 'application/zip', bytes }]);
    expect(found.at(-1)!.kept?.note).toContain('packed too many times');
  });
});

describe('damaged files', () => {
  it('are read or refused in words, whatever is wrong with them', async () => {
    const whole = [
      await makePdf(invoiceOf(0, { number: 'D-1' })),
      await hybridOf(invoiceOf(1, { number: 'D-2' })),
      await pictureOf([invoiceOf(5, { number: 'D-3' })]),
    ];
    for (let seed = 1; seed <= 150; seed++) {
      const result = await readAsked({
        files: [{ sha: 'd', bytes: damaged(whole[seed % whole.length]!, seed) }],
        order: null,
        scans: [],
        seen: null,
        separator: 'none',
      });
      const said = result.ok === 'wanting' ? result.scans : result.ok ? result.parts : noteOf(result);
      expect(said.length).toBeGreaterThan(0);
    }
  }, 60_000);
});

describe('pictures', () => {
  it('a fax of two invoices becomes two bills, read from its ink, each on its own page', async () => {
    const sent = [invoiceOf(5, { number: 'F-1041' }), invoiceOf(5, { number: 'F-1042' })];
    const id = await upload({ name: 'fax.tif', mediaType: 'image/tiff', bytes: await pictureOf(sent, 'tiff', { fax: true, skew: 1.1 }) });
    expect((await documents(id)).map((d) => [d.state, d.page_count, d.progress])).toEqual([
      ['read', 1, null],
      ['read', 1, null],
    ]);
    expect((await billsOf(id)).map((b) => [b.invoice_number, b.gross])).toEqual(sent.map((i) => [i.number, i.gross]));
  }, 60_000);
  it('a PDF that is only a picture is read like paper', async () => {
    const sent = invoiceOf(5, { number: 'F-1043' });
    const bytes = await scannedPdf([await pictureOf([sent])]);
    const id = await upload({ name: 'scan.pdf', mediaType: pdf, bytes });
    expect((await documents(id))[0]).toMatchObject({ state: 'read', page_count: 1, note: null });
    expect((await billsOf(id)).map((b) => [b.invoice_number, b.gross])).toEqual([[sent.number, sent.gross]]);
  }, 60_000);
  it('a page without anything on it is shown for typing in', async () => {
    const empty = await paperFile([{ width: 1240, height: 1754, data: new Uint8Array(1240 * 1754).fill(250) }], 'png', 150);
    const id = await upload({ name: 'empty.png', mediaType: 'image/png', bytes: empty });
    expect((await documents(id))[0]).toMatchObject({ state: 'read', note: expect.stringContaining('type it in') });
    const [bill] = await billsOf(id);
    expect(bill).toMatchObject({ invoice_number: null, gross: null });
    expect(bill.unsure).toContain('gross');
  }, 60_000);
  it('a small picture is a logo', async () => {
    const { default: sharp } = await import('sharp');
    const logo = new Uint8Array(
      await sharp({ create: { width: 120, height: 40, channels: 3, background: '#335' } })
        .png()
        .toBuffer(),
    );
    expect((await documents(await upload({ name: 'logo.png', mediaType: 'image/png', bytes: logo })))[0]).toMatchObject({
      state: 'aside',
      note: expect.stringContaining('logo'),
    });
  });
});
