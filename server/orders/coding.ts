import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import { matchOrderLines, orderNumbersIn, type Wanted } from '@ledgerline/core/matching';
import type { Ordered } from '@ledgerline/core/coding';
import type { Executor } from '../db/client.ts';
import { orderLine, purchaseOrder } from '../db/schema/index.ts';

/** So many lines of a supplier's open orders are looked through where the page names none. */
const most = 2000;

/**
 * What the rows of a bill are of orders, row by row, as far as they are: of the orders that the page names, or of all that are open with
 * its supplier. Lines without any coding say nothing.
 */
export async function orderedRows(
  db: Executor,
  companyId: string,
  supplierId: string | null,
  named: string | null,
  rows: readonly Omit<Wanted, 'id'>[],
): Promise<(Ordered | null)[]> {
  const nothing = rows.map(() => null);
  if (supplierId === null || rows.length === 0) return nothing;
  const numbers = named === null ? [] : orderNumbersIn(named);
  const find = (byNumber: boolean) =>
    db
      .select({ l: orderLine, number: purchaseOrder.number })
      .from(orderLine)
      .innerJoin(purchaseOrder, eq(purchaseOrder.id, orderLine.orderId))
      .where(
        and(
          eq(purchaseOrder.companyId, companyId),
          eq(purchaseOrder.supplierId, supplierId),
          byNumber ? inArray(purchaseOrder.plainNumber, numbers) : eq(purchaseOrder.active, true),
        ),
      )
      .orderBy(desc(purchaseOrder.orderDate), asc(orderLine.orderId), asc(orderLine.position))
      .limit(most);
  const told = numbers.length > 0 ? await find(true) : [];
  const lines = told.length > 0 ? told : await find(false);
  if (lines.length === 0) return nothing;
  const byId = new Map(lines.map((line) => [line.l.id, line]));
  const found = matchOrderLines(
    rows.map((row, i) => ({ ...row, id: String(i) })),
    lines.map(({ l: { id, code, description, quantity, unitPrice } }) => ({ id, code, description, quantity, unitPrice })),
  );
  const ordered: (Ordered | null)[] = [...nothing];
  for (const { row, line, score, why } of found) {
    const { l, number } = byId.get(line)!;
    // Where the page names no order, only what is very like counts.
    if (told.length > 0 || score >= 0.75) ordered[Number(row)] = { order: number, line: l.position + 1, why, coding: l };
  }
  return ordered;
}
