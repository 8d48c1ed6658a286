import { and, count, eq, notInArray, sql } from 'drizzle-orm';
import { guideSteps, SetStep, type Guide, type GuideRow, type GuideStep } from '@ledgerline/contract';
import { command, type Caller, type Params } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { arrival, bill, company, guideStep, journalEntry, ledgerAccount, supplier, taxCode } from '../db/schema/index.ts';
import { notFound } from '../http/problems.ts';
import { listPeople } from '../people/store.ts';
import { startingAccounts } from './starting.ts';

type Told = { done: boolean; fact: string };
const counted = (n: number, one: string, many: string) => `${n.toLocaleString('en-GB')} ${n === 1 ? one : many}`;

/** How each step stands, as the data tells it. */
async function toldBy(db: Executor, companyId: string): Promise<Record<GuideStep, Told>> {
  const [own] = await db.select().from(company).where(eq(company.id, companyId));
  const n = async (table: typeof ledgerAccount | typeof taxCode | typeof supplier | typeof bill, more?: ReturnType<typeof sql>) =>
    (
      await db
        .select({ n: count() })
        .from(table)
        .where(and(eq(table.companyId, companyId), more))
    )[0]!.n;
  const accounts = await n(ledgerAccount),
    ownAccounts = await n(ledgerAccount, sql`${notInArray(ledgerAccount.code, startingAccounts.map((a) => a.code))}`), // prettier-ignore
    codes = await n(taxCode),
    suppliers = await n(supplier),
    bills = await n(bill);
  const { people, lonely } = await listPeople(db, companyId);
  const [mail] = await db
    .select({ n: count() })
    .from(arrival)
    .where(and(eq(arrival.companyId, companyId), eq(arrival.channel, 'email')));
  return {
    company: {
      done: own!.taxId !== null,
      fact: own!.taxId ? `${own!.name}, tax number ${own!.taxId}` : `${own!.name}, without a tax number so far`,
    },
    chart: {
      done: ownAccounts > 0,
      fact: ownAccounts > 0 ? counted(accounts, 'account', 'accounts') : `The small chart: ${counted(accounts, 'account', 'accounts')}`,
    },
    tax: { done: false, fact: `${counted(codes, 'tax code', 'tax codes')} of ${own!.country}` },
    people: {
      done: !lonely,
      fact: lonely
        ? `${counted(people.length, 'person', 'people')}: nobody could approve what another codes`
        : counted(people.length, 'person', 'people'),
    },
    mailbox: {
      done: mail!.n > 0,
      fact:
        mail!.n > 0
          ? `${counted(mail!.n, 'message', 'messages')} came to ${own!.mailAddress}`
          : `Nothing came to ${own!.mailAddress} so far`,
    },
    suppliers: { done: suppliers > 0, fact: suppliers > 0 ? counted(suppliers, 'supplier', 'suppliers') : 'None so far' },
    document: { done: bills > 0, fact: bills > 0 ? counted(bills, 'bill', 'bills') : 'None so far' },
  };
}

/** How far a company is from its first posted bill, step by step: what the data tells, and what somebody has said. */
export async function guideOf(db: Executor, companyId: string): Promise<Guide> {
  const told = await toldBy(db, companyId);
  const said = new Map((await db.select().from(guideStep).where(eq(guideStep.companyId, companyId))).map((s) => [s.step, s.state]));
  const steps = guideSteps.map((step): GuideRow => {
    const { done, fact } = told[step];
    return { step, fact, state: done ? 'done' : ((said.get(step) as GuideRow['state'] | undefined) ?? 'open') };
  });
  const [posted] = await db.select({ id: journalEntry.id }).from(journalEntry).where(eq(journalEntry.companyId, companyId)).limit(1);
  return { steps, over: posted !== undefined || steps.every((s) => s.state !== 'open') };
}

const stepOf = (_: Executor, __: Caller, params: Params): Promise<GuideStep> => {
  const step = guideSteps.find((s) => s === params['step']);
  if (!step) throw notFound('This step');
  return Promise.resolve(step);
};

/** Somebody says that a step is fine as it is, leaves it out, or takes it up again. */
export const setStep = command({ body: SetStep, may: 'settings:edit', subject: stepOf }, async (tx, caller, { state }, hand) => {
  const step = hand.subject,
    companyId = caller.company.id;
  const one = and(eq(guideStep.companyId, companyId), eq(guideStep.step, step));
  const [before] = await tx.select().from(guideStep).where(one).for('update');
  if ((before?.state ?? 'open') === state) return {};
  await tx.delete(guideStep).where(one);
  if (state !== 'open') await tx.insert(guideStep).values({ companyId, step, state, personId: caller.me.id, at: hand.now });
  hand.record({
    subject: { type: 'guide', id: null },
    verb: 'changed',
    note: step,
    before: { state: before?.state ?? 'open' },
    after: { state },
  });
  return {};
});
