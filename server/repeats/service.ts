import { and, eq, max } from 'drizzle-orm';
import { nextTurn } from '@ledgerline/core/repeats';
import { ChangeRepeat, NewRepeat } from '@ledgerline/contract';
import { templateOf } from '../bills/by-hand.ts';
import { findBill } from '../bills/store.ts';
import { command } from '../commands/command.ts';
import { bill, repeat } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { notFound, Refusal } from '../http/problems.ts';

interface Asked {
  name: string;
  every: 'month' | 'quarter' | 'year' | 'weeks';
  weeks: number | null;
  begins: string;
  until: string | null;
  fixed: boolean;
  documentWithin: number | null;
}
/** What a person sets, as columns; refused where it does not go together. */
function columns({ name, every, weeks, begins, until, fixed, documentWithin }: Asked) {
  if ((every === 'weeks') !== (weeks !== null))
    throw new Refusal(422, 'Say how many weeks there are from one to the next.', [{ path: 'weeks', sentence: 'How many weeks?' }]);
  if (until !== null && until < begins)
    throw new Refusal(422, 'The last day is before the first.', [{ path: 'until', sentence: 'Before the first day.' }]);
  return { name: name.trim(), every, weeks, begins, until, fixed, documentWithin };
}

/** Makes a bill repeat. It is the first turn itself where its date is the first day; what comes is made on each later one. */
export const newRepeat = command({ body: NewRepeat, may: 'bills:edit' }, async (tx, caller, input, hand) => {
  const from = await findBill(tx, caller.company.id, input.billId, true);
  if (!from) throw notFound('This bill');
  if (!from.supplierId) throw new Refusal(422, 'Choose the supplier first.');
  if (from.repeatId) throw new Refusal(409, 'This bill repeats already.');
  const set = columns(input);
  const template = await templateOf(tx, from);
  // A bill without a date yet is the first turn itself.
  const own = from.issueDate === null ? set.begins : from.issueDate >= set.begins ? from.issueDate : null;
  const [made] = await tx
    .insert(repeat)
    .values({
      companyId: caller.company.id,
      supplierId: from.supplierId,
      ...set,
      nextOn: nextTurn(set, own),
      template,
      createdBy: caller.me.id,
    })
    .returning({ id: repeat.id });
  hand.record({ subject: { type: 'repeat', id: made!.id }, verb: 'made', note: set.name, after: set });
  hand.record({ subject: { type: 'bill', id: from.id }, verb: 'made to repeat', note: set.name });
  return { id: made!.id };
});

/** Changes the rhythm of what is still to come, or ends it. What was made stays. */
export const changeRepeat = command(
  {
    body: ChangeRepeat,
    may: 'bills:edit',
    async subject(tx, caller, params, input) {
      const [one] = await tx
        .select()
        .from(repeat)
        .where(and(eq(repeat.id, params['id']!), eq(repeat.companyId, caller.company.id)))
        .for('update');
      if (!one) throw notFound('This bill that repeats');
      if (one.rowVersion !== input.rowVersion)
        throw new Refusal(409, 'Somebody else changed this meanwhile. Load it again.', [], 'changed');
      return one;
    },
  },
  async (tx, _, input, hand) => {
    const before = hand.subject,
      set = columns(input);
    const [last] = await tx
      .select({ turn: max(bill.turn) })
      .from(bill)
      .where(eq(bill.repeatId, before.id));
    await tx
      .update(repeat)
      .set({ ...set, nextOn: nextTurn(set, last?.turn ?? null) })
      .where(eq(repeat.id, before.id));
    const { name, every, weeks, begins, until, fixed, documentWithin } = before;
    const changed = difference({ name, every, weeks, begins, until, fixed, documentWithin }, set);
    if (changed) hand.record({ subject: { type: 'repeat', id: before.id }, verb: 'changed', ...changed });
    return {};
  },
);
