import { and, desc, eq, gt, gte, inArray, lte, or, sql, type SQL } from 'drizzle-orm';
import { codingOf, type Coding } from '@ledgerline/core/bills';
import { dec, fixed } from '@ledgerline/core/money';
import type { GoodsQuery, GoodsRow } from '@ledgerline/contract';
import { rateOn } from '../bills/store.ts';
import { namedIn, shownOf } from '../coding/named.ts';
import { placesOf } from '../orders/places.ts';
import type { Executor } from '../db/client.ts';
import { like } from '../db/column.ts';
import { goodsReceipt, orderLine, purchaseOrder, receiptLine, supplier } from '../db/schema/index.ts';

type Own = { id: string; baseCurrency: string };
/** Goods that came, and what their part of a charge is coded with. */
export type Goods = GoodsRow & { coding: Coding };

async function goodsWhere(db: Executor, own: Own, where: SQL | undefined, limit: number): Promise<Goods[]> {
  const rows = await db
    .select({ r: receiptLine, g: goodsReceipt, l: orderLine, o: purchaseOrder, supplier: supplier.name })
    .from(receiptLine)
    .innerJoin(goodsReceipt, eq(goodsReceipt.id, receiptLine.receiptId))
    .innerJoin(orderLine, eq(orderLine.id, receiptLine.orderLineId))
    .innerJoin(purchaseOrder, eq(purchaseOrder.id, orderLine.orderId))
    .innerJoin(supplier, eq(supplier.id, purchaseOrder.supplierId))
    // What went back bears nothing.
    .where(and(eq(receiptLine.companyId, own.id), gt(receiptLine.quantity, '0'), where))
    .orderBy(desc(goodsReceipt.receivedOn), purchaseOrder.number, orderLine.position, receiptLine.id)
    .limit(limit);
  const rates = new Map<string, string | null>();
  for (const { o, g } of rows) {
    const key = `${o.currency} ${g.receivedOn}`;
    if (!rates.has(key)) rates.set(key, await rateOn(db, own.id, o.currency, own.baseCurrency, g.receivedOn));
  }
  const places = await placesOf(db, rows.map(({ l }) => l)); // prettier-ignore
  const codings = rows.map(({ l }) => places.get(l.id) ?? codingOf({}));
  const named = await namedIn(db, own.id, codings);
  return rows.map(({ r, g, l, o, supplier: name }, i) => {
    const rate = rates.get(`${o.currency} ${g.receivedOn}`);
    // Tax is the charge's own.
    const coding = { ...codings[i]!, taxCodeId: null };
    return {
      id: r.id,
      receipt: g.number,
      receivedOn: g.receivedOn,
      orderId: o.id,
      order: o.number,
      supplier: name,
      code: l.code,
      description: l.description,
      quantity: r.quantity,
      unit: l.unit,
      value: rate ? fixed(dec(r.quantity).times(l.unitPrice).times(rate), own.baseCurrency) : null,
      weight: l.weight,
      volume: l.volume,
      shown: coding.accountId ? shownOf(coding, named) : [],
      coding,
    };
  });
}

/** Goods by what is known of them, those that came last first; at most fifty. */
export async function findGoods(db: Executor, own: Own, { q = '', from, to }: GoodsQuery): Promise<GoodsRow[]> {
  const words = q.trim().split(/\s+/).filter(Boolean);
  const found = await goodsWhere(
    db,
    own,
    and(
      from ? gte(goodsReceipt.receivedOn, from) : undefined,
      to ? lte(goodsReceipt.receivedOn, to) : undefined,
      // Each word somewhere.
      ...words.map((word) =>
        or(
          ...[purchaseOrder.number, goodsReceipt.number, supplier.name, orderLine.code, orderLine.description].map(
            (column) => sql`${column} ilike ${like(word)}`,
          ),
        ),
      ),
    ),
    50,
  );
  return found.map(shownGoods);
}
/** Goods by the ids of their receipts' lines; those of another company are left out. */
export const goodsById = (db: Executor, own: Own, ids: readonly string[]): Promise<Goods[]> =>
  ids.length === 0 ? Promise.resolve([]) : goodsWhere(db, own, inArray(receiptLine.id, [...ids]), ids.length);

/** What came of the lines of orders that a bill bills. */
export async function goodsOfBill(db: Executor, own: Own, billId: string): Promise<GoodsRow[]> {
  const billed = sql`${receiptLine.orderLineId} in (select m.order_line_id from line_match m where m.bill_id = ${billId} and m.order_line_id is not null)`;
  return (await goodsWhere(db, own, billed, 200)).map(shownGoods);
}
const shownGoods = ({ coding: _, ...row }: Goods): GoodsRow => row;
