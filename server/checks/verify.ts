import { and, eq, inArray } from 'drizzle-orm';
import { holdsPayment } from '@ledgerline/core/checks';
import { VerifyBill } from '@ledgerline/contract';
import { anyBill, asItStands, checked } from '../bills/hand.ts';
import { touch } from '../bills/touch.ts';
import { command } from '../commands/command.ts';
import { billException } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';

/**
 * A second person asked the supplier about what is not as it is known, and says whom and how: what held the bill's payment ends. Whoever
 * worked on the bill, or changed the supplier since it came, is refused by the database.
 */
export const verifyBill = command(
  { body: VerifyBill, may: 'suppliers:verify', subject: anyBill(true) },
  async (tx, caller, input, hand) => {
    const { id } = hand.subject;
    const [open] = await tx
      .update(billException)
      .set({
        state: 'settled',
        how: 'verify',
        personId: caller.me.id,
        asked: input.asked.trim(),
        reason: input.how.trim(),
        settledAt: hand.now,
      })
      .where(
        and(
          eq(billException.billId, id),
          eq(billException.code, input.code),
          inArray(billException.code, [...holdsPayment]),
          eq(billException.path, input.path),
          eq(billException.key, input.key),
          eq(billException.state, 'open'),
        ),
      )
      .returning();
    if (!open) throw new Refusal(409, 'This has been settled meanwhile. Load the bill again.');
    // A posted bill stays to the letter; whoever has another before them sees that it is new.
    if (hand.subject.stage !== 'posted') await touch(tx, id);
    hand.record({
      subject: { type: 'bill', id },
      verb: 'verified',
      note: `Asked ${input.asked.trim()}: ${input.how.trim()}`,
      before: { exception: open.sentence },
      after: { code: open.code, path: open.path, key: open.key, how: 'verify' },
    });
    return checked(tx, caller, id, hand);
  },
  asItStands,
);
