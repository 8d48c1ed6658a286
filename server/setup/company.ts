import { eq, sql } from 'drizzle-orm';
import type { Country } from '@ledgerline/contract';
import { NewCompany } from '@ledgerline/contract';
import { squash } from '@ledgerline/core/reading';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { company, costCentre, ledgerAccount, membership, paymentTerms, taxCode } from '../db/schema/index.ts';
import { record } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';
import { openPeriods } from '../ledger/periods.ts';
import { currencyOf, startingAccounts, startingTaxCodes, startingTerms } from './starting.ts';

type CompanyRow = typeof company.$inferSelect;

/** A short code of a company's letters that no other has. */
async function codeFor(tx: Executor, name: string): Promise<string> {
  const letters = name.replace(/[^\p{L}]/gu, '').slice(0, 4).toUpperCase() || 'MAIN'; // prettier-ignore
  const taken = new Set((await tx.select({ code: company.code }).from(company)).map((c) => c.code));
  for (let n = 1; ; n++) {
    const code = n === 1 ? letters : `${letters}${n}`;
    if (!taken.has(code)) return code;
  }
}

/** A company with the tax codes of its country, open periods, and those people in it. Its chart has to be there for them: `chart` makes it. */
export async function makeCompany(
  tx: Executor,
  own: {
    name: string;
    country: Country;
    taxId: string | null;
    mailAddress: string;
    year: number;
    roles: readonly string[];
    personId: string;
  },
  chart: (tx: Executor, companyId: string) => Promise<void>,
): Promise<CompanyRow> {
  const { name, country, taxId, mailAddress, year, roles, personId } = own;
  const [made] = await tx
    .insert(company)
    .values({ code: await codeFor(tx, name), name, country, taxId, mailAddress, baseCurrency: currencyOf(country) })
    .returning();
  const companyId = made!.id;
  await tx.insert(membership).values(roles.map((role) => ({ personId, companyId, role })));
  await chart(tx, companyId);
  const accounts = await tx.select().from(ledgerAccount).where(eq(ledgerAccount.companyId, companyId)).orderBy(ledgerAccount.code);
  const [taxAccount, owed] = ['tax', 'liability'].map((kind) => accounts.find((a) => a.kind === kind));
  if (!taxAccount || !owed || !accounts.some((a) => a.kind === 'payable'))
    throw new Refusal(422, 'This chart has no account for suppliers, for tax, or for tax that is owed. Begin with the small one.', [
      { path: 'chart', sentence: 'It lacks accounts that posting needs.' },
    ]);
  await tx
    .insert(taxCode)
    .values(startingTaxCodes[country].map((one) => ({ ...one, companyId, accountId: taxAccount.id, outputAccountId: owed.id })));
  await tx.insert(paymentTerms).values(startingTerms.map((one) => ({ ...one, companyId })));
  await openPeriods(tx, companyId, [year - 1, year, year + 1]);
  return made!;
}

/** The small chart of accounts to begin with. */
export async function smallChart(tx: Executor, companyId: string): Promise<void> {
  await tx.insert(ledgerAccount).values(startingAccounts.map((one) => ({ ...one, needsCostCentre: false, companyId })));
}

/** Another company's open accounts and cost centres, under the same codes; who answers for them stays with that company. */
const copiedFrom = (fromId: string) => async (tx: Executor, companyId: string) => {
  await tx.execute(sql`insert into ledger_account (id, company_id, code, name, group_name, kind, needs_cost_centre, postable, active)
    select gen_random_uuid(), ${companyId}, code, name, group_name, kind, needs_cost_centre, postable, true from ledger_account where company_id = ${fromId} and active`);
  await tx.execute(sql`insert into cost_centre (id, company_id, code, name, active)
    select gen_random_uuid(), ${companyId}, code, name, true from cost_centre where company_id = ${fromId} and active`);
  for (const table of [ledgerAccount, costCentre])
    await tx.execute(sql`update ${table} n set parent_id = p.id from ${table} o join ${table} op on op.id = o.parent_id join ${table} p on p.company_id = ${companyId} and p.code = op.code
      where n.company_id = ${companyId} and o.company_id = ${fromId} and o.code = n.code`);
};

/** One company more, in which whoever makes it has the roles that they have here. */
export const newCompany = command({ body: NewCompany, may: 'people:edit' }, async (tx, caller, input, hand) => {
  const made = await makeCompany(
    tx,
    {
      name: input.name.trim(),
      country: input.country as Country,
      taxId: input.taxId ? squash(input.taxId) || null : null,
      mailAddress: input.mailAddress.trim().toLowerCase(),
      year: hand.now.getUTCFullYear(),
      roles: caller.company.roles,
      personId: caller.me.id,
    },
    input.chart === 'copy' ? copiedFrom(caller.company.id) : smallChart,
  );
  const after = { name: made.name, country: made.country, baseCurrency: made.baseCurrency, mailAddress: made.mailAddress };
  hand.record({ subject: { type: 'company', id: made.id }, verb: 'company added', after });
  // Its own log begins with it, too.
  record(tx, {
    companyId: made.id,
    subject: { type: 'company', id: made.id },
    verb: 'made',
    by: { personId: caller.me.id, source: caller.source },
    at: hand.now,
    after,
  });
  return { id: made.id };
});
