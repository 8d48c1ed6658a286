import type { SetUp } from '@ledgerline/contract';
import { roles } from '@ledgerline/contract';
import { hashPassword } from '../auth/service.ts';
import type { Executor } from '../db/client.ts';
import { company, ledgerAccount, membership, organisation, period, person, taxCode } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';
import { today, type Services } from '../services.ts';
import { startingAccounts, startingTaxCodes } from './starting.ts';

/** Opens all months of the given years. */
export async function openPeriods(db: Executor, companyId: string, years: number[]): Promise<void> {
  await db
    .insert(period)
    .values(years.flatMap((year) => Array.from({ length: 12 }, (_, i) => ({ companyId, year, month: i + 1 }))))
    .onConflictDoNothing();
}

/**
 * The first organisation, its company with a small chart of accounts and the country's tax codes, and its administrator, who
 * also has the other roles until there are more people. Refused once there is an organisation.
 */
export async function setUp(services: Services, asked: SetUp): Promise<void> {
  const passwordHash = await hashPassword(asked.password);
  await services.database.db.transaction(async (tx) => {
    if ((await tx.select().from(organisation)).length > 0) throw new Refusal(409, 'Ledgerline is already set up. Please sign in.');
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
      .values(startingAccounts.map((a) => ({ ...a, companyId: made!.id })))
      .returning();
    const taxAccount = accounts.find((a) => a.kind === 'tax')!;
    const owed = accounts.find((a) => a.kind === 'liability')!;
    await tx
      .insert(taxCode)
      .values(
        startingTaxCodes[asked.country].map((t) => ({ ...t, companyId: made!.id, accountId: taxAccount.id, outputAccountId: owed.id })),
      );
    const year = Number(today(services).slice(0, 4));
    await openPeriods(tx, made!.id, [year - 1, year, year + 1]);
  });
}
