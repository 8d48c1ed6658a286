import { and, eq } from 'drizzle-orm';
import { dec } from '@ledgerline/core/money';
import { PutAccount, PutCostCentre, PutRate, PutTaxCode } from '@ledgerline/contract';
import { recheckBills } from '../bills/checking.ts';
import { rowIn } from './row.ts';
import { command, type Caller, type Hand } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { costCentre, exchangeRate, ledgerAccount, membership, taxCode } from '../db/schema/index.ts';
import { setGoing } from '../dimensions/going.ts';
import { difference } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';

type Row = Record<string, unknown> & { id: string };

/** Each kind of list entry, and where bill lines name it. */
const coding = { account: 'accountId', 'cost-centre': 'costCentreId', 'tax-code': 'taxCodeId' } as const;

/** Records what was made or changed of a list, and runs the checks again on the bills that use it. */
async function kept(
  tx: Executor,
  caller: Caller,
  hand: Hand<unknown>,
  type: keyof typeof coding,
  id: string,
  before: Row | null,
  after: Record<string, unknown>,
  going: { was: string | null; is: string | null } = { was: null, is: null },
) {
  const was = before ? Object.fromEntries(Object.keys(after).map((name) => [name, before[name]])) : {};
  const changed = difference({ ...was, going: going.was }, { ...after, going: going.is });
  if (!changed) return { id };
  hand.record({ subject: { type, id }, verb: before ? 'changed' : 'made', ...changed });
  if (before) await recheckBills(tx, caller.company, { coding: coding[type], id }, { personId: caller.me.id, now: hand.now });
  return { id };
}

const accountIn = rowIn(ledgerAccount, 'This account');
const accountColumns = ({
  code,
  name,
  group,
  kind,
  needsCostCentre,
  parentId,
  postable,
  needsDimensions,
  taxCodeId,
  active,
  validFrom,
  validTo,
}: PutAccount) => ({
  code,
  name: name.trim(),
  group: group.trim(),
  kind,
  needsCostCentre,
  parentId,
  postable,
  ...(needsDimensions ? { needsDimensions: [...needsDimensions].sort() } : {}),
  taxCodeId,
  active,
  validFrom,
  validTo,
});
export const newAccount = command({ body: PutAccount, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  const columns = accountColumns(input);
  const [made] = await tx
    .insert(ledgerAccount)
    .values({ ...columns, companyId: caller.company.id })
    .returning({ id: ledgerAccount.id });
  const going = await setGoing(tx, caller.company.id, 'accountId', made!.id, input.going);
  return kept(tx, caller, hand, 'account', made!.id, null, columns, going);
});
export const changeAccount = command({ body: PutAccount, may: 'settings:edit', subject: accountIn }, async (tx, caller, input, hand) => {
  const columns = accountColumns(input);
  await tx.update(ledgerAccount).set(columns).where(eq(ledgerAccount.id, hand.subject.id));
  const going = await setGoing(tx, caller.company.id, 'accountId', hand.subject.id, input.going);
  return kept(tx, caller, hand, 'account', hand.subject.id, hand.subject, columns, going);
});

const centreIn = rowIn(costCentre, 'This cost centre');
const centreColumns = ({ code, name, parentId, ownerId, active, validFrom, validTo }: PutCostCentre) => ({
  code,
  name: name.trim(),
  parentId,
  ownerId,
  active,
  validFrom,
  validTo,
});
/** Who answers for a cost centre works in its company. */
async function ownerIsHere(tx: Executor, caller: Caller, ownerId: string | null): Promise<void> {
  if (ownerId === null) return;
  const [there] = await tx
    .select({ id: membership.personId })
    .from(membership)
    .where(and(eq(membership.personId, ownerId), eq(membership.companyId, caller.company.id)));
  if (!there)
    throw new Refusal(422, `This person does not work in ${caller.company.name}.`, [
      { path: 'ownerId', sentence: 'Choose somebody who works here.' },
    ]);
}
export const newCostCentre = command({ body: PutCostCentre, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  const columns = centreColumns(input);
  await ownerIsHere(tx, caller, columns.ownerId);
  const [made] = await tx
    .insert(costCentre)
    .values({ ...columns, companyId: caller.company.id })
    .returning({ id: costCentre.id });
  const going = await setGoing(tx, caller.company.id, 'costCentreId', made!.id, input.going);
  return kept(tx, caller, hand, 'cost-centre', made!.id, null, columns, going);
});
export const changeCostCentre = command(
  { body: PutCostCentre, may: 'settings:edit', subject: centreIn },
  async (tx, caller, input, hand) => {
    const columns = centreColumns(input);
    await ownerIsHere(tx, caller, columns.ownerId);
    await tx.update(costCentre).set(columns).where(eq(costCentre.id, hand.subject.id));
    const going = await setGoing(tx, caller.company.id, 'costCentreId', hand.subject.id, input.going);
    return kept(tx, caller, hand, 'cost-centre', hand.subject.id, hand.subject, columns, going);
  },
);

const taxCodeIn = rowIn(taxCode, 'This tax code');
function taxColumns(input: PutTaxCode) {
  const { code, name, rate, recoverable, reverseCharge, accountId, outputAccountId, active, validFrom, validTo } = input;
  const { withheld, withheldAccountId, laterRates } = input;
  if (reverseCharge && !outputAccountId)
    throw new Refusal(422, 'Reverse charge needs an account for the tax that is owed.', [
      { path: 'outputAccountId', sentence: 'Needed for reverse charge.' },
    ]);
  if (withheld !== undefined && dec(withheld).gt(0) && !withheldAccountId)
    throw new Refusal(422, 'What is withheld needs an account that it is owed on.', [
      { path: 'withheldAccountId', sentence: 'Needed for what is withheld.' },
    ]);
  if (laterRates && new Set(laterRates.map((l) => l.from)).size < laterRates.length)
    throw new Refusal(422, 'Two rates begin on the same day.', [{ path: 'laterRates', sentence: 'Each day once.' }]);
  if (laterRates?.some((l) => dec(l.rate).lt(0) || dec(l.rate).gt(100)))
    throw new Refusal(422, 'A rate is a percentage between 0 and 100.', [{ path: 'laterRates', sentence: 'Between 0 and 100.' }]);
  return {
    code,
    name: name.trim(),
    rate,
    recoverable,
    reverseCharge,
    accountId,
    outputAccountId,
    ...(withheld === undefined ? {} : { withheld }),
    ...(withheldAccountId === undefined ? {} : { withheldAccountId }),
    ...(laterRates ? { laterRates: [...laterRates].sort((x, y) => (x.from < y.from ? -1 : 1)) } : {}),
    active,
    validFrom,
    validTo,
  };
}
export const newTaxCode = command({ body: PutTaxCode, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  const columns = taxColumns(input);
  const [made] = await tx
    .insert(taxCode)
    .values({ ...columns, companyId: caller.company.id })
    .returning({ id: taxCode.id });
  return kept(tx, caller, hand, 'tax-code', made!.id, null, columns);
});
export const changeTaxCode = command({ body: PutTaxCode, may: 'settings:edit', subject: taxCodeIn }, async (tx, caller, input, hand) => {
  const columns = taxColumns(input);
  await tx.update(taxCode).set(columns).where(eq(taxCode.id, hand.subject.id));
  return kept(tx, caller, hand, 'tax-code', hand.subject.id, hand.subject, columns);
});

/** The rate of a currency on a day: a new one, or in place of the one that was there. What is posted keeps the rate it had. */
export const putRate = command({ body: PutRate, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  const { currency, day, rate } = input,
    companyId = caller.company.id;
  if (currency === caller.company.baseCurrency) throw new Refusal(422, `${currency} is the company’s own currency; its rate is 1.`);
  const one = and(eq(exchangeRate.companyId, companyId), eq(exchangeRate.currency, currency), eq(exchangeRate.day, day));
  const [before] = await tx.select().from(exchangeRate).where(one).for('update');
  await tx
    .insert(exchangeRate)
    .values({ companyId, currency, day, rate })
    .onConflictDoUpdate({ target: [exchangeRate.companyId, exchangeRate.currency, exchangeRate.day], set: { rate } });
  hand.record({
    subject: { type: 'rate', id: null },
    verb: before ? 'changed' : 'made',
    note: `${currency} ${day}`,
    before: before ? { rate: before.rate } : null,
    after: { rate },
  });
  await recheckBills(tx, caller.company, { currency }, { personId: caller.me.id, now: hand.now });
  return {};
});
