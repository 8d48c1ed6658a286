import { asc, eq } from 'drizzle-orm';
import type { Combination } from '@ledgerline/core/checks';
import { formatRanges, parseRanges, type Range } from '@ledgerline/core/ranges';
import { PutCombination, type CombinationQuery, type CombinationRow } from '@ledgerline/contract';
import { rowIn } from '../accounts/row.ts';
import { recheckBills } from '../bills/checking.ts';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { combination } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';

/** The company's rules on what goes together, in the order in which they were made. */
export async function listCombinations(db: Executor, companyId: string): Promise<CombinationRow[]> {
  const rows = await db.select().from(combination).where(eq(combination.companyId, companyId)).orderBy(asc(combination.id));
  return rows.map(({ companyId: _, ...row }) => row);
}

/** Ranges as people wrote them; refused at their field where they cannot be read. */
export function rangesIn(text: string, path: string): Range[] {
  const read = parseRanges(text);
  if ('trouble' in read) throw new Refusal(422, read.trouble, [{ path, sentence: read.trouble }]);
  return read.ranges;
}

/** A rule as the checks take it. */
export function ruleOf({ whenField, whenCodes, onlyField, onlyCodes }: CombinationQuery): Combination {
  if (whenField === onlyField)
    throw new Refusal(422, 'A rule is about two different things.', [{ path: 'onlyField', sentence: 'Choose another than above.' }]);
  return { whenField, when: rangesIn(whenCodes, 'whenCodes'), onlyField, only: rangesIn(onlyCodes, 'onlyCodes') };
}

/** The rules that count, as the checks take them. */
export async function combinationsOf(db: Executor, companyId: string): Promise<Combination[]> {
  return (await listCombinations(db, companyId)).filter((c) => c.active).map(ruleOf);
}

function columnsOf(input: PutCombination) {
  const { whenField, when, onlyField, only } = ruleOf(input);
  return { whenField, whenCodes: formatRanges(when), onlyField, onlyCodes: formatRanges(only), active: input.active };
}
const combinationIn = rowIn(combination, 'This rule');

export const newCombination = command({ body: PutCombination, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  const put = columnsOf(input);
  const [made] = await tx
    .insert(combination)
    .values({ companyId: caller.company.id, ...put })
    .returning({ id: combination.id });
  hand.record({ subject: { type: 'combination', id: made!.id }, verb: 'made', after: put });
  await recheckBills(tx, caller.company, 'all', { personId: caller.me.id, now: hand.now });
  return { id: made!.id };
});

export const changeCombination = command(
  { body: PutCombination, may: 'settings:edit', subject: combinationIn },
  async (tx, caller, input, hand) => {
    const { id, companyId: _, ...was } = hand.subject,
      put = columnsOf(input);
    await tx.update(combination).set(put).where(eq(combination.id, id));
    const changed = difference(was, put);
    if (changed) {
      hand.record({ subject: { type: 'combination', id }, verb: 'changed', ...changed });
      await recheckBills(tx, caller.company, 'all', { personId: caller.me.id, now: hand.now });
    }
    return { id };
  },
);
