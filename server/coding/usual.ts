import { eq, sql } from 'drizzle-orm';
import { codingOf, type Coding } from '@ledgerline/core/bills';
import { PutUsualCoding, type UsualCoding } from '@ledgerline/contract';
import { command, type Caller } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { company, ledgerAccount, usualCoding } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { givenOf, namedIn, shownOf } from './named.ts';

async function usualOf(db: Executor, companyId: string): Promise<Coding> {
  const [row] = await db.select().from(usualCoding).where(eq(usualCoding.companyId, companyId));
  return codingOf(row);
}
/** How the company codes what nothing else tells anything about; null where it says nothing. */
export async function companyUsual(db: Executor, companyId: string): Promise<Partial<Coding> | null> {
  const given = givenOf(await usualOf(db, companyId));
  return Object.keys(given).length > 0 ? given : null;
}

/** Where the cents go that are left over when a foreign bill is converted; null: to its largest row. */
export async function roundingAccount(db: Executor, companyId: string): Promise<{ id: string; name: string } | null> {
  const [row] = await db
    .select({ id: ledgerAccount.id, name: sql<string>`${col(ledgerAccount.code)} || ' ' || ${col(ledgerAccount.name)}` })
    .from(usualCoding)
    .innerJoin(ledgerAccount, eq(ledgerAccount.id, usualCoding.roundingAccountId))
    .where(eq(usualCoding.companyId, companyId));
  return row ?? null;
}

/** The same, as people see it. */
export async function showUsual(db: Executor, companyId: string): Promise<UsualCoding> {
  const coding = await usualOf(db, companyId),
    rounding = await roundingAccount(db, companyId);
  return {
    coding,
    shown: shownOf(coding, await namedIn(db, companyId, [coding])),
    roundingAccountId: rounding?.id ?? null,
    roundingAccount: rounding?.name ?? null,
  };
}

const said = async (tx: Executor, companyId: string, coding: Coding) =>
  Object.fromEntries(shownOf(coding, await namedIn(tx, companyId, [coding])).map(({ field, code, name }) => [field, `${code} ${name}`]));

const own = async (tx: Executor, caller: Caller) => {
  await tx.select({ id: company.id }).from(company).where(eq(company.id, caller.company.id)).for('update');
  return usualOf(tx, caller.company.id);
};

/** Sets how the company codes what nothing else tells anything about. What is in hand stays as it is. */
export const setUsual = command({ body: PutUsualCoding, may: 'settings:edit', subject: own }, async (tx, caller, input, hand) => {
  const companyId = caller.company.id,
    coding = codingOf(input.coding as Partial<Coding>);
  const state = async (of: Coding) => ({
    ...(await said(tx, companyId, of)),
    rounding: (await roundingAccount(tx, companyId))?.name ?? null,
  });
  const before = await state(hand.subject);
  const put = { ...coding, ...(input.roundingAccountId === undefined ? {} : { roundingAccountId: input.roundingAccountId }) };
  await tx
    .insert(usualCoding)
    .values({ companyId, ...put })
    .onConflictDoUpdate({ target: usualCoding.companyId, set: put });
  const changed = difference(before, await state(coding));
  if (changed) hand.record({ subject: { type: 'usual-coding', id: null }, verb: 'changed', ...changed });
  return {};
});
