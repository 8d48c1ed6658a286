import { and, eq, gt, ne, sql } from 'drizzle-orm';
import { Nothing, type Presence } from '@ledgerline/contract';
import { command, type Caller, type Params } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { billPresence, person } from '../db/schema/index.ts';
import { notFound } from '../http/problems.ts';
import { findBill } from './store.ts';

/** Who was heard of within so many seconds is there; browsers tell about three times as often. */
export const heard = 30;

async function theBill(tx: Executor, caller: Caller, params: Params): Promise<string> {
  const one = await findBill(tx, caller.company.id, params['id']!);
  if (!one) throw notFound('This bill');
  return one.id;
}
const told = (caller: Caller, id: string) =>
  sql`select pg_notify('ledgerline', ${JSON.stringify({ type: 'presence', company: caller.company.id, id })})`;

/** Tells that the caller has this bill before them, and gives who else has. Whoever is new is told to the others at once. */
export const atBill = command({ body: Nothing, may: 'bills:see', subject: theBill }, async (tx, caller, _, hand): Promise<Presence> => {
  const id = hand.subject,
    since = new Date(hand.now.getTime() - heard * 1000);
  const here = and(eq(billPresence.billId, id), gt(billPresence.seenAt, since));
  const [before] = await tx
    .select({ at: billPresence.seenAt })
    .from(billPresence)
    .where(and(here, eq(billPresence.personId, caller.me.id)));
  await tx
    .insert(billPresence)
    .values({ billId: id, personId: caller.me.id, seenAt: hand.now })
    .onConflictDoUpdate({ target: [billPresence.billId, billPresence.personId], set: { seenAt: hand.now } });
  if (!before)
    await tx.execute(sql`select pg_notify('ledgerline', ${JSON.stringify({ type: 'presence', company: caller.company.id, id })})`);
  const others = await tx
    .select({ id: person.id, name: person.name })
    .from(billPresence)
    .innerJoin(person, eq(person.id, billPresence.personId))
    .where(and(here, ne(billPresence.personId, caller.me.id)))
    .orderBy(person.name);
  return { others };
});

/** Tells that the caller has left this bill. */
export const leftBill = command({ body: Nothing, may: 'bills:see', subject: theBill }, async (tx, caller, _, hand) => {
  const gone = await tx
    .delete(billPresence)
    .where(and(eq(billPresence.billId, hand.subject), eq(billPresence.personId, caller.me.id)))
    .returning({ id: billPresence.billId });
  if (gone.length) await tx.execute(told(caller, hand.subject));
  return {};
});
