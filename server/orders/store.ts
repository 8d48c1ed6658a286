import { and, asc, desc, eq, inArray, ne, or, sql } from 'drizzle-orm';
import type { Order, OrderRow, OrdersQuery } from '@ledgerline/contract';
import { dec, fixed } from '@ledgerline/core/money';
import { givenOf, namedIn, shownOf } from '../coding/named.ts';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { bill, item, lineMatch, orderLine, purchaseOrder, supplier } from '../db/schema/index.ts';
import { billedOf, receivedOf } from '../matching/states.ts';
import { receiptsOf } from '../receipts/store.ts';
import { notFound } from '../http/problems.ts';

const columns = {
  id: purchaseOrder.id,
  number: purchaseOrder.number,
  supplierId: purchaseOrder.supplierId,
  supplier: supplier.name,
  orderDate: purchaseOrder.orderDate,
  currency: purchaseOrder.currency,
  note: purchaseOrder.note,
  active: purchaseOrder.active,
  net: sql<string>`(select coalesce(sum(l.quantity * l.unit_price), 0)::text from order_line l where l.order_id = ${col(purchaseOrder.id)})`,
};

/** One page of the company's orders, the newest first. */
export async function listOrders(
  db: Executor,
  companyId: string,
  { q = '', supplierId, open }: Pick<OrdersQuery, 'q' | 'supplierId' | 'open'>,
  after: [day: string, id: string] | null,
  limit: number,
): Promise<OrderRow[]> {
  const words = q.trim();
  const rows = await db
    .select({ ...columns, lines: sql<number>`(select count(*)::int from order_line l where l.order_id = ${col(purchaseOrder.id)})` })
    .from(purchaseOrder)
    .innerJoin(supplier, eq(supplier.id, purchaseOrder.supplierId))
    .where(
      and(
        eq(purchaseOrder.companyId, companyId),
        supplierId ? eq(purchaseOrder.supplierId, supplierId) : undefined,
        open ? eq(purchaseOrder.active, true) : undefined,
        words
          ? or(
              sql`${purchaseOrder.number} ilike ${like(words)}`,
              sql`${supplier.name} ilike ${like(words)}`,
              sql`exists (select 1 from order_line l where l.order_id = ${purchaseOrder.id} and l.description ilike ${like(words)})`,
            )
          : undefined,
        after ? sql`(${purchaseOrder.orderDate}, ${purchaseOrder.id}) < (${after[0]}::date, ${after[1]}::uuid)` : undefined,
      ),
    )
    .orderBy(desc(purchaseOrder.orderDate), desc(purchaseOrder.id))
    .limit(limit);
  const come = await howFar(db, rows.map((r) => r.id)); // prettier-ignore
  return rows.map((o) => ({
    ...o,
    net: fixed(o.net, o.currency),
    ...(come.get(o.id) ?? { received: 'none' as const, billed: 'none' as const }),
  }));
}

/** How far orders have come: whether none, a part or all of their lines was received and billed. */
async function howFar(db: Executor, ids: readonly string[]): Promise<Map<string, Pick<OrderRow, 'received' | 'billed'>>> {
  if (ids.length === 0) return new Map();
  const lines = await db.select().from(orderLine).where(inArray(orderLine.orderId, [...ids])); // prettier-ignore
  const lineIds = lines.map((l) => l.id);
  const received = await receivedOf(db, lineIds),
    billed = await billedOf(db, lineIds, null);
  const state = (own: typeof lines, of: ReadonlyMap<string, string>): OrderRow['received'] => {
    const done = own.filter((l) => dec(of.get(l.id) ?? '0').gte(l.quantity)).length;
    return done === own.length ? 'all' : own.some((l) => dec(of.get(l.id) ?? '0').gt(0)) ? 'part' : 'none';
  };
  return new Map(
    ids.map((id) => {
      const own = lines.filter((l) => l.orderId === id);
      return [id, { received: state(own, received), billed: state(own, billed) }];
    }),
  );
}

/** The bills of an order, the newest first, with what each bills of it at the order's prices. */
async function billsOf(db: Executor, orderId: string, currency: string): Promise<Order['bills']> {
  const rows = await db
    .select({
      id: bill.id,
      kind: bill.kind,
      invoiceNumber: bill.invoiceNumber,
      issueDate: bill.issueDate,
      stage: bill.stage,
      net: sql<string>`sum(${col(lineMatch.quantity)} * ${col(orderLine.unitPrice)})::text`,
    })
    .from(lineMatch)
    .innerJoin(orderLine, eq(orderLine.id, lineMatch.orderLineId))
    .innerJoin(bill, eq(bill.id, lineMatch.billId))
    .where(and(eq(orderLine.orderId, orderId), ne(bill.stage, 'discarded')))
    .groupBy(bill.id)
    .orderBy(desc(bill.createdAt), desc(bill.id))
    .limit(200);
  return rows.map((r) => ({ ...r, net: fixed(r.kind === 'credit-note' ? dec(r.net).negated().toFixed() : r.net, currency) }));
}

/** An order with its lines. Not found outside the company. */
export async function findOrder(db: Executor, companyId: string, id: string): Promise<Order> {
  const [order] = await db
    .select(columns)
    .from(purchaseOrder)
    .innerJoin(supplier, eq(supplier.id, purchaseOrder.supplierId))
    .where(and(eq(purchaseOrder.companyId, companyId), eq(purchaseOrder.id, id)));
  if (!order) throw notFound('This order');
  const rows = await db
    .select({
      l: orderLine,
      item: sql<string | null>`${col(item.code)} || ' ' || ${col(item.name)}`,
      net: sql<string>`(${col(orderLine.quantity)} * ${col(orderLine.unitPrice)})::text`,
    })
    .from(orderLine)
    .leftJoin(item, eq(item.id, orderLine.itemId))
    .where(eq(orderLine.orderId, id))
    .orderBy(asc(orderLine.position));
  const named = await namedIn(
    db,
    companyId,
    rows.map((r) => r.l),
  );
  const ids = rows.map((r) => r.l.id);
  const received = await receivedOf(db, ids),
    billed = await billedOf(db, ids, null);
  return {
    ...order,
    receipts: await receiptsOf(db, id),
    bills: await billsOf(db, id, order.currency),
    net: fixed(order.net, order.currency),
    lines: rows.map(({ l, item: called, net }) => ({
      id: l.id,
      itemId: l.itemId,
      item: called,
      code: l.code,
      description: l.description,
      quantity: l.quantity,
      unit: l.unit,
      unitPrice: l.unitPrice,
      weight: l.weight,
      volume: l.volume,
      needsReceipt: l.needsReceipt,
      received: received.get(l.id) ?? '0',
      billed: billed.get(l.id) ?? '0',
      net: fixed(net, order.currency),
      coding: givenOf(l),
      shown: shownOf(l, named),
    })),
  };
}
