import { asc, eq, inArray } from 'drizzle-orm';
import type { Receipt } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { goodsReceipt, person, receiptLine } from '../db/schema/index.ts';

/** The receipts of an order, the first first. */
export async function receiptsOf(db: Executor, orderId: string): Promise<Receipt[]> {
  const rows = await db
    .select({ r: goodsReceipt, person: person.name })
    .from(goodsReceipt)
    .leftJoin(person, eq(person.id, goodsReceipt.personId))
    .where(eq(goodsReceipt.orderId, orderId))
    .orderBy(asc(goodsReceipt.receivedOn), asc(goodsReceipt.at), asc(goodsReceipt.id));
  if (rows.length === 0) return [];
  const lines = await db
    .select()
    .from(receiptLine)
    .where(inArray(receiptLine.receiptId, rows.map((r) => r.r.id))); // prettier-ignore
  return rows.map(({ r, person: by }) => ({
    id: r.id,
    number: r.number,
    receivedOn: r.receivedOn,
    note: r.note,
    person: by,
    lines: lines.filter((l) => l.receiptId === r.id).map(({ orderLineId, quantity }) => ({ orderLineId, quantity })),
  }));
}
