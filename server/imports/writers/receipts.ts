import { and, eq, sql } from 'drizzle-orm';
import { keyOf, lists } from '@ledgerline/core/imports';
import { dec } from '@ledgerline/core/money';
import { goodsReceipt, orderLine, purchaseOrder, receiptLine } from '../../db/schema/index.ts';
import { Refusal } from '../../http/problems.ts';
import { receivedOf } from '../../matching/states.ts';
import { ordersNamed } from './ids.ts';
import { idOf, text, type Current, type Ids, type Writer } from './types.ts';

const spec = lists.receipts;
const lineKey = (order: unknown, line: unknown): string => `${text(order)!.toLowerCase()} ${text(line)}`;
const noteKey = (number: unknown, order: unknown): string => `${text(number)!.toLowerCase()}\n${text(order)!.toLowerCase()}`;
const lineOf = (ids: Ids, v: Record<string, unknown>): string | null => idOf(ids, 'order-line', lineKey(v['order'], v['line']));

/** A row is what came of an order's line by a delivery note; below zero it went back. What is booked is never changed: only added to. */
export const receiptWriter: Writer = {
  spec,
  // Orders are held meanwhile, so that nobody books the same goods back.
  table: purchaseOrder,
  subject: 'receipt',
  noted: (v) => `${text(v['number'])}: ${text(v['order'])}, line ${text(v['line'])}`,
  fresh: () => ({}),
  async current(tx, companyId) {
    const rows = await tx
      .select({
        id: goodsReceipt.id,
        number: goodsReceipt.number,
        receivedOn: goodsReceipt.receivedOn,
        order: purchaseOrder.number,
        position: orderLine.position,
        quantity: receiptLine.quantity,
      }) // prettier-ignore
      .from(receiptLine)
      .innerJoin(goodsReceipt, eq(goodsReceipt.id, receiptLine.receiptId))
      .innerJoin(orderLine, eq(orderLine.id, receiptLine.orderLineId))
      .innerJoin(purchaseOrder, eq(purchaseOrder.id, goodsReceipt.orderId))
      .where(eq(goodsReceipt.companyId, companyId))
      .orderBy(goodsReceipt.at, goodsReceipt.id);
    const found = new Map<string, Current>();
    // The same note may have been booked in parts.
    for (const { id, position, quantity, ...of } of rows) {
      const values = { ...of, line: String(position + 1) },
        key = keyOf(spec, values),
        before = found.get(key)?.values['quantity'];
      found.set(key, {
        id,
        values: {
          ...values,
          quantity: dec(quantity)
            .plus(text(before) ?? 0)
            .toFixed(),
        },
      });
    }
    return found;
  },
  async ids(tx, companyId) {
    const rows = await tx
      .select({ order: purchaseOrder.number, orderId: purchaseOrder.id, line: orderLine.position, lineId: orderLine.id })
      .from(purchaseOrder)
      .innerJoin(orderLine, eq(orderLine.orderId, purchaseOrder.id))
      .where(eq(purchaseOrder.companyId, companyId));
    const booked = await tx
      .select({ number: goodsReceipt.number, day: goodsReceipt.receivedOn, order: purchaseOrder.number })
      .from(goodsReceipt)
      .innerJoin(purchaseOrder, eq(purchaseOrder.id, goodsReceipt.orderId))
      .where(eq(goodsReceipt.companyId, companyId));
    return {
      'receipt-day': new Map(booked.map((r) => [noteKey(r.number, r.order), r.day])),
      order: new Map(rows.map((r) => [r.order.toLowerCase(), r.orderId])),
      'order-line': new Map(rows.map((r) => [lineKey(r.order, String(r.line + 1)), r.lineId])),
    };
  },
  doubts(values, _, own, ids) {
    const wrong = (sentence: string) => [{ severity: 'error' as const, sentence }];
    if (!lineOf(ids, values)) return wrong(`Order ${text(values['order'])} has no line ${text(values['line'])}.`);
    if (dec(text(values['quantity'])!).isZero()) return wrong('Leave a line out that nothing came of.');
    const day = ids['receipt-day']?.get(noteKey(values['number'], values['order']));
    if (day && day !== values['receivedOn'])
      return wrong(`Delivery note ${text(values['number'])} of ${text(values['order'])} is booked already for ${day}.`);
    if (own && !dec(text(own.values['quantity'])!).eq(text(values['quantity'])!))
      return wrong(
        `This is booked already with ${text(own.values['quantity'])}, and stays. Book what came beside it under a note of its own.`,
      );
    return [];
  },
  orders: (tx, companyId, rows) =>
    ordersNamed(
      tx,
      companyId,
      rows.map((r) => r.values['order']),
    ),
  async put(tx, companyId, rows, ids, by) {
    const notes = new Map<string, (typeof rows)[number][]>();
    for (const row of rows) {
      const key = noteKey(row.values['number'], row.values['order']);
      (notes.get(key) ?? notes.set(key, []).get(key)!).push(row);
    }
    for (const own of notes.values()) {
      const { values: v } = own[0]!,
        orderId = idOf(ids, 'order', v['order'])!;
      // A note that is booked already in part gets its further lines.
      const [there] = await tx
        .select({ id: goodsReceipt.id })
        .from(goodsReceipt)
        .where(and(eq(goodsReceipt.orderId, orderId), sql`lower(${goodsReceipt.number}) = ${text(v['number'])!.toLowerCase()}`));
      const [made] = there
        ? [there]
        : await tx
            .insert(goodsReceipt)
            .values({
              companyId,
              orderId,
              number: text(v['number'])!,
              receivedOn: text(v['receivedOn'])!,
              note: `From ${by.file}`,
              personId: by.personId,
              at: by.at,
            })
            .returning({ id: goodsReceipt.id });
      await tx.insert(receiptLine).values(
        own.map(({ values }) => ({
          companyId,
          receiptId: made!.id,
          orderLineId: lineOf(ids, values)!,
          quantity: text(values['quantity'])!,
        })),
      );
    }
    // Only at the end: what went back may stand before what came.
    const lines = rows.map((r) => lineOf(ids, r.values)!);
    const received = await receivedOf(tx, [...new Set(lines)]);
    const short = rows.find((_, i) => dec(received.get(lines[i]!) ?? '0').lt(0));
    if (short)
      throw new Refusal(
        422,
        `More of line ${text(short.values['line'])} of ${text(short.values['order'])} would go back than has come. Nothing was booked.`,
      );
  },
};
