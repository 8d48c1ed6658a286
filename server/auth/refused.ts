import type { Caller } from '../commands/command.ts';
import { record, transaction } from '../events/record.ts';
import { logError } from '../log.ts';
import type { Services } from '../services.ts';
import { countTry, refusals } from './attempts.ts';

/** Notes what somebody was not allowed to do; so often a stretch and no more, so that nobody fills the log at will. */
export async function noteRefusal(services: Services, { me, company, source }: Caller, what: string): Promise<void> {
  try {
    const at = services.now();
    if ((await countTry(services.database.db, refusals(me.id), at)) > 0) return;
    await transaction(services.database.db, async (tx) =>
      record(tx, {
        companyId: company.id,
        subject: { type: 'person', id: me.id },
        verb: 'refused',
        by: { personId: me.id, source },
        at,
        note: what,
      }),
    );
  } catch (error) {
    // The refusal itself is what counts.
    logError('noting a refusal', error);
  }
}
