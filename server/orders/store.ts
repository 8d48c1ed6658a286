import { and, asc, desc, eq, or, sql } from 'drizzle-orm';
import type { Order, OrderRow, OrdersQuery } from '@ledgerline/contract';
import { fixed } from '@ledgerline/core/money';
import { givenOf, namedIn, shownOf } from '../coding/named.ts';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { item, orderLine, purchaseOrder, supplier } from '../db/schema/index.ts';
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
  return rows.map((o) => ({ ...o, net: fixed(o.net, o.currency) }));
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
  return {
    ...order,
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
      net: fixed(net, order.currency),
      coding: givenOf(l),
      shown: shownOf(l, named),
    })),
  };
}
