import { and, eq, inArray, isNull, notInArray, or, sql, type SQL } from 'drizzle-orm';
import { AssignBill, may, TakeNext, type NextBill } from '@ledgerline/contract';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { bill, company, membership, person } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';
import { asItStands, billIn } from './hand.ts';
import { editable } from './store.ts';

/** Orders of the queue, by name; the oldest first among those alike. */
const orders: Record<string, SQL> = {
  discount: sql`${col(bill.discountUntil)} asc nulls last, ${col(bill.dueDate)} asc nulls last`,
  due: sql`${col(bill.dueDate)} asc nulls last`,
  amount: sql`${col(bill.gross)} desc nulls last`,
  age: sql`${col(bill.createdAt)} asc`,
};
/** How a company takes bills from its queue. */
export async function queueOrder(db: Executor, companyId: string): Promise<SQL> {
  const [own] = await db.select({ by: company.queueOrder }).from(company).where(eq(company.id, companyId));
  return sql`${orders[own!.by]!}, ${col(bill.createdAt)} asc, ${bill.id} asc`;
}

/** Bills to review that this person may take: their own and nobody's. */
export const takeable = (companyId: string, personId: string): SQL =>
  and(eq(bill.companyId, companyId), inArray(bill.stage, editable), or(isNull(bill.assigneeId), eq(bill.assigneeId, personId)))!;

/**
 * Puts the next bill of the queue into the caller's hands. Two who ask at once never get the same one: a bill that somebody is just
 * taking is passed over. Null where none is left.
 */
export const takeNext = command({ body: TakeNext, may: 'bills:edit' }, async (tx, caller, input, hand): Promise<NextBill> => {
  const { id: companyId } = caller.company,
    mine = takeable(companyId, caller.me.id);
  const preferred = sql`array_position(${sql.param(input.prefer)}::uuid[], ${bill.id}) asc nulls last`;
  const [next] = await tx
    .select({ id: bill.id, assigneeId: bill.assigneeId })
    .from(bill)
    .where(and(mine, input.not.length ? notInArray(bill.id, input.not) : undefined))
    .orderBy(preferred, await queueOrder(tx, companyId))
    .limit(1)
    .for('update', { skipLocked: true });
  if (next && next.assigneeId !== caller.me.id) {
    await tx.update(bill).set({ assigneeId: caller.me.id }).where(eq(bill.id, next.id));
    hand.record({ subject: { type: 'bill', id: next.id }, verb: 'taken', before: { hands: null }, after: { hands: caller.me.name } });
  }
  return { id: next?.id ?? null, left: await waiting(tx, mine) };
});

/** How many wait; 500 at most are counted. */
export async function waiting(db: Executor, which: SQL): Promise<number> {
  const rows = await db.select({ id: bill.id }).from(bill).where(which).limit(500);
  return rows.length;
}

async function nameOf(tx: Executor, id: string | null): Promise<string | null> {
  if (!id) return null;
  const [one] = await tx.select({ name: person.name }).from(person).where(eq(person.id, id));
  return one?.name ?? null;
}

/** Gives a bill into somebody's hands, takes it over, or gives it back to the queue. */
export const assignBill = command(
  {
    body: AssignBill,
    may: 'bills:edit',
    subject: billIn([...editable, 'set-aside'], 'This bill has been sent on: it is in nobody’s hands.'),
  },
  async (tx, caller, input, hand) => {
    const record = hand.subject,
      to = input.personId;
    if (to === record.assigneeId) return record.id;
    if (to) {
      const roles = await tx
        .select({ role: membership.role })
        .from(membership)
        .where(and(eq(membership.personId, to), eq(membership.companyId, caller.company.id)));
      if (
        !may(
          roles.map((r) => r.role),
          'bills:edit',
        )
      )
        throw new Refusal(422, `Only somebody who works on bills of ${caller.company.name} can have it in hand.`, [
          { path: 'personId', sentence: 'This person cannot.' },
        ]);
    }
    await tx.update(bill).set({ assigneeId: to }).where(eq(bill.id, record.id));
    hand.record({
      subject: { type: 'bill', id: record.id },
      verb: to === null ? 'given back' : to === caller.me.id ? 'taken over' : 'assigned',
      before: { hands: await nameOf(tx, record.assigneeId) },
      after: { hands: await nameOf(tx, to) },
    });
    return record.id;
  },
  asItStands,
);
