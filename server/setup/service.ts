import { roles, type Country, type SetUp } from '@ledgerline/contract';
import { hashPassword } from '../auth/passwords.ts';
import { organisation, person } from '../db/schema/index.ts';
import { record, transaction } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';
import { today, type Services } from '../services.ts';
import { makeCompany, smallChart } from './company.ts';

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
    const [admin] = await tx.insert(person).values({ name: asked.name, email: asked.email.trim().toLowerCase(), passwordHash }).returning();
    const made = await makeCompany(
      tx,
      {
        name: asked.company,
        country: asked.country as Country,
        taxId: null,
        mailAddress: 'invoices@ledgerline.localhost',
        year: Number(today(services).slice(0, 4)),
        roles,
        personId: admin!.id,
      },
      smallChart,
    );
    record(tx, {
      companyId: made.id,
      subject: { type: 'company', id: made.id },
      verb: 'made',
      by: { personId: admin!.id, source: 'web' },
      at: services.now(),
      after: { name: made.name, country: made.country, baseCurrency: made.baseCurrency, administrator: admin!.email },
    });
  });
}
