import { isGoods } from '@ledgerline/core/bills';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { bindRows, quantityOf, type Bound, type LineToBind, type RowToBind } from '@ledgerline/core/matching';
import { dec, decOrNull, sum } from '@ledgerline/core/money';
import { netOf } from '@ledgerline/core/tax';
import type { PostingLine } from '@ledgerline/core/posting';
import type { Executor } from '../db/client.ts';
import { lineMatch, orderLine } from '../db/schema/index.ts';
import { editable, type BillRecord, type linesOf } from '../bills/store.ts';
import { candidatesFor, type Candidate } from './candidates.ts';
import { billedOf } from './states.ts';

export type LineRecord = Awaited<ReturnType<typeof linesOf>>[number];
type Rules = ReadonlyMap<string, PostingLine['rule']>;

/** A row's amount without tax; null where it has none. */
export function netAmount(line: LineRecord, record: BillRecord, rules: Rules): string | null {
  const amount = decOrNull(line.amount);
  if (!amount) return null;
  const rule = line.taxCodeId ? rules.get(line.taxCodeId) : undefined;
  return rule ? netOf({ amount, rule }, record.pricesIncludeTax, record.currency).toFixed() : amount.toFixed();
}

/** What a row says, for the matching: its price after its discount, as its amount has it. */
const rowOf = (line: LineRecord, record: BillRecord, rules: Rules): RowToBind => ({
  id: line.id,
  code: line.code,
  description: line.description,
  quantity: line.quantity,
  unitPrice: line.unitPrice,
  priceQuantity: line.priceQuantity,
  unit: line.unit,
  amount: netAmount(line, record, rules),
});

const lineToBind = ({ l, also }: Candidate, billed: ReadonlyMap<string, string>) => ({
  id: l.id,
  code: l.code,
  description: l.description,
  quantity: l.quantity,
  unitPrice: l.unitPrice,
  unit: l.unit,
  also,
  open: dec(l.quantity)
    .minus(billed.get(l.id) ?? '0')
    .toFixed(),
});

const stillOpen = (lines: readonly LineToBind[]): LineToBind[] => lines.filter((l) => dec(l.open).gt(0));

/**
 * A bill as one of orders that its page does not name, where all of its rows are in lines that are still open, surely, at their prices
 * and no more than is open; null else. Less would make an order's bill of what only looks like it.
 */
function whole(rows: readonly RowToBind[], among: readonly LineToBind[]): Bound[] | null {
  const lines = stillOpen(among),
    bound = bindRows(rows, lines);
  const all = rows.every((row) => bound.some((b) => b.row === row.id && b.score >= 0.75 && b.why.includes('same price')));
  const room = lines.every((l) => sum(bound.filter((b) => b.line === l.id).map((b) => dec(b.quantity))).lte(l.open));
  return all && room ? bound : null;
}

/** The one open order that all rows of a bill are of, whatever its page says; null where there is none. */
export async function likelyOrder(db: Executor, record: BillRecord, lines: readonly LineRecord[], rules: Rules): Promise<string | null> {
  const rows = lines.filter((l) => isGoods(l.kind) && l.amount !== null).map((l) => rowOf(l, record, rules));
  if (!record.supplierId || rows.length === 0) return null;
  const { lines: candidates } = await candidatesFor(db, record.companyId, record.supplierId, null);
  const billed = await billedOf(db, candidates.map((c) => c.l.id), record); // prettier-ignore
  const bound = whole(rows, candidates.map((c) => lineToBind(c, billed))); // prettier-ignore
  const orders = new Set(bound?.map((b) => candidates.find((c) => c.l.id === b.line)!.number));
  return orders.size === 1 ? [...orders][0]! : null;
}

/** A match that a person made, with what its row says now. */
async function handQuantities(tx: Executor, hand: (typeof lineMatch.$inferSelect)[], rows: ReadonlyMap<string, RowToBind>): Promise<void> {
  const ids = hand.flatMap((m) => m.orderLineId ?? []);
  const lines = ids.length > 0 ? await tx.select().from(orderLine).where(inArray(orderLine.id, ids)) : [];
  for (const match of hand) {
    const row = rows.get(match.billLineId),
      line = lines.find((l) => l.id === match.orderLineId);
    if (!row || !line) continue;
    const quantity = quantityOf(row, { ...line, open: line.quantity })
      .abs()
      .toDecimalPlaces(6);
    if (!quantity.eq(match.quantity)) await tx.update(lineMatch).set({ quantity: quantity.toFixed() }).where(eq(lineMatch.id, match.id));
  }
}

/**
 * Finds anew which lines of orders a bill under review bills, and keeps it. What a person said of a row stays. Part of the caller's
 * transaction.
 */
export async function rebind(tx: Executor, record: BillRecord, lines: readonly LineRecord[], rules: Rules): Promise<void> {
  if (![...editable, 'set-aside'].includes(record.stage)) return;
  const kept = await tx.select().from(lineMatch).where(eq(lineMatch.billId, record.id));
  const hand = kept.filter((m) => m.how === 'hand'),
    found = kept.filter((m) => m.how === 'found');
  const goods = lines.filter((l) => isGoods(l.kind) && l.amount !== null).map((l) => rowOf(l, record, rules));
  const free = goods.filter((row) => !hand.some((m) => m.billLineId === row.id));
  await handQuantities(tx, hand, new Map(goods.map((g) => [g.id, g])));
  let bound: Bound[] = [];
  if (!record.withoutOrder && record.supplierId && free.length > 0) {
    const { told, lines: candidates } = await candidatesFor(tx, record.companyId, record.supplierId, record.purchaseOrder);
    if (candidates.length > 0) {
      const billed = await billedOf(tx, candidates.map((c) => c.l.id), record); // prettier-ignore
      for (const m of hand)
        if (m.orderLineId) billed.set(m.orderLineId, dec(billed.get(m.orderLineId) ?? '0').plus(m.quantity).toFixed()); // prettier-ignore
      const open = candidates.map((c) => lineToBind(c, billed));
      // A page that names an order which is not there means that one, and no other: it is only asked.
      if (told) bound = bindRows(free, open);
      else if (record.purchaseOrder === null) bound = hand.length > 0 ? bindRows(free, stillOpen(open)) : (whole(free, open) ?? []);
    }
  }
  const same = (m: (typeof found)[number], b: Bound) => m.billLineId === b.row && m.orderLineId === b.line;
  const gone = found.filter((m) => !bound.some((b) => same(m, b))).map((m) => m.id);
  if (gone.length > 0) await tx.delete(lineMatch).where(and(eq(lineMatch.billId, record.id), inArray(lineMatch.id, gone)));
  const fresh = bound.filter((b) => !found.some((m) => same(m, b)));
  if (fresh.length > 0)
    await tx.insert(lineMatch).values(
      fresh.map(({ row, line, quantity, why }) => ({
        id: v7(),
        companyId: record.companyId,
        billId: record.id,
        billLineId: row,
        orderLineId: line,
        quantity,
        why,
        how: 'found',
      })),
    );
  for (const b of bound) {
    const was = found.find((m) => same(m, b));
    if (was && (!dec(was.quantity).eq(b.quantity) || was.why !== b.why))
      await tx.update(lineMatch).set({ quantity: b.quantity, why: b.why }).where(eq(lineMatch.id, was.id));
  }
}

/** What a bill's rows bill of orders, as it is kept. */
export const matchesOf = (db: Executor, billId: string) =>
  db
    .select()
    .from(lineMatch)
    .where(eq(lineMatch.billId, billId))
    .orderBy(sql`${lineMatch.id}`);
