import { eq, type SQL } from 'drizzle-orm';
import type { Me, ScanSeparator } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { company, membership, person } from '../db/schema/index.ts';

/** One person with companies and roles; null when nobody is such. */
export async function meOf(db: Executor, such: SQL): Promise<Me | null> {
  const rows = await db
    .select({ person, company, role: membership.role })
    .from(person)
    .leftJoin(membership, eq(membership.personId, person.id))
    .leftJoin(company, eq(company.id, membership.companyId))
    .where(such)
    .orderBy(company.id);
  const first = rows[0];
  if (!first) return null;
  const me: Me = { id: first.person.id, name: first.person.name, email: first.person.email, title: first.person.title, companies: [] };
  for (const row of rows) {
    if (!row.company || !row.role) continue;
    const known = me.companies.find((one) => one.id === row.company!.id);
    if (known) known.roles.push(row.role);
    else
      me.companies.push({
        id: row.company.id,
        code: row.company.code,
        name: row.company.name,
        baseCurrency: row.company.baseCurrency,
        mailAddress: row.company.mailAddress,
        scanSeparator: row.company.scanSeparator as ScanSeparator,
        roles: [row.role],
      });
  }
  return me;
}
