import { and, eq } from 'drizzle-orm';
import { OpenYear, SetPeriod } from '@ledgerline/contract';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { period } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';

/** Opens all months of the given years; those that are there already stay as they are. */
export async function openPeriods(tx: Executor, companyId: string, years: number[]): Promise<void> {
  await tx
    .insert(period)
    .values(years.flatMap((year) => Array.from({ length: 12 }, (_, i) => ({ companyId, year, month: i + 1 }))))
    .onConflictDoNothing();
}

/** Opens or closes one month of the caller's company. */
export const setPeriod = command({ body: SetPeriod, may: 'periods:set' }, async (tx, caller, input, hand) => {
  const { year, month, open } = input;
  const one = and(eq(period.companyId, caller.company.id), eq(period.year, year), eq(period.month, month));
  const [before] = await tx.select().from(period).where(one).for('update');
  if (!before) throw new Refusal(404, `There is no period ${year}-${String(month).padStart(2, '0')}. Open its year first.`);
  if (before.open !== open) {
    await tx.update(period).set({ open }).where(one);
    hand.record({
      subject: { type: 'period', id: null },
      verb: open ? 'opened' : 'closed',
      note: `${year}-${String(month).padStart(2, '0')}`,
      before: { open: before.open },
      after: { open },
    });
  }
  return {};
});

/** Makes the twelve periods of a year, open. */
export const openYear = command({ body: OpenYear, may: 'periods:set' }, async (tx, caller, { year }, hand) => {
  await openPeriods(tx, caller.company.id, [year]);
  hand.record({ subject: { type: 'period', id: null }, verb: 'opened', note: String(year) });
  return {};
});
