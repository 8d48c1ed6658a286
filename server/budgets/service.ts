import { and, asc, eq, isNull } from 'drizzle-orm';
import { PutBudget } from '@ledgerline/contract';
import { command, type Caller } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { budget, costCentre, ledgerAccount } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';

const columnOf = (month: number) => `m${String(month).padStart(2, '0')}`;

async function named(tx: Executor, caller: Caller, input: PutBudget): Promise<string> {
  const of = async (table: typeof ledgerAccount | typeof costCentre, id: string, what: string) => {
    const [row] = await tx
      .select({ code: table.code })
      .from(table)
      .where(and(eq(table.companyId, caller.company.id), eq(table.id, id)));
    if (!row) throw new Refusal(422, `This ${what} does not belong to this company. Choose it again.`);
    return row.code;
  };
  const codes = [await of(ledgerAccount, input.accountId, 'account')];
  if (input.costCentreId) codes.push(await of(costCentre, input.costCentreId, 'cost centre'));
  return `${codes.join(' ')} ${input.year}`;
}

/** Sets the twelve months of a year's budget for an account, of a cost centre or of all together. */
export const putBudget = command({ body: PutBudget, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  const companyId = caller.company.id,
    { accountId, costCentreId, year, months } = input,
    note = await named(tx, caller, input);
  const own = and(
    eq(budget.companyId, companyId),
    eq(budget.accountId, accountId),
    costCentreId ? eq(budget.costCentreId, costCentreId) : isNull(budget.costCentreId),
    eq(budget.year, year),
  );
  // Two who set the same at once: the second waits for the account and writes over what the first wrote.
  await tx.select({ id: ledgerAccount.id }).from(ledgerAccount).where(eq(ledgerAccount.id, accountId)).for('update');
  const before = await tx.select().from(budget).where(own).orderBy(asc(budget.month));
  await tx.delete(budget).where(own);
  const rows = months.flatMap((amount, i) => (amount === null ? [] : [{ companyId, accountId, costCentreId, year, month: i + 1, amount }]));
  if (rows.length > 0) await tx.insert(budget).values(rows);
  const said = (of: readonly { month: number; amount: string }[]) => Object.fromEntries(of.map((b) => [columnOf(b.month), b.amount]));
  const changed = difference(said(before), said(rows));
  if (changed) hand.record({ subject: { type: 'budget', id: null }, verb: before.length > 0 ? 'changed' : 'made', note, ...changed });
  return {};
});
