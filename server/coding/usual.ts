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

/** What an account is kept for: the cents left over when a foreign bill is converted, or what is owed for goods that came without a bill. */
const kept = { rounding: usualCoding.roundingAccountId, accrual: usualCoding.accrualAccountId };

/** The account that a company keeps for something; null where it has none. */
export async function keptAccount(db: Executor, companyId: string, what: keyof typeof kept): Promise<{ id: string; name: string } | null> {
  const [row] = await db
    .select({ id: ledgerAccount.id, name: sql<string>`${col(ledgerAccount.code)} || ' ' || ${col(ledgerAccount.name)}` })
    .from(usualCoding)
    .innerJoin(ledgerAccount, eq(ledgerAccount.id, kept[what]))
    .where(eq(usualCoding.companyId, companyId));
  return row ?? null;
}

/** The same, as people see it. */
export async function showUsual(db: Executor, companyId: string): Promise<UsualCoding> {
  const coding = await usualOf(db, companyId),
    rounding = await keptAccount(db, companyId, 'rounding'),
    accrual = await keptAccount(db, companyId, 'accrual');
  return {
    coding,
    shown: shownOf(coding, await namedIn(db, companyId, [coding])),
    roundingAccountId: rounding?.id ?? null,
    roundingAccount: rounding?.name ?? null,
    accrualAccountId: accrual?.id ?? null,
    accrualAccount: accrual?.name ?? null,
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
    rounding: (await keptAccount(tx, companyId, 'rounding'))?.name ?? null,
    accrual: (await keptAccount(tx, companyId, 'accrual'))?.name ?? null,
  });
  const before = await state(hand.subject);
  const { roundingAccountId, accrualAccountId } = input;
  const put = {
    ...coding,
    ...(roundingAccountId === undefined ? {} : { roundingAccountId }),
    ...(accrualAccountId === undefined ? {} : { accrualAccountId }),
  };
  await tx
    .insert(usualCoding)
    .values({ companyId, ...put })
    .onConflictDoUpdate({ target: usualCoding.companyId, set: put });
  const changed = difference(before, await state(coding));
  if (changed) hand.record({ subject: { type: 'usual-coding', id: null }, verb: 'changed', ...changed });
  return {};
});
