import type { BillOrders } from '@ledgerline/contract';
import { fixed, sum } from '@ledgerline/core/money';
import { taxRulesOf } from '../bills/checking.ts';
import { findBill, linesOf, type BillRecord } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { notFound } from '../http/problems.ts';
import { candidatesFor } from './candidates.ts';
import { debitOf } from './debit.ts';
import { comparedWith } from './facts.ts';
import { statesOf } from './states.ts';

/** Lines that a row may be said to be of. */
async function choicesOf(db: Executor, record: BillRecord): Promise<BillOrders['choices']> {
  if (!record.supplierId) return [];
  const { lines } = await candidatesFor(db, record.companyId, record.supplierId, record.purchaseOrder);
  const open = lines.slice(0, 200).map((c) => c.l.id);
  return (await statesOf(db, open, record)).map(({ currency: _c, active: _a, ...line }) => line);
}

/** A bill beside the orders that it bills. Not found outside the company. */
export async function billOrders(db: Executor, companyId: string, id: string, today: string): Promise<BillOrders> {
  const record = await findBill(db, companyId, id);
  if (!record) throw notFound('This bill');
  const lines = await linesOf(db, id),
    rules = (await taxRulesOf(db, companyId))(record.issueDate ?? today);
  const { compared, matches } = await comparedWith(db, record, lines, rules);
  const debit = debitOf(record, lines, compared);
  return {
    withoutOrder: record.withoutOrder,
    passedAlone: record.passedAlone,
    currency: record.currency,
    lines: compared.map(({ currency: _c, active: _a, ...line }) => line),
    rows: matches.map((m) => ({
      row: m.billLineId,
      orderLineId: m.orderLineId,
      quantity: m.quantity,
      why: m.why,
      byHand: m.how === 'hand',
    })),
    choices: await choicesOf(db, record),
    debit: debit.length > 0 ? fixed(sum(debit.map((d) => d.amount)), record.currency) : null,
  };
}
