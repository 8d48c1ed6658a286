import { and, asc, desc, eq, inArray, ne, sql } from 'drizzle-orm';
import { orderNumbersIn } from '@ledgerline/core/matching';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { item, orderLine, purchaseOrder, supplier } from '../db/schema/index.ts';

/** So many lines of a supplier's open orders are looked through where the page names none. */
const most = 2000;

export interface Candidate {
  l: typeof orderLine.$inferSelect;
  number: string;
  /** What else suppliers call the line's item. */
  also: string[];
}
/** Lines that a bill may be of: of the orders that its page names (`told`), or of all that are open with its supplier. */
export async function candidatesFor(
  db: Executor,
  companyId: string,
  supplierId: string,
  named: string | null,
): Promise<{ told: boolean; lines: Candidate[] }> {
  const numbers = named === null ? [] : orderNumbersIn(named);
  const find = async (byNumber: boolean): Promise<Candidate[]> => {
    const rows = await db
      .select({ l: orderLine, number: purchaseOrder.number, item: { code: item.code, name: item.name, alsoCalled: item.alsoCalled } })
      .from(orderLine)
      .leftJoin(item, eq(item.id, orderLine.itemId))
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
    return rows.map(({ item: of, ...row }) => ({
      ...row,
      also: of?.code ? [of.code, of.name ?? '', ...(of.alsoCalled ?? '').split(',')].map((n) => n.trim()).filter(Boolean) : [],
    }));
  };
  const told = numbers.length > 0 ? await find(true) : [];
  return told.length > 0 ? { told: true, lines: told } : { told: false, lines: await find(false) };
}

/**
 * A number on the page that is of no order with the bill's supplier: whose order it is, where it is another's. Null where it is one, where
 * the page names none, and where nothing was ever ordered from the supplier.
 */
export async function unknownOrder(
  db: Executor,
  companyId: string,
  supplierId: string,
  named: string | null,
): Promise<{ number: string; of: string | null } | null> {
  const numbers = named === null ? [] : orderNumbersIn(named);
  if (named === null || numbers.length === 0) return null;
  const [own] = await db
    .select({
      known: sql<boolean | null>`bool_or(${col(purchaseOrder.plainNumber)} = any(${sql.param(numbers)}))`,
    })
    .from(purchaseOrder)
    .where(and(eq(purchaseOrder.companyId, companyId), eq(purchaseOrder.supplierId, supplierId)));
  if (!own || own.known !== false) return null;
  const [other] = await db
    .select({ name: supplier.name })
    .from(purchaseOrder)
    .innerJoin(supplier, eq(supplier.id, purchaseOrder.supplierId))
    .where(
      and(eq(purchaseOrder.companyId, companyId), ne(purchaseOrder.supplierId, supplierId), inArray(purchaseOrder.plainNumber, numbers)),
    )
    .limit(1);
  return { number: named, of: other?.name ?? null };
}
