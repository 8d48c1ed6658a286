import { applyOperation, parsePath } from '@ledgerline/core/bills';
import { headerSchemas, SettleException } from '@ledgerline/contract';
import { lettingOverrule } from '../checks/overrule.ts';
import { command } from '../commands/command.ts';
import { mayAtAll } from '../commands/may.ts';
import { Refusal } from '../http/problems.ts';
import { valid } from '../http/validate.ts';
import { keepBill, workingBill } from './change.ts';
import { findingsOf, recheck, stillOpen } from './checking.ts';
import { asItStands, checked, underReview } from './hand.ts';
import { touch } from './touch.ts';
import { asLine } from './show.ts';
import { closeException, exceptionRowsOf, linesOf } from './store.ts';

/**
 * Settles one exception other than by changing the bill: the e-invoice's data or its page is chosen (and becomes the value), somebody
 * confirms, or a named person overrules with a reason. Kept with who and how, and in the event log.
 */
export const settleException = command(
  { body: SettleException, may: 'bills:see', subject: underReview },
  async (tx, caller, input, hand) => {
    if (input.how === 'overrule') await lettingOverrule(tx, caller, input.code);
    else mayAtAll(caller, 'bills:edit');
    const record = hand.subject;
    const lines = await linesOf(tx, record.id);
    await recheck(tx, caller.company, record, { personId: caller.me.id, now: hand.now });
    const found = await findingsOf(tx, caller.company, record, lines, hand.now.toISOString().slice(0, 10));
    const open = stillOpen(found, await exceptionRowsOf(tx, record.id)).find(
      (e) => e.code === input.code && e.path === input.path && e.key === input.key,
    );
    if (!open) throw new Refusal(409, 'This has been settled meanwhile. Load the bill again.');
    if (!open.settledBy.includes(input.how)) throw new Refusal(422, 'This cannot be settled that way. Change the bill instead.');
    if (input.how === 'overrule' && !input.reason)
      throw new Refusal(422, 'Give the reason.', [{ path: 'reason', sentence: 'Give the reason.' }]);
    if (input.how === 'confirm' && open.choices.length > 0) throw new Refusal(422, 'Choose one of the two.');
    if (input.how === 'choose') {
      const choice = open.choices.find((c) => c.take === input.take);
      const at = parsePath(open.path);
      if (!choice || !at || !('field' in at)) throw new Refusal(422, 'Choose the data or the page.');
      const value = valid(headerSchemas[at.field], choice.value, false, 'take');
      const before = workingBill(record, lines.map(asLine));
      const after = applyOperation(before, { do: 'set', field: at.field, value }).bill;
      await keepBill(tx, record, before, after, hand);
    } else await touch(tx, record.id);
    const how = input.how === 'choose' ? `choose:${input.take}` : input.how;
    await closeException(tx, record.id, open, {
      state: input.how === 'overrule' ? 'overruled' : 'settled',
      how,
      personId: caller.me.id,
      reason: input.reason ?? null,
      settledAt: hand.now,
    });
    hand.record({
      subject: { type: 'bill', id: record.id },
      verb: input.how === 'overrule' ? 'overruled' : 'settled',
      note: input.reason ?? null,
      before: { exception: open.sentence },
      after: { code: open.code, path: open.path, key: open.key, how },
    });
    return checked(tx, caller, record.id, hand);
  },
  asItStands,
);
