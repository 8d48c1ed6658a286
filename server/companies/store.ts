import { eq } from 'drizzle-orm';
import type { DueOn } from '@ledgerline/core/dates';
import type { WorkingCalendar } from '@ledgerline/core/terms';
import type { Executor } from '../db/client.ts';
import { company } from '../db/schema/index.ts';

/** Our own companies under each name that invoices give them. */
export async function ownCompanies(db: Executor): Promise<{ id: string; name: string; taxId: string | null; email: string }[]> {
  const rows = await db.select().from(company).orderBy(company.id);
  return rows.flatMap(({ id, name, billToNames, taxId, mailAddress }) =>
    [name, ...billToNames].map((one) => ({ id, name: one, taxId, email: mailAddress })),
  );
}

/** Which days a company works on, and where due days go that are none. */
export const calendarOf = ({ country, dueOn }: { country: string; dueOn: string }): WorkingCalendar => ({ country, dueOn: dueOn as DueOn });

export async function calendarIn(db: Executor, companyId: string): Promise<WorkingCalendar> {
  const [row] = await db.select().from(company).where(eq(company.id, companyId));
  return calendarOf(row!);
}
