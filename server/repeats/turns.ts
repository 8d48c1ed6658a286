import { and, eq, isNull, lte, sql } from 'drizzle-orm';
import { dueOf } from '@ledgerline/core/terms';
import { nextTurn, turnOf } from '@ledgerline/core/repeats';
import { makeByHand } from '../bills/by-hand.ts';
import { recheck } from '../bills/checking.ts';
import type { Executor } from '../db/client.ts';
import { calendarIn } from '../companies/store.ts';
import { bill, company, repeat } from '../db/schema/index.ts';
import { transaction } from '../events/record.ts';
import { today, type Services } from '../services.ts';

/** Turns that one repeat may be behind: more at once are made the next time. */
const mostAtOnce = 24;

/** Makes the bills that are due of all repeats, and looks again at those whose document is late. Gives how many were made. */
export async function makeTurns(services: Services): Promise<number> {
  const day = today(services),
    { db } = services.database;
  const made = await transaction(db, async (tx) => {
    const due = await tx
      .select()
      .from(repeat)
      .where(lte(repeat.nextOn, day))
      .orderBy(repeat.id)
      .limit(200)
      .for('update', { skipLocked: true });
    let n = 0;
    for (const one of due) n += await turnsOf(tx, one, day, services.now());
    return n;
  });
  await transaction(db, (tx) => lookAgain(tx, services, day));
  return made;
}

async function turnsOf(tx: Executor, one: typeof repeat.$inferSelect, day: string, now: Date): Promise<number> {
  const rhythm = { every: one.every as 'month', weeks: one.weeks, begins: one.begins, until: one.until };
  let turn = one.nextOn,
    n = 0;
  for (; turn !== null && turn <= day && n < mostAtOnce; n++) {
    const { head, lines } = turnOf(one.template, one.fixed);
    await makeByHand(tx, {
      companyId: one.companyId,
      head: {
        ...head,
        supplierId: one.supplierId,
        issueDate: turn,
        dueDate: head.terms ? dueOf(turn, head.terms, await calendarIn(tx, one.companyId)) : null,
        // Nobody will send a number where no document comes.
        invoiceNumber: one.documentWithin === null ? `${one.name} ${turn}`.slice(0, 60) : null,
      },
      lines,
      turn: { repeatId: one.id, day: turn },
      // It is the work of whoever made it repeat: they do not approve it.
      by: { personId: one.createdBy, source: 'calendar' },
      now,
      note: one.name,
    });
    turn = nextTurn(rhythm, turn);
  }
  await tx.update(repeat).set({ nextOn: turn }).where(eq(repeat.id, one.id));
  return n;
}

/** Bills that still say that they wait while the day by which their document was expected has passed. */
async function lookAgain(tx: Executor, services: Services, day: string): Promise<void> {
  const rows = await tx
    .select({ bill, company })
    .from(bill)
    .innerJoin(repeat, eq(repeat.id, bill.repeatId))
    .innerJoin(company, eq(company.id, bill.companyId))
    .where(
      and(
        isNull(bill.documentId),
        sql`${bill.turn} + ${repeat.documentWithin} < ${day}::date`,
        sql`exists (select 1 from bill_exception x where x.bill_id = ${bill.id} and x.state = 'open' and x.code = 'document-awaited')`,
      ),
    )
    .orderBy(bill.id)
    .limit(200)
    .for('update', { of: bill, skipLocked: true });
  for (const { bill: one, company: own } of rows) await recheck(tx, own, one, { personId: null, now: services.now() });
}
