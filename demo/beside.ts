import { and, desc, eq, isNotNull } from 'drizzle-orm';
import { addDays, endOfMonth } from '@ledgerline/core/dates';
import type { NewRepeat } from '@ledgerline/contract';
import { bill, repeat, supplier } from '@ledgerline/server/db/schema/index';
import { addNote } from '@ledgerline/server/notes/service';
import { newRepeat } from '@ledgerline/server/repeats/service';
import type { Services } from '@ledgerline/server/services';
import { callerOf } from './load.ts';

type Rhythm = Pick<NewRepeat, 'name' | 'every' | 'fixed' | 'documentWithin'>;
/** Bills of these suppliers come again: from the first day of next month. */
const repeating: [supplier: string, rhythm: Rhythm][] = [
  ['Lanternhouse Software Ltd', { name: 'Ticketing software', every: 'month', fixed: true, documentWithin: null }],
  ['Rushlight Gas Ltd', { name: 'Gas, glasshouses', every: 'month', fixed: false, documentWithin: 14 }],
  ['Harrowgate Security Ltd', { name: 'Night patrol', every: 'quarter', fixed: true, documentWithin: 10 }],
];

/** What people do beside the bills that arrive: some that repeat, and a note that names somebody. Once. */
export async function besideTheBills(services: Services): Promise<void> {
  const { db } = services.database;
  if ((await db.select({ id: repeat.id }).from(repeat).limit(1)).length > 0) return;
  const begins = addDays(endOfMonth(services.now().toISOString().slice(0, 10)), 1);
  for (const [name, rhythm] of repeating) {
    const last = await lastOf(name);
    const clerk = await callerOf(services, 'Ines Okafor', last.companyId);
    await newRepeat.perform(services, clerk, {}, { billId: last.id, ...rhythm, weeks: null, begins, until: null });
  }
  const questioned = await lastOf('Gorsehill Waste Ltd');
  const marguerite = await callerOf(services, 'Marguerite Sable', questioned.companyId),
    ines = await callerOf(services, 'Ines Okafor', questioned.companyId);
  const text = '@Ines Okafor the second skip went back unused. Please ask them for a credit note.';
  await addNote.perform(services, marguerite, { id: questioned.id }, { text, mentions: [ines.me.id] });

  /** The last posted bill of a supplier. */
  async function lastOf(name: string): Promise<{ id: string; companyId: string }> {
    const [row] = await db
      .select({ id: bill.id, companyId: bill.companyId })
      .from(bill)
      .innerJoin(supplier, eq(supplier.id, bill.supplierId))
      .where(and(eq(supplier.name, name), eq(bill.kind, 'invoice'), isNotNull(bill.postedAt)))
      .orderBy(desc(bill.postedAt), desc(bill.id))
      .limit(1);
    if (!row) throw new Error(`The demo has no bill of ${name}`);
    return row;
  }
}
