import type { SetUp } from '@ledgerline/contract';
import { roles } from '@ledgerline/contract';
import { hashPassword } from '../auth/passwords.ts';
import { company, ledgerAccount, membership, organisation, person, taxCode } from '../db/schema/index.ts';
import { record, transaction } from '../events/record.ts';
import { openPeriods } from '../ledger/periods.ts';
import { Refusal } from '../http/problems.ts';
import { today, type Services } from '../services.ts';
import { startingAccounts, startingTaxCodes } from './starting.ts';

/**
 * The first organisation, its company with a small chart of accounts and the country's tax codes, and its administrator, who
 * also has the other roles until there are more people. Refused once there is an organisation.
 */
export async function setUp(services: Services, asked: SetUp): Promise<void> {
  const already = () => new Refusal(409, 'Ledgerline is already set up. Please sign in.');
  // Before the work of a hash, which a stranger could ask for again and again.
  if ((await services.database.db.select().from(organisation)).length > 0) throw already();
  const passwordHash = await hashPassword(asked.password);
  await transaction(services.database.db, async (tx) => {
    if ((await tx.select().from(organisation)).length > 0) throw already();
    await tx.insert(organisation).values({ name: asked.organisation });
    const code =
      asked.company
        .replace(/[^\p{L}]/gu, '')
        .slice(0, 4)
        .toUpperCase() || 'MAIN';
    const [made] = await tx
      .insert(company)
      .values({
        code,
        name: asked.company,
        country: asked.country,
        baseCurrency: asked.country === 'GB' ? 'GBP' : 'EUR',
        mailAddress: 'invoices@ledgerline.localhost',
      })
      .returning();
    const [admin] = await tx.insert(person).values({ name: asked.name, email: asked.email.trim().toLowerCase(), passwordHash }).returning();
    await tx.insert(membership).values(roles.map((role) => ({ personId: admin!.id, companyId: made!.id, role })));
    const accounts = await tx
      .insert(ledgerAccount)
      .values(
        startingAccounts.map(({ code: no, name, group, kind }) => ({
          code: no,
          name,
          group,
          kind,
          needsCostCentre: false,
          companyId: made!.id,
        })),
      )
      .returning();
    const taxAccount = accounts.find((a) => a.kind === 'tax')!;
    const owed = accounts.find((a) => a.kind === 'liability')!;
    await tx.insert(taxCode).values(
      startingTaxCodes[asked.country].map(({ code, name, rate, recoverable, reverseCharge }) => ({
        code,
        name,
        rate,
        recoverable,
        reverseCharge,
        companyId: made!.id,
        accountId: taxAccount.id,
        outputAccountId: owed.id,
      })),
    );
    const year = Number(today(services).slice(0, 4));
    await openPeriods(tx, made!.id, [year - 1, year, year + 1]);
    record(tx, {
      companyId: made!.id,
      subject: { type: 'company', id: made!.id },
      verb: 'made',
      by: { personId: admin!.id, source: 'web' },
      at: services.now(),
      after: { name: made!.name, country: made!.country, baseCurrency: made!.baseCurrency, administrator: admin!.email },
    });
  });
}
