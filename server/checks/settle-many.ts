import { and, eq, inArray } from 'drizzle-orm';
import { SettleMany, type SettledMany } from '@ledgerline/contract';
import { findingsOf, recheck, stillOpen } from '../bills/checking.ts';
import { touch } from '../bills/touch.ts';
import { closeException, editable, exceptionRowsOf, findBill, linesOf } from '../bills/store.ts';
import { command } from '../commands/command.ts';
import { mayAtAll } from '../commands/may.ts';
import { billException } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';
import { settlesOf } from './list.ts';
import { lettingOverrule } from './overrule.ts';

/**
 * Settles the same doubt on many bills in one go: confirmed, or overruled with one reason. Each is looked at as it stands now; what ended
 * meanwhile, and bills that have gone on, are left as they are and counted.
 */
export const settleMany = command({ body: SettleMany, may: 'bills:see' }, async (tx, caller, input, hand): Promise<SettledMany> => {
  if (input.how === 'overrule') await lettingOverrule(tx, caller, input.code);
  else mayAtAll(caller, 'bills:edit');
  if (settlesOf(input.code) !== input.how) throw new Refusal(422, 'This cannot be settled that way. Change the bills instead.');
  const reason = input.reason?.trim() ?? null;
  if (input.how === 'overrule' && !reason) throw new Refusal(422, 'Give the reason.', [{ path: 'reason', sentence: 'Give the reason.' }]);
  const asked = await tx
    .select()
    .from(billException)
    .where(
      and(eq(billException.companyId, caller.company.id), eq(billException.code, input.code), inArray(billException.id, input.exceptions)),
    );
  const today = hand.now.toISOString().slice(0, 10);
  let settled = 0;
  // Bills in one order, so that two who settle at once wait for each other, never crosswise.
  for (const billId of [...new Set(asked.map((x) => x.billId))].sort()) {
    const record = await findBill(tx, caller.company.id, billId, true);
    if (!record || !editable.includes(record.stage)) continue;
    await recheck(tx, caller.company, record, { personId: caller.me.id, now: hand.now });
    const found = await findingsOf(tx, caller.company, record, await linesOf(tx, billId), today);
    const open = stillOpen(found, await exceptionRowsOf(tx, billId));
    for (const one of asked.filter((x) => x.billId === billId)) {
      const now = open.find((e) => e.code === one.code && e.path === one.path && e.key === one.key);
      if (!now || now.choices.length > 0) continue;
      await closeException(tx, billId, now, {
        state: input.how === 'overrule' ? 'overruled' : 'settled',
        how: input.how,
        personId: caller.me.id,
        reason,
        settledAt: hand.now,
      });
      hand.record({
        subject: { type: 'bill', id: billId },
        verb: input.how === 'overrule' ? 'overruled' : 'settled',
        note: reason,
        before: { exception: now.sentence },
        after: { code: now.code, path: now.path, key: now.key, how: input.how },
      });
      settled++;
    }
    await touch(tx, billId);
  }
  return { settled, left: input.exceptions.length - settled };
});
