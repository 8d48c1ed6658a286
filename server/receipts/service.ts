import { and, eq, inArray } from 'drizzle-orm';
import { dec } from '@ledgerline/core/money';
import { NewReceipt } from '@ledgerline/contract';
import { recheckBills } from '../bills/checking.ts';
import { command } from '../commands/command.ts';
import { goodsReceipt, orderLine, purchaseOrder, receiptLine } from '../db/schema/index.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { receivedOf } from '../matching/states.ts';
import { takeUpReceived } from '../matching/waiting.ts';

const wrong = (i: number, sentence: string) => new Refusal(422, sentence, [{ path: `lines.${i}.quantity`, sentence }]);

/** Books what came of an order, or went back. Its bills are checked again, and those that waited for it come back. */
export const newReceipt = command({ body: NewReceipt, may: 'orders:edit' }, async (tx, caller, input, hand) => {
  const companyId = caller.company.id;
  // Held, so that two receipts at once never take back the same goods.
  const [order] = await tx
    .select()
    .from(purchaseOrder)
    .where(and(eq(purchaseOrder.companyId, companyId), eq(purchaseOrder.id, input.orderId)))
    .for('update');
  if (!order) throw notFound('This order');
  const ids = input.lines.map((l) => l.orderLineId);
  if (new Set(ids).size < ids.length) throw new Refusal(422, 'A line of the order stands here twice.');
  const own = await tx
    .select()
    .from(orderLine)
    .where(and(eq(orderLine.orderId, order.id), inArray(orderLine.id, ids)));
  if (own.length < ids.length) throw new Refusal(409, 'A line of this order is not there any more. Load it again.');
  const before = await receivedOf(tx, ids);
  for (const [i, { orderLineId, quantity }] of input.lines.entries()) {
    if (dec(quantity).isZero()) throw wrong(i, 'Leave a line out that nothing came of.');
    if (
      dec(before.get(orderLineId) ?? '0')
        .plus(quantity)
        .lt(0)
    )
      throw wrong(i, 'More would go back than has come.');
  }
  const [made] = await tx
    .insert(goodsReceipt)
    .values({
      companyId,
      orderId: order.id,
      number: input.number.trim(),
      receivedOn: input.receivedOn,
      note: input.note?.trim() || null,
      personId: caller.me.id,
      at: hand.now,
    })
    .returning({ id: goodsReceipt.id });
  await tx.insert(receiptLine).values(input.lines.map((l) => ({ ...l, companyId, receiptId: made!.id })));
  const said = (l: (typeof input.lines)[number]) => {
    const line = own.find((o) => o.id === l.orderLineId)!;
    return [`line ${line.position + 1}`, `${dec(l.quantity).toFixed()} ${line.unit ?? ''} ${line.description}`.replace(/ +/g, ' ')];
  };
  hand.record({
    subject: { type: 'order', id: order.id },
    verb: 'received',
    note: input.number.trim(),
    after: { receivedOn: input.receivedOn, ...Object.fromEntries(input.lines.map(said)) },
  });
  const by = { personId: caller.me.id, now: hand.now };
  await recheckBills(tx, caller.company, { orderId: order.id }, by);
  await takeUpReceived(tx, caller.company, order.id, by);
  return { id: made!.id };
});
