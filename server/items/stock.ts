import { and, eq, inArray, sql } from 'drizzle-orm';
import { itemOf } from '@ledgerline/core/coding';
import { dec } from '@ledgerline/core/money';
import type { Executor } from '../db/client.ts';
import { bill, billLine, item, itemReceipt } from '../db/schema/index.ts';
import { record, type Actor } from '../events/record.ts';
import { wordsOf } from './coding.ts';

/** Items that a company keeps in stock, with what says that a row is one of them. */
async function stockedItems(db: Executor, companyId: string) {
  const rows = await db
    .select()
    .from(item)
    .where(and(eq(item.companyId, companyId), eq(item.active, true), eq(item.stocked, true)));
  return rows.map((i) => ({ id: i.id, code: i.code, name: i.name, unit: i.unit, words: wordsOf(i) }));
}
type Stocked = Awaited<ReturnType<typeof stockedItems>>[number];
interface Row {
  id: string;
  code: string | null;
  description: string;
}

/** Which item kept in stock each row is, by the row; rows that are none are left out. */
export async function stockOf(db: Executor, companyId: string, rows: readonly Row[]): Promise<Map<string, Stocked>> {
  const items = rows.length > 0 ? await stockedItems(db, companyId) : [];
  if (items.length === 0) return new Map();
  return new Map(
    rows.flatMap(({ id, code, description }) => {
      const found = itemOf({ supplierId: null, code, description }, items);
      return found ? [[id, found] as const] : [];
    }),
  );
}

/**
 * Books what posted bills bought into stock: a receipt for each row of stock, the other way round for credit notes. Rows of orders have
 * their own receipts. Part of the caller's transaction.
 */
export async function bookBought(tx: Executor, companyId: string, billIds: readonly string[], by: Actor, at: Date): Promise<void> {
  const rows = await tx
    .select({ l: billLine, bill })
    .from(billLine)
    .innerJoin(bill, eq(bill.id, billLine.billId))
    .where(
      and(
        inArray(billLine.billId, [...billIds]),
        eq(billLine.kind, 'stock'),
        sql`not exists (select 1 from line_match m where m.bill_line_id = ${billLine.id} and m.order_line_id is not null)`,
      ),
    );
  const items = await stockOf(
    tx,
    companyId,
    rows.map((r) => r.l),
  );
  const booked = rows.flatMap(({ l, bill: of }) => {
    const one = items.get(l.id);
    // The checks see to it that there are an item and a quantity.
    if (!one || l.quantity === null || dec(l.quantity).isZero()) return [];
    const quantity = of.kind === 'credit-note' ? dec(l.quantity).negated().toFixed() : l.quantity;
    const receivedOn = l.serviceDate ?? of.issueDate ?? at.toISOString().slice(0, 10);
    return [{ of, one, row: { companyId, itemId: one.id, billLineId: l.id, quantity, receivedOn, at } }];
  });
  if (booked.length === 0) return;
  await tx.insert(itemReceipt).values(booked.map((b) => b.row));
  for (const id of new Set(booked.map((b) => b.of.id)))
    record(tx, {
      companyId,
      subject: { type: 'bill', id },
      verb: 'received',
      by,
      at,
      note: booked
        .flatMap((b) => (b.of.id === id ? [`${dec(b.row.quantity).toFixed()} ${b.one.unit ?? '×'} ${b.one.name}`] : []))
        .join(', '),
    });
}
