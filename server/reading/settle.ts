import { and, desc, eq, inArray, isNotNull, isNull, ne } from 'drizzle-orm';
import { compare } from '@ledgerline/core/einvoice';
import { matchCompany, matchSupplier, tracesOf, weighKnown, type KnownCompany } from '@ledgerline/core/matching';
import { squash, type Reading } from '@ledgerline/core/reading';
import { recheck } from '../bills/checking.ts';
import { touch } from '../bills/touch.ts';
import { dropBill, knownSuppliers, makeBill, type SupplierRow } from '../bills/intake.ts';
import { join, waitingFor } from '../bills/join.ts';
import { keepLook } from '../bills/looks.ts';
import { editable, findBill } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { ownCompanies } from '../companies/store.ts';
import { arrival, bill, company, document, documentPage } from '../db/schema/index.ts';
import { cleaned } from '../db/text.ts';
import { record } from '../events/record.ts';
import type { Services } from '../services.ts';
import { pageNotes } from './notes.ts';
import type { ReadPart } from './result.ts';

type DocumentRow = typeof document.$inferSelect;
type ArrivalRow = typeof arrival.$inferSelect;

/** The company and the arrival in which a document ended up. */
export interface Home {
  companyId: string;
  arrivalId: string;
}

/** Keeps what was read of one document and makes its bill, unless it is no invoice or the page of an e-invoice that has one. */
export async function settlePart(
  tx: Executor,
  services: Services,
  came: ArrivalRow,
  row: DocumentRow,
  part: ReadPart,
  parts: number,
): Promise<Home> {
  const { sources, shown } = part;
  const { pages, reading: seen } = cleaned({ pages: part.pages, reading: part.reading });
  await tx.delete(documentPage).where(eq(documentPage.documentId, row.id));
  for (const page of pages) await tx.insert(documentPage).values({ documentId: row.id, ...page });
  // What is drawn from data looks as we draw it.
  await keepLook(tx, row.id, shown === 'paper' ? pages : []);
  const companies = await ownCompanies(tx);
  const addressed = matchCompany(seen.header.buyerName?.value ?? null, companies);
  const home = await moveTo(tx, came, row, addressed, parts);
  const suppliers = seen.kind === 'other' ? [] : await knownSuppliers(tx, home.companyId);
  const reading = part.findings ? seen : await weighed(tx, suppliers, seen, parts === 1 ? row.name : null);
  const base = {
    reading,
    findings: part.findings,
    sources,
    shown: shown === 'data' ? 'data' : 'paper',
    pageCount: pages.length,
    progress: null,
    readAt: services.now(),
  };
  const keepAs = async (state: string, note: string | null, duplicateOf: string | null = null): Promise<Home> => {
    await tx
      .update(document)
      .set({ ...base, state, note, duplicateOf })
      .where(eq(document.id, row.id));
    return home;
  };
  if (part.fault) {
    // The page stands by itself, so that it can be tried again alone.
    await tx.update(document).set({ arranged: true }).where(eq(document.id, row.id));
    return keepAs('unreadable', pageNotes[part.fault] ?? pageNotes.broken!);
  }
  if (row.forBill && row.further) return keepAs('aside', await besideNote(tx, row));
  if (shown === 'small') return keepAs('aside', 'A small picture, such as a logo: set to one side.');
  if (reading.kind === 'other' && row.forBill) {
    const own = await keepAs('read', null);
    await toItsBill(tx, services, row);
    return own;
  }
  if (reading.kind === 'other') return keepAs('aside', 'Not an invoice or credit note: set to one side.');
  const twin = await twinOf(tx, home.arrivalId, row.id, part);
  if (twin && shown !== 'data') {
    // The data is the bill; its page beside it is compared and shown from Arrivals.
    const findings = twin.findings && { ...twin.findings, differences: compare(twin.reading!, reading) };
    await tx.update(document).set({ findings }).where(eq(document.id, twin.id));
    if (findings?.differences.length) await compared(tx, services, twin.id);
    return keepAs('duplicate', `The page of the e-invoice ${twin.name}: one bill.`, twin.id);
  }
  const findings = twin && part.findings ? { ...part.findings, differences: compare(reading, twin.reading!) } : part.findings;
  await tx
    .update(document)
    .set({ ...base, findings, state: 'read', note: noteFor(part), duplicateOf: null })
    .where(eq(document.id, row.id));
  if (twin) {
    if (!(await dropBill(tx, twin.id, 'The e-invoice that came with this page is used instead.', services.now())))
      return keepAs('duplicate', `The data of ${twin.name}, whose bill is in work already.`, twin.id);
    await tx
      .update(document)
      .set({ state: 'duplicate', note: `The page of the e-invoice ${row.name}: one bill.`, duplicateOf: row.id })
      .where(eq(document.id, twin.id));
  }
  const made = await makeBill(tx, {
    companyId: home.companyId,
    documentId: row.id,
    reading,
    suppliers,
    data: part.findings !== null,
    addressedTo: addressed,
    receivedAt: came.receivedAt,
    now: services.now(),
  });
  if (!(await toItsBill(tx, services, row))) await toWhoWaits(tx, services, home.companyId, made, row);
  return home;
}

/** How many of a supplier's earlier numbers tell what they look like. */
const numbersSeen = 20;

/** A reading weighed with what the application knows: its suppliers, how their numbers look, the file's name. */
async function weighed(tx: Executor, suppliers: SupplierRow[], reading: Reading, fileName: string | null): Promise<Reading> {
  const match = matchSupplier(tracesOf(reading), suppliers),
    sender = suppliers.find((s) => s.id === match?.id) ?? null;
  const earlier = sender
    ? await tx
        .select({ number: bill.invoiceNumber })
        .from(bill)
        .where(
          and(
            eq(bill.companyId, sender.companyId),
            eq(bill.supplierId, sender.id),
            eq(bill.kind, reading.kind),
            isNotNull(bill.postedAt),
            isNotNull(bill.invoiceNumber),
          ),
        )
        .orderBy(desc(bill.issueDate))
        .limit(numbersSeen)
    : [];
  return weighKnown(reading, { suppliers, sender, numbers: earlier.map((e) => e.number!), fileName });
}

const reader = { personId: null, source: 'reader' };

/** A document that was brought for a bill goes to it, unless that has one by now. */
async function toItsBill(tx: Executor, services: Services, row: DocumentRow): Promise<boolean> {
  const target = row.forBill ? await findBill(tx, row.companyId, row.forBill, true) : null;
  if (!target || target.documentId || !awaiting.includes(target.stage)) return false;
  await join(tx, { target, documentId: row.id, by: reader, now: services.now(), note: row.name });
  return true;
}
/** A document that a bill has waited for joins it by itself. */
async function toWhoWaits(tx: Executor, services: Services, companyId: string, madeId: string, row: DocumentRow): Promise<void> {
  const target = await waitingFor(tx, (await findBill(tx, companyId, madeId))!);
  if (target) await join(tx, { target, documentId: row.id, by: reader, now: services.now(), note: `${row.name} came and fits` });
}
const awaiting = [...editable, 'set-aside'];
async function besideNote(tx: Executor, row: DocumentRow): Promise<string> {
  const of = await findBill(tx, row.companyId, row.forBill!);
  return `Kept beside bill ${of?.invoiceNumber ?? 'without a number'}.`;
}

const noteFor = ({ pages, shown }: ReadPart): string | null =>
  shown === 'paper' && pages.every((p) => p.words.length === 0) ? 'No text was found on it: type it in from the page.' : null;

/**
 * Scans and mail go to the company on the page; an upload stays where a person put it. A document that came alone takes its arrival
 * along; one that came with others gets an arrival of its own there.
 */
async function moveTo(tx: Executor, came: ArrivalRow, row: DocumentRow, addressed: KnownCompany | null, parts: number): Promise<Home> {
  if (!addressed || came.channel === 'upload' || addressed.id === row.companyId)
    return { companyId: row.companyId, arrivalId: row.arrivalId };
  const beside = await tx
    .select({ id: document.id })
    .from(document)
    .where(and(eq(document.arrivalId, row.arrivalId), ne(document.id, row.id)));
  let arrivalId = row.arrivalId;
  if (beside.length === 0 && parts === 1) await tx.update(arrival).set({ companyId: addressed.id }).where(eq(arrival.id, row.arrivalId));
  else {
    const { channel, sender, subject, receivedAt, personId } = came;
    const [there] = await tx
      .select({ id: arrival.id })
      .from(arrival)
      .where(and(eq(arrival.companyId, addressed.id), eq(arrival.cameWith, came.id)));
    const [made] = there
      ? [there]
      : await tx
          .insert(arrival)
          .values({
            companyId: addressed.id,
            channel,
            sender,
            subject,
            receivedAt,
            personId,
            cameWith: came.id,
            note: 'Came together with documents for another company.',
          })
          .returning({ id: arrival.id });
    arrivalId = made!.id;
    await tx
      .update(arrival)
      .set({ note: `What is addressed to ${addressed.name} went there.` })
      .where(and(eq(arrival.id, came.id), isNull(arrival.note)));
  }
  await tx.update(document).set({ companyId: addressed.id, arrivalId }).where(eq(document.id, row.id));
  return { companyId: addressed.id, arrivalId };
}

/** The same invoice in the same arrival in its other shape: data for a page, a page for data. */
async function twinOf(tx: Executor, arrivalId: string, documentId: string, part: ReadPart): Promise<DocumentRow | null> {
  const number = part.reading.header.invoiceNumber?.value;
  if (!number) return null;
  const beside = await tx
    .select()
    .from(document)
    .where(and(eq(document.arrivalId, arrivalId), ne(document.id, documentId), eq(document.state, 'read')));
  return (
    beside.find(
      (d) => (d.shown === 'data') !== (part.shown === 'data') && squash(d.reading?.header.invoiceNumber?.value ?? '') === squash(number),
    ) ?? null
  );
}

/** A page that came after the data was compared with it: the bill that is there is checked again, and whoever has it open sees it. */
async function compared(tx: Executor, services: Services, documentId: string): Promise<void> {
  const [made] = await tx
    .select({ bill, company })
    .from(bill)
    .innerJoin(company, eq(company.id, bill.companyId))
    .where(and(eq(bill.documentId, documentId), inArray(bill.stage, ['read', 'returned', 'set-aside'])))
    .for('update', { of: bill });
  if (!made) return;
  await touch(tx, made.bill.id);
  const now = services.now();
  record(tx, {
    companyId: made.company.id,
    subject: { type: 'bill', id: made.bill.id },
    verb: 'compared',
    by: { personId: null, source: 'reader' },
    at: now,
    note: 'Its page says something else than its data.',
  });
  await recheck(tx, made.company, made.bill, { personId: null, now });
}
