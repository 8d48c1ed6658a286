import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { and, asc, eq, inArray, isNotNull, sql, type SQL } from 'drizzle-orm';
import nodemailer from 'nodemailer';
import { dec } from '@ledgerline/core/money';
import { approve, sendOn } from '@ledgerline/server/bills/moves';
import { getBill } from '@ledgerline/server/bills/show';
import { arrival, bill, document } from '@ledgerline/server/db/schema/index';
import type { Services } from '@ledgerline/server/services';
import { ciiOf, hybridOf, pileOf, ublOf } from '@ledgerline/documents/einvoice';
import { makePdf } from '@ledgerline/documents/maker';
import { pictureOf } from '@ledgerline/documents/picture';
import type { Invoice } from '@ledgerline/documents/invoice';
import { firstInvoices, type FirstInvoices } from './invoices.ts';
import { callerOf } from './load.ts';
import { companies } from '@ledgerline/documents/companies';
import { demoPassword, people } from './people.ts';

/** Where a running Ledgerline takes things in. */
export interface Doors {
  port: number;
  smtpPort: number;
  scanFolder: string;
}

const slug = (invoice: Invoice) => `${invoice.supplier.domain.split('.')[0]}-${invoice.number.toLowerCase()}.pdf`;

const subjectOf = (invoices: Invoice[]): string =>
  `${invoices[0]!.kind === 'credit-note' ? 'Credit note' : 'Invoice'} ${invoices.map((i) => i.number).join(', ')}`;

export async function byMail({ smtpPort }: Doors, invoices: Invoice[], text: string): Promise<void> {
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port: smtpPort, ignoreTLS: true });
  const first = invoices[0]!;
  const to = companies.find((c) => c.code === first.supplier.company)!.mailAddress;
  const attachments = await Promise.all(
    invoices.map(async (i) => ({ filename: slug(i), content: Buffer.from(await makePdf(i)), contentType: 'application/pdf' })),
  );
  await transport.sendMail({
    from: `"${first.supplier.name.replace(/"/g, '')}" <accounts@${first.supplier.domain}>`,
    to,
    subject: subjectOf(invoices),
    text,
    attachments,
  });
  transport.close();
}

/** Drops a scan as a device would: written under a temporary name, then renamed. */
export async function byFolder({ scanFolder }: Doors, invoice: Invoice): Promise<void> {
  const folder = join(scanFolder, invoice.supplier.company.toLowerCase());
  await mkdir(folder, { recursive: true });
  const part = join(folder, `${slug(invoice)}.part`);
  await writeFile(part, await makePdf(invoice));
  await rename(part, join(folder, slug(invoice)));
}

async function byUpload({ port }: Doors, files: { name: string; bytes: Uint8Array; type: string }[], companyCode: string): Promise<void> {
  const base = `http://127.0.0.1:${port}/api`;
  const signedIn = await fetch(`${base}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: people[0]!.email, password: demoPassword }),
  });
  const cookie = signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
  const session = (await (await fetch(`${base}/session`, { headers: { cookie } })).json()) as {
    me: { companies: { id: string; code: string }[] };
  };
  const form = new FormData();
  for (const { name, bytes, type } of files) form.append('file', new Blob([new Uint8Array(bytes)], { type }), name);
  await fetch(`${base}/companies/${session.me.companies.find((c) => c.code === companyCode)!.id}/arrivals`, {
    method: 'POST',
    headers: { cookie },
    body: form,
  });
}

/** What has come in already, by the subjects of its arrivals: a demo that was broken off brings in the rest. */
async function subjectsThere(services: Services): Promise<Set<string>> {
  const rows = await services.database.db.select({ subject: arrival.subject }).from(arrival);
  return new Set(rows.flatMap((r) => r.subject ?? []));
}

/** Waits until something is so, looking five times a second; a few minutes at most. */
async function until(so: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 900 && !(await so()); i++) await wait(200);
}

const countOf = async (services: Services, table: typeof arrival | typeof document, where?: SQL): Promise<number> => {
  const [row] = await services.database.db
    .select({ n: sql<number>`count(*)::int` })
    .from(table)
    .where(where);
  return row!.n;
};

/** About 25 documents in their suppliers' layouts, by mail, folder and upload, with a few that say why they can't be read. Gives their number. */
export async function firstDocuments(services: Services, doors: Doors, today: string): Promise<number> {
  await until(async () => (await countOf(services, arrival, eq(arrival.state, 'opening'))) === 0);
  const there = await subjectsThere(services);
  const { mails, scans, uploaded, unknown, doubtful, shapes } = firstInvoices(today);
  const note = 'Dear accounts team,\n\nplease find our invoice attached.\n\nKind regards';
  for (const invoices of mails) if (!there.has(subjectOf(invoices))) await byMail(doors, invoices, note);
  for (const invoice of scans) if (!there.has(slug(invoice))) await byFolder(doors, invoice);
  for (const invoice of doubtful) if (!there.has(subjectOf([invoice]))) await byMail(doors, [invoice], note);
  const upload = async (invoice: Invoice) => ({ name: slug(invoice), bytes: await makePdf(invoice), type: 'application/pdf' });
  const uploads = [
    [...(await Promise.all(uploaded.map(upload))), await upload(unknown)],
    [
      await upload(mails[0]![0]!),
      { name: 'torn-page.pdf', bytes: new TextEncoder().encode('%PDF-1.7\nthis file broke off'), type: 'application/pdf' },
    ],
  ];
  // What came by mail is taken apart first, so that the same file added by hand is the second.
  await until(async () => (await countOf(services, arrival, eq(arrival.state, 'opening'))) === 0);
  for (const files of uploads) if (!there.has(`${files.length} files`)) await byUpload(doors, files, 'MBG');
  const more = await otherShapes(doors, shapes, there);
  if (there.has(holiday)) return mails.flat().length + doubtful.length + scans.length + uploads.flat().length + more;
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port: doors.smtpPort, ignoreTLS: true });
  await transport.sendMail({
    from: 'Bucket House <accounts@brightmopcle.example>',
    to: companies[0]!.mailAddress,
    subject: holiday,
    text: 'Our office closes from 24 December to 2 January. Invoices follow as usual.',
  });
  transport.close();
  return mails.flat().length + doubtful.length + scans.length + uploads.flat().length + more;
}

const holiday = 'Holiday opening hours';

/** An e-invoice beside its page, a hybrid whose page says another total, one with carriage, a pile in one file, and a picture. Gives their number. */
async function otherShapes(
  doors: Doors,
  { both, page, pile, photo, carried, again }: FirstInvoices['shapes'],
  there: Set<string>,
): Promise<number> {
  const data = ciiOf({ ...page, gross: dec(page.gross).plus(10).toFixed(2), net: dec(page.net).plus(10).toFixed(2) });
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port: doors.smtpPort, ignoreTLS: true });
  const to = companies[0]!.mailAddress,
    pdf = 'application/pdf';
  const send = async (mail: { from: string; subject: string; text: string; attachments: object[] }) => {
    if (!there.has(mail.subject)) await transport.sendMail({ to, ...mail });
  };
  await send({
    from: `"${both.supplier.name}" <accounts@${both.supplier.domain}>`,
    subject: `Invoice ${both.number} with its data`,
    text: 'The invoice as a page and as an e-invoice.',
    attachments: [
      { filename: slug(both), content: Buffer.from(await makePdf(both)), contentType: pdf },
      { filename: slug(both).replace('.pdf', '.xml'), content: ublOf(both), contentType: 'application/xml' },
    ],
  });
  await send({
    from: `"${page.supplier.name}" <accounts@${page.supplier.domain}>`,
    subject: `Invoice ${page.number}`,
    text: 'Please find our invoice attached.',
    attachments: [{ filename: slug(page), content: Buffer.from(await hybridOf(page, data)), contentType: pdf }],
  });
  transport.close();
  const monday = 'post-of-monday.pdf',
    sign = 'photo-signwrights.jpg',
    brought = `${carried.number.toLowerCase()}.pdf`;
  if (!there.has(brought)) await byUpload(doors, [{ name: brought, bytes: await makePdf(carried), type: pdf }], 'MBG');
  if (!there.has(monday)) await byUpload(doors, [{ name: monday, bytes: await pileOf(pile), type: pdf }], 'MBG');
  if (!there.has(sign))
    await byUpload(doors, [{ name: sign, bytes: await pictureOf([photo], 'jpeg', { photo: true, skew: 0 }), type: 'image/jpeg' }], 'MBG');
  const paper = 'pondside-paper.jpg';
  if (!there.has(paper))
    await byUpload(doors, [{ name: paper, bytes: await pictureOf([again], 'jpeg', { skew: 1.3 }), type: 'image/jpeg' }], 'MBG');
  return 7;
}

/** Waits until all is read, then lets the demo's people take some bills further: with approvers, and ready to post. */
export async function moveAlong(services: Services, sent: number): Promise<void> {
  const { db } = services.database;
  await until(async () => {
    const unread = await countOf(services, document, inArray(document.state, ['waiting', 'reading']));
    return unread === 0 && (await countOf(services, document)) >= sent;
  });
  const fresh = await db
    .select({ id: bill.id, companyId: bill.companyId })
    .from(bill)
    .innerJoin(document, eq(document.id, bill.documentId))
    .innerJoin(arrival, eq(arrival.id, document.arrivalId))
    .where(and(eq(bill.stage, 'read'), isNotNull(bill.supplierId)))
    // When a scan is found in its folder is chance: these come last, so that the same bills go on each time.
    .orderBy(sql`${arrival.channel} = 'folder'`, asc(bill.createdAt), asc(bill.id));
  const day = services.now().toISOString().slice(0, 10);
  const [there] = await db
    .select({ n: sql<number>`count(*)::int` })
    .from(bill)
    .where(and(isNotNull(bill.documentId), inArray(bill.stage, ['coded', 'approved'])));
  let moved = there!.n;
  for (const { id, companyId } of fresh) {
    if (moved >= 11) break;
    const clerk = await callerOf(services, 'Ines Okafor', companyId);
    const current = await getBill(db, clerk.company, id, day);
    if (current.exceptions.some((e) => e.severity === 'stops')) continue;
    const sent = await sendOn.perform(services, clerk, { id }, { rowVersion: current.rowVersion });
    moved++;
    if (moved % 2) continue;
    const nursery = clerk.company.code === 'MNT';
    const approver = await callerOf(services, nursery ? 'Rufus Pell' : 'Marguerite Sable', companyId);
    await approve.perform(services, approver, { id }, { rowVersion: sent.rowVersion });
  }
}
