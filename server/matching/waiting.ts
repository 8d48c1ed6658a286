import { and, eq, sql } from 'drizzle-orm';
import { MoveBill } from '@ledgerline/contract';
import { recheck } from '../bills/checking.ts';
import { asItStands, checked, underReview } from '../bills/hand.ts';
import { heirOf } from '../bills/store.ts';
import { command, type Caller } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { bill, billException } from '../db/schema/index.ts';
import { record } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';

/** Open findings that more goods would settle. */
const notReceived = (billId: string) =>
  and(eq(billException.billId, billId), eq(billException.code, 'order-not-received'), eq(billException.state, 'open'));

/** Sets a bill aside until what it bills has come. */
export const waitForReceipt = command(
  { body: MoveBill, may: 'bills:edit', subject: underReview },
  async (tx, caller, _, hand) => {
    const { id, stage } = hand.subject;
    const [open] = await tx.select({ id: billException.id }).from(billException).where(notReceived(id)).limit(1);
    if (!open) throw new Refusal(422, 'All that this bill bills has come.');
    await tx.update(bill).set({ stage: 'set-aside', awaitsReceipt: true, asideUntil: null }).where(eq(bill.id, id));
    hand.record({ subject: { type: 'bill', id }, verb: 'set aside', note: 'Until the goods have come', before: { stage }, after: { stage: 'set-aside' } }); // prettier-ignore
    return checked(tx, caller, id, hand);
  },
  asItStands,
);

/** Takes up again the bills of an order that waited for goods which have come. Part of the caller's transaction. */
export async function takeUpReceived(
  tx: Executor,
  own: Pick<Caller['company'], 'id' | 'baseCurrency'>,
  orderId: string,
  by: { personId: string | null; now: Date },
): Promise<void> {
  const waiting = await tx
    .select()
    .from(bill)
    .where(
      and(
        eq(bill.companyId, own.id),
        eq(bill.stage, 'set-aside'),
        eq(bill.awaitsReceipt, true),
        sql`exists (select 1 from line_match m join order_line l on l.id = m.order_line_id where m.bill_id = ${bill.id} and l.order_id = ${orderId})`,
      ),
    )
    .orderBy(bill.id)
    .for('update');
  for (const one of waiting) {
    const [open] = await tx.select({ id: billException.id }).from(billException).where(notReceived(one.id)).limit(1);
    if (open || (await heirOf(tx, one))) continue;
    const back = { stage: 'read', awaitsReceipt: false, asideUntil: null };
    await tx.update(bill).set(back).where(eq(bill.id, one.id));
    record(tx, {
      companyId: own.id,
      subject: { type: 'bill', id: one.id },
      verb: 'came back',
      by: { personId: by.personId, source: 'receipt' },
      at: by.now,
      note: 'The goods have come',
      before: { stage: 'set-aside' },
      after: { stage: 'read' },
    });
    await recheck(tx, own, { ...one, ...back }, by);
  }
}
