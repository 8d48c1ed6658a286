import { eq, type SQL } from 'drizzle-orm';
import type { Me, ScanSeparator } from '@ledgerline/contract';
import type { DueOn } from '@ledgerline/core/dates';
import type { Executor } from '../db/client.ts';
import { company, membership, person } from '../db/schema/index.ts';

/** People with their roles and the companies of these, a row for each role; to be joined or narrowed further. */
export const membersBy = (db: Executor) =>
  db.select().from(person).leftJoin(membership, eq(membership.personId, person.id)).leftJoin(company, eq(company.id, membership.companyId));

/** One person with companies and roles; null when nobody is such. */
export const meOf = async (db: Executor, such: SQL): Promise<Me | null> => meFrom(await membersBy(db).where(such));

interface Row {
  person: typeof person.$inferSelect;
  membership: typeof membership.$inferSelect | null;
  company: typeof company.$inferSelect | null;
}
/** The person of such rows, companies in one order. */
export function meFrom(rows: Row[]): Me | null {
  const first = rows[0];
  if (!first) return null;
  const { id, name, email, title } = first.person;
  const me: Me = { id, name, email, title, companies: [] };
  for (const { company: own, membership: held } of rows) {
    if (!own || !held) continue;
    const known = me.companies.find((one) => one.id === own.id);
    if (known) known.roles.push(held.role);
    else
      me.companies.push({
        id: own.id,
        code: own.code,
        name: own.name,
        baseCurrency: own.baseCurrency,
        mailAddress: own.mailAddress,
        scanSeparator: own.scanSeparator as ScanSeparator,
        country: own.country,
        dueOn: own.dueOn as DueOn,
        roles: [held.role],
      });
  }
  me.companies.sort((a, b) => a.id.localeCompare(b.id));
  return me;
}
