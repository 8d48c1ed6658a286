import { and, desc, eq, gt, inArray, isNotNull, isNull, ne, or, sql } from 'drizzle-orm';
import { JoinDocument, type BillDocuments } from '@ledgerline/contract';
import { command, actorOf, type Caller } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { arrival, bill, document } from '../db/schema/index.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { earlier, takeIn, type ArrivedFile } from '../arrivals/take.ts';
import type { Services } from '../services.ts';
import { sha256 } from '../files/store.ts';
import { anyBill, asItStands } from './hand.ts';
import { dropBill } from './intake.ts';
import { join } from './join.ts';
import { editable, findBill } from './store.ts';

const recently = 90 * 86_400_000;

/** The documents beside a bill, and those that came lately and could be its own or go beside it. */
export async function documentsFor(db: Executor, companyId: string, billId: string, now: Date): Promise<BillDocuments> {
  const one = await findBill(db, companyId, billId);
  if (!one) throw notFound('This bill');
  const columns = {
    id: document.id,
    name: document.name,
    state: document.state,
    note: document.note,
    receivedAt: arrival.receivedAt,
    sender: arrival.sender,
  };
  const shown = (rows: { receivedAt: Date; id: string; name: string; state: string; note: string | null; sender: string | null }[]) =>
    rows.map((r) => ({ ...r, receivedAt: r.receivedAt.toISOString() }));
  const further = await db
    .select(columns)
    .from(document)
    .innerJoin(arrival, eq(arrival.id, document.arrivalId))
    .where(and(eq(document.forBill, billId), eq(document.further, true)))
    .orderBy(arrival.receivedAt, document.id);
  const candidates = await db
    .select({ ...columns, supplierId: bill.supplierId })
    .from(document)
    .innerJoin(arrival, eq(arrival.id, document.arrivalId))
    .leftJoin(bill, and(eq(bill.documentId, document.id), ne(bill.stage, 'discarded')))
    .where(
      and(
        eq(document.companyId, companyId),
        gt(arrival.receivedAt, new Date(now.getTime() - recently)),
        isNotNull(document.pageCount),
        inArray(document.state, ['read', 'aside']),
        isNull(document.forBill),
        or(sql`${bill.id} is null`, and(eq(bill.stage, 'read'), ne(bill.id, billId))),
      ),
    )
    .orderBy(sql`${bill.supplierId} = ${one.supplierId} desc nulls last`, desc(arrival.receivedAt), document.id)
    .limit(20);
  return { further: shown(further), candidates: shown(candidates.map(({ supplierId: _, ...row }) => row)) };
}

/** Puts a document that came by mail or scan to a bill: as its own, or beside it. */
export const joinDocument = command(
  { body: JoinDocument, may: 'bills:edit', subject: anyBill(true) },
  async (tx, caller, input, hand) => {
    const target = hand.subject,
      by = actorOf(caller);
    const [doc] = await tx
      .select()
      .from(document)
      .where(and(eq(document.id, input.documentId), eq(document.companyId, caller.company.id)))
      .for('update');
    if (!doc || !['read', 'aside'].includes(doc.state)) throw notFound('This document');
    if (doc.further && doc.forBill !== target.id) throw new Refusal(409, 'This document is kept beside another bill.');
    if (input.as === 'own') {
      mayHaveOne(target);
      await join(tx, { target, documentId: doc.id, by, now: hand.now, note: doc.name });
      return target.id;
    }
    if (doc.id === target.documentId) throw new Refusal(409, 'This is the bill’s own document.');
    if (!(await dropBill(tx, doc.id, `Kept beside ${target.invoiceNumber ?? 'another bill'}.`, hand.now, by)))
      throw new Refusal(409, 'Somebody works on the bill of this document already. Discard that one first.');
    await tx
      .update(document)
      .set({ state: 'aside', note: `Kept beside bill ${target.invoiceNumber ?? 'without a number'}.`, forBill: target.id, further: true })
      .where(eq(document.id, doc.id));
    hand.record({ subject: { type: 'bill', id: target.id }, verb: 'document added', note: doc.name });
    return target.id;
  },
  asItStands,
);

function mayHaveOne(target: { documentId: string | null; stage: string }): void {
  if (target.documentId) throw new Refusal(409, 'This bill has its document already. Put this one beside it.');
  if (![...editable, 'set-aside'].includes(target.stage))
    throw new Refusal(409, 'This bill has been sent on. Its document can be added once it is returned.');
}

/** Takes in a file for a bill: read as anything that comes in, then the bill's own document, or beside it. Gives the arrival. */
export async function fileForBill(
  services: Services,
  caller: Caller,
  billId: string,
  as: 'own' | 'further',
  given: () => Promise<ArrivedFile>,
): Promise<string> {
  const target = await findBill(services.database.db, caller.company.id, billId);
  if (!target) throw notFound('This bill');
  if (as === 'own') mayHaveOne(target);
  const file = await given();
  const same = await earlier(services.database.db, caller.company.id, sha256(file.bytes));
  if (same) throw new Refusal(409, `This file is here already, as ${same.name}. Choose it from what came lately, or see Arrivals.`);
  return (await takeIn(services, {
    companyId: caller.company.id,
    channel: 'upload',
    sender: caller.me.name,
    subject: file.name,
    personId: caller.me.id,
    note: `Brought for bill ${target.invoiceNumber ?? 'without a number'}.`,
    files: [file],
    forBill: { id: billId, further: as === 'further' },
  }))!;
}
