import { and, eq, inArray, ne, sql } from 'drizzle-orm';
import type { OrderedLine } from '@ledgerline/core/matching';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { bill, lineMatch, orderLine, purchaseOrder, receiptLine } from '../db/schema/index.ts';
import { editable, type BillRecord } from '../bills/store.ts';

/** What came of lines of orders, by line. */
export async function receivedOf(db: Executor, lineIds: readonly string[]): Promise<Map<string, string>> {
  if (lineIds.length === 0) return new Map();
  const rows = await db
    .select({ id: receiptLine.orderLineId, quantity: sql<string>`sum(${col(receiptLine.quantity)})::text` })
    .from(receiptLine)
    .where(inArray(receiptLine.orderLineId, [...lineIds]))
    .groupBy(receiptLine.orderLineId);
  return new Map(rows.map((r) => [r.id, r.quantity]));
}

/**
 * What bills bill of lines of orders, by line; credit notes take away. Beside a bill: the others that have gone on, and of those in hand
 * the invoices that came before it, so that of two bills of the same thing one at least says so. A credit note in hand gives nothing back yet.
 */
export async function billedOf(db: Executor, lineIds: readonly string[], beside: BillRecord | null): Promise<Map<string, string>> {
  if (lineIds.length === 0) return new Map();
  const inHand = [...editable, 'set-aside'];
  const others = beside
    ? and(
        ne(bill.id, beside.id),
        sql`(${bill.stage} not in ${inHand} or (${bill.kind} <> 'credit-note' and (${bill.createdAt}, ${bill.id}) < (${beside.createdAt.toISOString()}::timestamptz, ${beside.id}::uuid)))`,
      )
    : undefined;
  const rows = await db
    .select({
      id: lineMatch.orderLineId,
      quantity: sql<string>`sum(case when ${col(bill.kind)} = 'credit-note' then -${col(lineMatch.quantity)} else ${col(lineMatch.quantity)} end)::text`,
    })
    .from(lineMatch)
    .innerJoin(bill, eq(bill.id, lineMatch.billId))
    .where(and(inArray(lineMatch.orderLineId, [...lineIds]), ne(bill.stage, 'discarded'), others))
    .groupBy(lineMatch.orderLineId);
  return new Map(rows.map((r) => [r.id!, r.quantity]));
}

/** Lines of orders as they stand beside a bill (or beside all bills), with the order that they are of. */
export async function statesOf(
  db: Executor,
  lineIds: readonly string[],
  beside: BillRecord | null,
): Promise<(OrderedLine & { orderId: string; currency: string; active: boolean })[]> {
  if (lineIds.length === 0) return [];
  const rows = await db
    .select({ l: orderLine, o: purchaseOrder })
    .from(orderLine)
    .innerJoin(purchaseOrder, eq(purchaseOrder.id, orderLine.orderId))
    .where(inArray(orderLine.id, [...lineIds]))
    .orderBy(purchaseOrder.number, orderLine.position);
  const received = await receivedOf(db, lineIds),
    billed = await billedOf(db, lineIds, beside);
  return rows.map(({ l, o }) => ({
    id: l.id,
    order: o.number,
    orderId: o.id,
    place: l.position + 1,
    description: l.description,
    unit: l.unit,
    unitPrice: l.unitPrice,
    ordered: l.quantity,
    received: l.needsReceipt ? (received.get(l.id) ?? '0') : null,
    billed: billed.get(l.id) ?? '0',
    currency: o.currency,
    active: o.active,
  }));
}
