import { codingFields, codingOf } from '@ledgerline/core/bills';
import { and, eq, inArray, or } from 'drizzle-orm';
import { emptyCells, headerFields } from '@ledgerline/core/bills';
import { may, MoveToCompany, type MovedTo } from '@ledgerline/contract';
import { actorOf, command, type Caller } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { arrival, bill, company, document, documentPage } from '../db/schema/index.ts';
import { record } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';
import { keepBill, workingBill } from './change.ts';
import { recheck } from './checking.ts';
import { billIn } from './hand.ts';
import { knownSuppliers, makeBill } from './intake.ts';
import { asLine } from './show.ts';
import { letGoOfDebit } from '../matching/held.ts';
import { editable, findBill, linesOf, workersOf, type BillRecord } from './store.ts';

type Target = typeof company.$inferSelect;

type DocumentRow = typeof document.$inferSelect;

/** A document once more, in an arrival of the other company: what was read goes along, nothing is read again. */
async function documentThere(tx: Executor, one: DocumentRow, arrivalId: string, to: Target): Promise<DocumentRow> {
  const { id, companyId: _company, arrivalId: _arrival, duplicateOf: _twin, forBill: _bill, further: _beside, ...columns } = one;
  const [made] = await tx
    .insert(document)
    .values({ ...columns, companyId: to.id, arrivalId })
    .returning();
  const pages = await tx.select().from(documentPage).where(eq(documentPage.documentId, id));
  for (const page of pages) await tx.insert(documentPage).values({ ...page, documentId: made!.id });
  return made!;
}

/** The bill's own document and those beside it, in one arrival of the other company; here they say where they went. */
async function documentsThere(
  tx: Executor,
  caller: Caller,
  one: BillRecord,
  to: Target,
): Promise<{ own: DocumentRow | null; beside: string[] }> {
  const rows = await tx
    .select()
    .from(document)
    .where(or(one.documentId ? eq(document.id, one.documentId) : undefined, and(eq(document.forBill, one.id), eq(document.further, true))))
    .orderBy(document.further, document.id);
  const [first] = rows;
  if (!first) return { own: null, beside: [] };
  const [from] = await tx.select().from(arrival).where(eq(arrival.id, first.arrivalId));
  const { channel, sender, subject, receivedAt, personId, fileSha256, body, headers } = from!;
  const [came] = await tx
    .insert(arrival)
    .values({
      companyId: to.id,
      channel,
      sender,
      subject,
      receivedAt,
      personId,
      fileSha256,
      body,
      headers,
      cameWith: from!.id,
      note: `Moved here from ${caller.company.name}.`,
    })
    .returning();
  let own: DocumentRow | null = null;
  const beside: string[] = [];
  for (const row of rows) {
    const made = await documentThere(tx, row, came!.id, to);
    if (row.id === one.documentId) own = made;
    else beside.push(made.id);
    await tx
      .update(document)
      .set({ state: 'aside', note: `Moved to ${to.name}.` })
      .where(eq(document.id, row.id));
  }
  return { own, beside };
}

/**
 * Moves a bill to the company that it is for: it is made there anew, supplier and coding by what that company knows, with all that
 * somebody typed here; here it is discarded. Both say so.
 */
export const moveToCompany = command(
  {
    body: MoveToCompany,
    may: 'bills:edit',
    subject: billIn([...editable, 'set-aside'], 'This bill has been sent on. It can be moved once it is returned.'),
  },
  async (tx, caller, input, hand): Promise<MovedTo> => {
    const one = hand.subject;
    const there = caller.me.companies.find((c) => c.id === input.companyId);
    if (!there || there.id === caller.company.id) throw new Refusal(404, 'This company is not here, or you are not a member of it.');
    if (!may(there.roles, 'bills:edit')) throw new Refusal(403, `Your role in ${there.name} does not allow this.`);
    const [to] = await tx.select().from(company).where(eq(company.id, there.id));
    const by = actorOf(caller);
    const { own: made, beside } = await documentsThere(tx, caller, one, to!);
    const workers = await workersOf(tx, one.id);
    const billId = made?.reading
      ? await makeBill(tx, {
          companyId: to!.id,
          documentId: made.id,
          suppliers: await knownSuppliers(tx, to!.id),
          reading: made.reading,
          data: made.findings !== null,
          addressedTo: to!,
          receivedAt: one.createdAt,
          now: hand.now,
        })
      : (
          await tx
            .insert(bill)
            .values({ companyId: to!.id, documentId: made?.id ?? null, stage: 'read', kind: one.kind, currency: one.currency })
            .returning({ id: bill.id })
        )[0]!.id;
    const fresh = (await findBill(tx, to!.id, billId, true))!;
    if (workers.length > 0 || !made?.reading) await takeAlong(tx, one, fresh);
    if (beside.length > 0) await tx.update(document).set({ forBill: billId, further: true }).where(inArray(document.id, beside));
    // Whoever worked on it here does not approve it there.
    for (const personId of workers.filter((id) => id !== caller.me.id))
      record(tx, {
        companyId: to!.id,
        subject: { type: 'bill', id: billId },
        verb: 'changed',
        by: { personId, source: by.source },
        at: hand.now,
        note: `Before it came from ${caller.company.name}`,
      });
    for (const [companyId, id, note] of [
      [caller.company.id, one.id, `To ${to!.name}`],
      [to!.id, billId, `From ${caller.company.name}`],
    ] as const)
      record(tx, { companyId, subject: { type: 'bill', id }, verb: 'moved', by, at: hand.now, note });
    await letGoOfDebit(tx, one);
    await tx
      .update(bill)
      .set({ stage: 'discarded', note: `Moved to ${to!.name}.`, assigneeId: null, asideUntil: null, awaitsReceipt: false })
      .where(eq(bill.id, one.id));
    await recheck(tx, to!, (await findBill(tx, to!.id, billId))!, { personId: caller.me.id, now: hand.now });
    return { companyId: to!.id, billId };
  },
);

const isCoding = (cell: string): boolean => (codingFields as readonly string[]).includes(cell);

/** What was typed on the old bill, on the new one: head and rows; supplier and coding are the other company's. */
async function takeAlong(tx: Executor, old: BillRecord, fresh: BillRecord): Promise<void> {
  const [from, before] = [
    workingBill(old, (await linesOf(tx, old.id)).map(asLine)),
    workingBill(fresh, (await linesOf(tx, fresh.id)).map(asLine)),
  ];
  const coded = new Map(before.lines.map((l) => [l.description, l]));
  const after = {
    ...before,
    ...Object.fromEntries(headerFields.filter((f) => f !== 'supplierId').map((f) => [f, from[f]])),
    marks: { ...from.marks, ...(before.marks['supplierId'] ? { supplierId: before.marks['supplierId'] } : {}) },
    unsure: from.unsure.filter((path) => !path.includes('.')),
    lines: from.lines.map((l) => {
      const like = coded.get(l.description);
      const marks = Object.fromEntries(Object.entries(l.marks).filter(([cell]) => !isCoding(cell)));
      const suggested = Object.fromEntries(Object.entries(like?.marks ?? {}).filter(([cell]) => isCoding(cell)));
      return {
        ...emptyCells(),
        ...l,
        id: crypto.randomUUID(),
        ...codingOf(like),
        marks: { ...marks, ...suggested },
      };
    }),
  };
  await keepBill(tx, fresh, before, after, { record: () => undefined });
}
