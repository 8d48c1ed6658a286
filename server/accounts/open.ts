import { sql, type SQL } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';

/** Whether lines of a bill of this day may name it. */
export const openOn = (of: { active: boolean; validFrom: string | null; validTo: string | null }, day: string): boolean =>
  of.active && (of.validFrom === null || of.validFrom <= day) && (of.validTo === null || day <= of.validTo);

interface Dated {
  active: PgColumn;
  validFrom: PgColumn;
  validTo: PgColumn;
}
/** The same, as a condition on a list's rows. */
export const openIn = (of: Dated, day: string): SQL =>
  sql`${of.active} and coalesce(${of.validFrom} <= ${day}::date, true) and coalesce(${day}::date <= ${of.validTo}, true)`;
