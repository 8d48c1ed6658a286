import { and, eq, notInArray } from 'drizzle-orm';
import { v7 } from 'uuid';
import { codingOf, type Coding } from '@ledgerline/core/bills';
import { orderNumber } from '@ledgerline/core/matching';
import { dec } from '@ledgerline/core/money';
import { PutOrder, type Order } from '@ledgerline/contract';
import { rowIn } from '../accounts/row.ts';
import { recheckBills } from '../bills/checking.ts';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { orderLine, purchaseOrder } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';
import { findOrder } from './store.ts';

const columnsOf = ({ number, supplierId, orderDate, currency, note, active }: PutOrder) => ({
  number: number.trim(),
  plainNumber: orderNumber(number),
  supplierId,
  orderDate,
  currency,
  note: note?.trim() || null,
  active,
});

/** Writes an order's lines in their order: those that are named stay what they are, others are new, the rest goes. */
async function keepLines(tx: Executor, companyId: string, orderId: string, lines: PutOrder['lines']): Promise<void> {
  for (const [i, { quantity, unitPrice, weight, volume }] of lines.entries()) {
    const wrong = (path: string, sentence: string) =>
      new Refusal(422, `Line ${i + 1}: ${sentence}`, [{ path: `lines.${i}.${path}`, sentence }]);
    if (dec(quantity).lte(0)) throw wrong('quantity', 'A quantity is above zero.');
    if (dec(unitPrice).lt(0)) throw wrong('unitPrice', 'A price is zero or more.');
    if (weight && dec(weight).lt(0)) throw wrong('weight', 'A weight is zero or more.');
    if (volume && dec(volume).lt(0)) throw wrong('volume', 'A volume is zero or more.');
  }
  const own = await tx.select({ id: orderLine.id }).from(orderLine).where(eq(orderLine.orderId, orderId)).for('update');
  const known = new Set(own.map((l) => l.id));
  if (
    lines.some((l) => l.id !== undefined && !known.has(l.id)) ||
    new Set(lines.flatMap((l) => l.id ?? [])).size < lines.filter((l) => l.id).length
  )
    throw new Refusal(409, 'A line of this order is not there any more. Load it again.');
  const kept = lines.flatMap((l) => l.id ?? []);
  await tx.delete(orderLine).where(and(eq(orderLine.orderId, orderId), kept.length > 0 ? notInArray(orderLine.id, kept) : undefined));
  // Places are told apart at once: they move away first, then to where they belong.
  for (const [i, id] of kept.entries())
    await tx
      .update(orderLine)
      .set({ position: -1 - i })
      .where(eq(orderLine.id, id));
  for (const [
    position,
    { id, itemId, code, description, quantity, unit, unitPrice, weight, volume, needsReceipt, coding },
  ] of lines.entries()) {
    const put = {
      position,
      itemId,
      code: code?.trim() || null,
      description: description.trim(),
      quantity,
      unit: unit?.trim() || null,
      unitPrice,
      ...(weight === undefined ? {} : { weight }),
      ...(volume === undefined ? {} : { volume }),
      ...(needsReceipt === undefined ? {} : { needsReceipt }),
      ...codingOf(coding as Partial<Coding>),
    };
    if (id) await tx.update(orderLine).set(put).where(eq(orderLine.id, id));
    else await tx.insert(orderLine).values({ id: v7(), companyId, orderId, ...put });
  }
}

/** An order as the event log keeps it: names, and a line in one sentence. */
function said(order: Order): Record<string, unknown> {
  const { id: _, supplierId: _s, lines, net: _n, receipts: _r, bills: _b, ...head } = order;
  return {
    ...head,
    ...Object.fromEntries(
      lines.map((l, i) => [
        `line ${i + 1}`,
        [
          `${dec(l.quantity).toFixed()} ${l.unit ?? ''} ${l.description} at ${l.unitPrice}`.replace(/ +/g, ' '),
          ...(l.weight ? [`${l.weight} kg each`] : []),
          ...(l.volume ? [`${l.volume} m³ each`] : []),
          ...(l.needsReceipt ? [] : ['billed without a receipt']),
          ...l.shown.map((s) => s.code),
        ].join(' · '),
      ]),
    ),
  };
}

export const newOrder = command({ body: PutOrder, may: 'orders:edit' }, async (tx, caller, input, hand) => {
  const companyId = caller.company.id;
  const [made] = await tx
    .insert(purchaseOrder)
    .values({ companyId, ...columnsOf(input) })
    .returning({ id: purchaseOrder.id });
  await keepLines(tx, companyId, made!.id, input.lines);
  hand.record({ subject: { type: 'order', id: made!.id }, verb: 'made', after: said(await findOrder(tx, companyId, made!.id)) });
  // Bills that have come already may be of it.
  await recheckBills(tx, caller.company, { orderId: made!.id }, { personId: caller.me.id, now: hand.now });
  return { id: made!.id };
});

export const changeOrder = command(
  { body: PutOrder, may: 'orders:edit', subject: rowIn(purchaseOrder, 'This order') },
  async (tx, caller, input, hand) => {
    const companyId = caller.company.id,
      { id } = hand.subject,
      before = said(await findOrder(tx, companyId, id));
    await tx.update(purchaseOrder).set(columnsOf(input)).where(eq(purchaseOrder.id, id));
    await keepLines(tx, companyId, id, input.lines);
    const changed = difference(before, said(await findOrder(tx, companyId, id)));
    if (changed) {
      hand.record({ subject: { type: 'order', id }, verb: 'changed', ...changed });
      await recheckBills(tx, caller.company, { orderId: id }, { personId: caller.me.id, now: hand.now });
    }
    return { id };
  },
);
