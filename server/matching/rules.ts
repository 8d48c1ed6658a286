import { eq } from 'drizzle-orm';
import { MatchingRules } from '@ledgerline/contract';
import { dec } from '@ledgerline/core/money';
import { recheckBills } from '../bills/checking.ts';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { company } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';

/** How far a company's bills may be from their orders. */
export async function matchingRules(db: Executor, companyId: string): Promise<MatchingRules> {
  const [row] = await db.select({ rules: company.matching }).from(company).where(eq(company.id, companyId));
  return row!.rules;
}

export const setMatchingRules = command({ body: MatchingRules, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  for (const path of ['pricePercent', 'priceAmount', 'quantityPercent', 'quantityAmount'] as const)
    if (input[path] !== null && dec(input[path]).lt(0))
      throw new Refusal(422, 'A tolerance is zero or more.', [{ path, sentence: 'Zero or more.' }]);
  const companyId = caller.company.id,
    before = await matchingRules(tx, companyId);
  const changed = difference({ ...before }, { ...input });
  if (!changed) return {};
  await tx.update(company).set({ matching: input }).where(eq(company.id, companyId));
  hand.record({ subject: { type: 'company', id: companyId }, verb: 'changed', ...changed });
  await recheckBills(tx, caller.company, 'all', { personId: caller.me.id, now: hand.now });
  return {};
});
