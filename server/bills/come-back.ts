import { and, eq, lte } from 'drizzle-orm';
import { transaction } from '../events/record.ts';
import { bill, company } from '../db/schema/index.ts';
import { record } from '../events/record.ts';
import type { Services } from '../services.ts';
import { today } from '../services.ts';
import { recheck } from './checking.ts';
import { heirOf } from './store.ts';

/** Takes up again what was set aside until today or earlier. Gives how many bills came back; done twice it does nothing more. */
export async function comeBack(services: Services): Promise<number> {
  const day = today(services);
  return transaction(services.database.db, async (tx) => {
    const rows = await tx
      .select({ bill, company })
      .from(bill)
      .innerJoin(company, eq(company.id, bill.companyId))
      .where(and(eq(bill.stage, 'set-aside'), lte(bill.asideUntil, day)))
      .orderBy(bill.id)
      .limit(200)
      .for('update', { of: bill, skipLocked: true });
    let back = 0;
    for (const { bill: one, company: own } of rows) {
      // Its page has another bill meanwhile: it stays where it is, without a day.
      if (await heirOf(tx, one)) {
        await tx.update(bill).set({ asideUntil: null }).where(eq(bill.id, one.id));
        continue;
      }
      await tx.update(bill).set({ stage: 'read', asideUntil: null, awaitsReceipt: false }).where(eq(bill.id, one.id));
      record(tx, {
        companyId: own.id,
        subject: { type: 'bill', id: one.id },
        verb: 'came back',
        by: { personId: null, source: 'calendar' },
        at: services.now(),
        note: one.note,
        before: { stage: 'set-aside' },
        after: { stage: 'read' },
      });
      await recheck(tx, own, { ...one, stage: 'read' }, { personId: null, now: services.now() });
      back++;
    }
    return back;
  });
}
