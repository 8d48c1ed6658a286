import { and, eq, inArray } from 'drizzle-orm';
import { emptyCells, headerFields } from '@ledgerline/core/bills';
import { may, MoveToCompany, type MovedTo } from '@ledgerline/contract';
import { command, type Caller } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { arrival, bill, company, document, documentPage, event } from '../db/schema/index.ts';
import { record } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';
import { actorOf } from '../commands/command.ts';
import { keepBill, workingBill } from './change.ts';
import { recheck } from './checking.ts';
import { billIn } from './hand.ts';
import { makeBill } from './intake.ts';
import { asLine } from './show.ts';
import { editable, findBill, linesOf, type BillRecord } from './store.ts';

type Target = typeof company.$inferSelect;

/** The document of a bill once more, in an arrival of its own in the other company: what was read goes along, nothing is read again. */
async function documentThere(tx: Executor, caller: Caller, one: BillRecord, to: Target): Promise<typeof document.$inferSelect | null> {
  if (!one.documentId) return null;
  const [own] = await tx
    .select({ document, arrival })
    .from(document)
    .innerJoin(arrival, eq(arrival.id, document.arrivalId))
    .where(eq(document.id, one.documentId));
  const { channel, sender, subject, receivedAt, personId, fileSha256, body, headers } = own!.arrival;
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
      cameWith: own!.arrival.id,
      note: `Moved here from ${caller.company.name}.`,
    })
    .returning();
  const { id: _id, companyId: _company, arrivalId: _arrival, duplicateOf: _twin, ...columns } = own!.document;
  const [made] = await tx
    .insert(document)
    .values({ ...columns, companyId: to.id, arrivalId: came!.id })
    .returning();
  const pages = await tx.select().from(documentPage).where(eq(documentPage.documentId, one.documentId));
  for (const page of pages) await tx.insert(documentPage).values({ ...page, documentId: made!.id });
  await tx
    .update(document)
    .set({ state: 'aside', note: `Moved to ${to.name}.` })
    .where(eq(document.id, one.documentId));
  return made!;
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
    const made = await documentThere(tx, caller, one, to!);
    const typed = await tx
      .select({ id: event.id })
      .from(event)
      .where(and(eq(event.subjectType, 'bill'), eq(event.subjectId, one.id), inArray(event.verb, ['changed'])))
      .limit(1);
    const billId = made?.reading
      ? await makeBill(tx, {
          companyId: to!.id,
          documentId: made.id,
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
    if (typed.length > 0 || !made?.reading) await takeAlong(tx, one, fresh);
    for (const [companyId, id, note] of [
      [caller.company.id, one.id, `To ${to!.name}`],
      [to!.id, billId, `From ${caller.company.name}`],
    ] as const)
      record(tx, { companyId, subject: { type: 'bill', id }, verb: 'moved', by, at: hand.now, note });
    await tx
      .update(bill)
      .set({ stage: 'discarded', note: `Moved to ${to!.name}.`, assigneeId: null, asideUntil: null })
      .where(eq(bill.id, one.id));
    await recheck(tx, to!, (await findBill(tx, to!.id, billId))!, { personId: caller.me.id, now: hand.now });
    return { companyId: to!.id, billId };
  },
);

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
      const { coding: _coding, ...marks } = l.marks;
      return {
        ...emptyCells(),
        ...l,
        id: crypto.randomUUID(),
        accountId: like?.accountId ?? null,
        costCentreId: like?.costCentreId ?? null,
        taxCodeId: like?.taxCodeId ?? null,
        marks: like?.marks['coding'] ? { ...marks, coding: like.marks['coding'] } : marks,
      };
    }),
  };
  await keepBill(tx, fresh, before, after, { record: () => undefined });
}
