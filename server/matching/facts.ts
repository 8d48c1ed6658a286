import { isGoods } from '@ledgerline/core/bills';
import { compareWithOrder, type Compared } from '@ledgerline/core/matching';
import { dec } from '@ledgerline/core/money';
import { eq } from 'drizzle-orm';
import type { Facts } from '@ledgerline/core/checks';
import type { Executor } from '../db/client.ts';
import { company } from '../db/schema/index.ts';
import type { PostingLine } from '@ledgerline/core/posting';
import type { BillRecord } from '../bills/store.ts';
import { unknownOrder } from './candidates.ts';
import { likelyOrder, matchesOf, netAmount, type LineRecord } from './rebind.ts';
import { statesOf } from './states.ts';

/** A bill beside the lines of orders that it bills. */
export async function comparedWith(
  db: Executor,
  record: BillRecord,
  lines: readonly LineRecord[],
  rules: ReadonlyMap<string, PostingLine['rule']>,
): Promise<{
  compared: (Compared & { orderId: string; currency: string; active: boolean })[];
  matches: Awaited<ReturnType<typeof matchesOf>>;
}> {
  const matches = await matchesOf(db, record.id);
  const bound = matches.flatMap((m) => (m.orderLineId ? [{ ...m, orderLineId: m.orderLineId }] : []));
  if (bound.length === 0) return { compared: [], matches };
  const states = await statesOf(db, [...new Set(bound.map((m) => m.orderLineId))], record);
  const [own] = await db.select({ rules: company.matching }).from(company).where(eq(company.id, record.companyId));
  const sign = record.kind === 'credit-note' ? -1 : 1;
  const billed = bound.map((m) => {
    const line = lines.find((l) => l.id === m.billLineId)!;
    const all = bound.filter((o) => o.billLineId === m.billLineId).reduce((sum, o) => sum.plus(o.quantity), dec(0));
    const amount = netAmount(line, record, rules);
    // A row that bills several lines costs each its share.
    const share = amount === null ? null : all.isZero() ? dec(amount) : dec(amount).times(m.quantity).div(all);
    return {
      row: m.billLineId,
      line: m.orderLineId,
      quantity: dec(m.quantity).times(sign).toFixed(),
      amount: share === null ? null : share.times(sign).toFixed(),
    };
  });
  const compared = compareWithOrder(states, billed, own!.rules);
  const byId = new Map(states.map((s) => [s.id, s]));
  return { compared: compared.map((c) => ({ ...byId.get(c.id)!, ...c })), matches };
}

/** What the checks have to know of a bill's orders. */
export async function orderFacts(
  db: Executor,
  record: BillRecord,
  lines: readonly LineRecord[],
  rules: ReadonlyMap<string, PostingLine['rule']>,
): Promise<Facts['orders']> {
  const nothing = { unknown: null, closed: [], otherCurrency: null, compared: [], beside: [] };
  if (!record.supplierId) return nothing;
  const named = record.withoutOrder ? null : await unknownOrder(db, record.companyId, record.supplierId, record.purchaseOrder);
  const unknown = named && { ...named, maybe: await likelyOrder(db, record, lines, rules) };
  const { compared, matches } = await comparedWith(db, record, lines, rules);
  if (compared.length === 0) return { ...nothing, unknown };
  const other = compared.find((c) => c.currency !== record.currency);
  return {
    unknown,
    closed: [...new Set(compared.filter((c) => !c.active).map((c) => c.order))],
    otherCurrency: other ? { order: other.order, currency: other.currency } : null,
    compared: other ? compared.map((c) => ({ ...c, overPrice: [] })) : compared,
    beside: lines
      .filter((l) => isGoods(l.kind) && l.amount !== null && !dec(l.amount).isZero() && !matches.some((m) => m.billLineId === l.id))
      .map((l) => l.id),
  };
}
