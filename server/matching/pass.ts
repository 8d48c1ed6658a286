import { eq } from 'drizzle-orm';
import { isGoods } from '@ledgerline/core/bills';
import type { Exception } from '@ledgerline/core/checks';
import { dec } from '@ledgerline/core/money';
import { taxRulesOf } from '../bills/checking.ts';
import { linesOf, type BillRecord } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { bill } from '../db/schema/index.ts';
import { record as log } from '../events/record.ts';
import { comparedWith } from './facts.ts';
import { matchingRules } from './rules.ts';

/**
 * Sends a bill that has just been read on to approval by itself, where the company lets it: nothing is open or unsure, its page names the
 * order, and each of its rows costs to the cent what was ordered and bills no more than was ordered and has come. Marked so, and in the
 * event log. Part of the caller's transaction.
 */
export async function passAlone(tx: Executor, record: BillRecord, open: readonly Exception[], now: Date): Promise<boolean> {
  if (open.length > 0 || record.unsure.length > 0 || record.kind !== 'invoice' || !record.purchaseOrder || record.addressedTo) return false;
  if (!(await matchingRules(tx, record.companyId)).passes) return false;
  const lines = (await linesOf(tx, record.id)).filter((l) => l.kind !== 'text'),
    rules = (await taxRulesOf(tx, record.companyId))(record.issueDate ?? now.toISOString().slice(0, 10));
  const { compared, matches } = await comparedWith(tx, record, lines, rules);
  // Tolerances are for people to look away; what goes on by itself is exact.
  const exact = compared.every((c) => {
    const all = dec(c.billed).plus(c.onBill);
    const should = dec(c.unitPrice).times(c.onBill),
      is = c.price === null ? null : dec(c.price).times(c.onBill);
    return is !== null && is.minus(should).abs().lte('0.01') && all.lte(c.ordered) && (c.received === null || all.lte(c.received));
  });
  const whole = lines.length > 0 && lines.every((l) => isGoods(l.kind) && matches.some((m) => m.billLineId === l.id && m.orderLineId));
  if (!whole || !exact) return false;
  const orders = [...new Set(compared.map((c) => c.order))].join(', ');
  await tx.update(bill).set({ stage: 'coded', passedAlone: true, sentAt: now }).where(eq(bill.id, record.id));
  log(tx, {
    companyId: record.companyId,
    subject: { type: 'bill', id: record.id },
    verb: 'coded',
    by: { personId: null, source: 'matching' },
    at: now,
    note: `All of it is as ordered: ${orders}`,
    before: { stage: record.stage },
    after: { stage: 'coded' },
  });
  return true;
}
