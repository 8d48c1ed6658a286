import { and, eq, inArray, isNull } from 'drizzle-orm';
import { AddNote, Nothing } from '@ledgerline/contract';
import { anyBill, asItStands } from '../bills/hand.ts';
import { command } from '../commands/command.ts';
import { billMention, billNote, membership, person } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';

/** Writes a note on a bill, at whatever stage. Whom it names must be a member of the company. */
export const addNote = command(
  { body: AddNote, may: 'bills:see', subject: anyBill() },
  async (tx, caller, input, hand) => {
    const { id } = hand.subject;
    const named = input.mentions.length
      ? await tx
          .selectDistinct({ id: person.id, name: person.name })
          .from(membership)
          .innerJoin(person, eq(person.id, membership.personId))
          .where(and(eq(membership.companyId, caller.company.id), inArray(membership.personId, input.mentions)))
      : [];
    if (named.length !== input.mentions.length) throw new Refusal(422, 'One of the people named is not in this company.');
    const [note] = await tx
      .insert(billNote)
      .values({ companyId: caller.company.id, billId: id, personId: caller.me.id, text: input.text.trim(), at: hand.now })
      .returning({ id: billNote.id });
    const others = named.filter((p) => p.id !== caller.me.id);
    if (others.length) await tx.insert(billMention).values(others.map((p) => ({ noteId: note!.id, personId: p.id })));
    hand.record({
      subject: { type: 'bill', id },
      verb: 'noted',
      note: input.text.trim(),
      after: { to: named.map((p) => p.name).join(', ') || null },
    });
    return id;
  },
  asItStands,
);

/** The caller has seen what names them on a bill. */
export const sawNotes = command({ body: Nothing, may: 'bills:see', subject: anyBill() }, async (tx, caller, _, hand) => {
  const own = tx.select({ id: billNote.id }).from(billNote).where(eq(billNote.billId, hand.subject.id));
  await tx
    .update(billMention)
    .set({ seenAt: hand.now })
    .where(and(eq(billMention.personId, caller.me.id), isNull(billMention.seenAt), inArray(billMention.noteId, own)));
  return {};
});
