import { eq } from 'drizzle-orm';
import type { Static } from '@sinclair/typebox';
import { MoveBill, MoveWithNote, SetAside as SetAsideBody, type Bill, type Permission } from '@ledgerline/contract';
import { command, type Caller, type Command } from '../commands/command.ts';
import { mayWith } from '../commands/may.ts';
import type { Executor } from '../db/client.ts';
import { bill } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';
import { recheck } from './checking.ts';
import { asItStands, billIn, checked } from './hand.ts';
import { letGoOfDebit, noDebitLeft } from '../matching/held.ts';
import { mayApprove } from '../people/ranges.ts';
import { editable, heirOf, linesOf, workersOf, type BillRecord } from './store.ts';

/** What a move is asked with beyond the bill's version. */
type Asked = { rowVersion: number; until?: string | null };
interface Move {
  may: Permission;
  from: readonly string[];
  /** What is said where the bill stands elsewhere. */
  cannot: string;
  to: string;
  verb: string;
  set?: (
    caller: Caller,
    now: Date,
    record: BillRecord,
    input: Asked,
  ) => Partial<
    Pick<
      BillRecord,
      'sentBy' | 'sentAt' | 'approvedBy' | 'approvedAt' | 'unsure' | 'assigneeId' | 'asideUntil' | 'awaitsReceipt' | 'passedAlone'
    >
  >;
  before?: (tx: Executor, caller: Caller, record: BillRecord, now: Date, input: Asked) => Promise<void>;
}

/** A use case that takes a bill from one stage to another, with its reason where one is asked. */
function move<B extends typeof MoveBill | typeof MoveWithNote | typeof SetAsideBody>(body: B, m: Move): Command<B, BillRecord, Bill> {
  return command(
    { body, may: m.may, subject: billIn(m.from, m.cannot) },
    async (tx, caller, input, hand) => {
      const record = hand.subject,
        note = 'note' in input ? (input as Static<typeof MoveWithNote>).note.trim() : null;
      await m.before?.(tx, caller, record, hand.now, input);
      await tx
        .update(bill)
        .set({ stage: m.to, note, ...m.set?.(caller, hand.now, record, input) })
        .where(eq(bill.id, record.id));
      hand.record({
        subject: { type: 'bill', id: record.id },
        verb: m.verb,
        note,
        before: { stage: record.stage },
        after: { stage: m.to, ...('until' in input && input.until ? { until: input.until } : {}) },
      });
      return checked(tx, caller, record.id, hand);
    },
    asItStands,
  );
}

const decided = 'This bill is not waiting for approval any more.';
const notSent = { sentBy: null, sentAt: null, approvedBy: null, approvedAt: null, passedAlone: false };

/** The clerk is done: the bill goes to an approver. Refused while anything stops it; the sentence says what. */
export const sendOn = move(MoveBill, {
  may: 'bills:edit',
  from: editable,
  cannot: 'This bill has been sent on already.',
  to: 'coded',
  verb: 'coded',
  set: (caller, now) => ({ sentBy: caller.me.id, sentAt: now, approvedBy: null, approvedAt: null, unsure: [], assigneeId: null }),
  async before(tx, caller, record, now) {
    const stops = (await recheck(tx, caller.company, record, { personId: caller.me.id, now })).filter((e) => e.severity === 'stops');
    if (stops.length)
      throw new Refusal(
        422,
        stops[0]!.sentence,
        stops.map(({ path, sentence }) => ({ path, sentence })),
      );
  },
});

export const approve = move(MoveBill, {
  may: 'bills:approve',
  from: ['coded'],
  cannot: decided,
  to: 'approved',
  verb: 'approved',
  set: (caller, now) => ({ approvedBy: caller.me.id, approvedAt: now }),
  async before(tx, caller, record, now) {
    mayWith(caller, 'bills:approve', { sentBy: record.sentBy, workedOn: new Set(await workersOf(tx, record.id)) });
    await mayApprove(tx, caller, record, await linesOf(tx, record.id), now.toISOString().slice(0, 10));
  },
});

/** Back to the clerk, with the reason: while it waits, and also once it is approved, as long as it is not posted. */
export const returnBill = move(MoveWithNote, {
  may: 'bills:return',
  from: ['coded', 'approved'],
  cannot: 'This bill has been posted, or is with the clerk already.',
  to: 'returned',
  verb: 'returned',
  // Back into the hands of whoever sent it on.
  set: (_caller, _now, record) => ({ ...notSent, assigneeId: record.sentBy }),
});

/** The clerk takes back what no approver has decided yet. */
export const takeBack = move(MoveBill, {
  may: 'bills:edit',
  from: ['coded'],
  cannot: 'This bill has been decided already.',
  to: 'read',
  verb: 'taken back',
  set: (caller) => ({ ...notSent, assigneeId: caller.me.id }),
  async before(_, caller, record) {
    if (record.sentBy !== caller.me.id) throw new Refusal(403, 'Only the person who sent this bill on can take it back.');
  },
});

export const setAside = move(SetAsideBody, {
  may: 'bills:edit',
  from: editable,
  cannot: 'Only a bill under review can be set aside.',
  to: 'set-aside',
  verb: 'set aside',
  set: (_caller, _now, _record, { until }) => ({ asideUntil: until ?? null }),
  async before(_tx, _caller, _record, now, { until }) {
    if (until && until <= now.toISOString().slice(0, 10))
      throw new Refusal(422, 'Choose a day after today, or none.', [{ path: 'until', sentence: 'This day is not after today.' }]);
  },
});

export const discard = move(MoveWithNote, {
  may: 'bills:edit',
  from: [...editable, 'set-aside'],
  cannot: 'Only a bill that has not been sent on can be discarded.',
  to: 'discarded',
  verb: 'discarded',
  set: () => ({ assigneeId: null, asideUntil: null, awaitsReceipt: false }),
  async before(tx, _, record) {
    await noDebitLeft(tx, record);
    await letGoOfDebit(tx, record);
  },
});

export const restore = move(MoveBill, {
  may: 'bills:edit',
  from: ['set-aside', 'discarded'],
  cannot: 'This bill is under review already.',
  to: 'read',
  verb: 'taken up again',
  set: () => ({ asideUntil: null, awaitsReceipt: false }),
  async before(tx, _, record) {
    const heir = await heirOf(tx, record);
    if (heir)
      throw new Refusal(
        409,
        `Its page has a new bill meanwhile${heir.invoiceNumber ? `, number ${heir.invoiceNumber}` : ''} (${heir.stage}). Open that one instead.`,
      );
  },
});
