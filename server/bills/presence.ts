import { and, eq, gt, lt, ne, sql } from 'drizzle-orm';
import { Nothing, type Presence } from '@ledgerline/contract';
import { command, type Caller } from '../commands/command.ts';
import type { Db } from '../db/client.ts';
import { billPresence, person } from '../db/schema/index.ts';
import { anyBill } from './hand.ts';

/** Who was heard of within so many seconds is there; browsers tell about three times as often. */
export const heard = 30;

const told = (caller: Caller, id: string) =>
  sql`select pg_notify('ledgerline', ${JSON.stringify({ type: 'presence', company: caller.company.id, id })})`;

/** Tells that the caller has this bill before them, and gives who else has. Whoever is new is told to the others at once. */
export const atBill = command({ body: Nothing, may: 'bills:see', subject: anyBill() }, async (tx, caller, _, hand): Promise<Presence> => {
  const { id } = hand.subject,
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
  if (!before) await tx.execute(told(caller, id));
  const others = await tx
    .select({ id: person.id, name: person.name })
    .from(billPresence)
    .innerJoin(person, eq(person.id, billPresence.personId))
    .where(and(here, ne(billPresence.personId, caller.me.id)))
    .orderBy(person.name);
  return { others };
});

/** Tells that the caller has left this bill. */
export const leftBill = command({ body: Nothing, may: 'bills:see', subject: anyBill() }, async (tx, caller, _, hand) => {
  const gone = await tx
    .delete(billPresence)
    .where(and(eq(billPresence.billId, hand.subject.id), eq(billPresence.personId, caller.me.id)))
    .returning({ id: billPresence.billId });
  if (gone.length) await tx.execute(told(caller, hand.subject.id));
  return {};
});

/** Forgets who was at a bill and never said that they left: a browser that was closed. */
export const sweepPresence = (db: Db, now: Date) =>
  db.delete(billPresence).where(lt(billPresence.seenAt, new Date(now.getTime() - heard * 1000)));
