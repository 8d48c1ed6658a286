import { sql } from 'drizzle-orm';
import { checkOf } from '@ledgerline/core/checks';
import { findingsOf, stillOpen } from '../bills/checking.ts';
import { exceptionRowsOf, linesOf } from '../bills/store.ts';
import type { Caller } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { Refusal } from '../http/problems.ts';
import type { Prepared } from './journal.ts';

/**
 * Of bills that were sent on, those about which something has changed since that checks depend on: a bill with the same number or one like
 * it, the supplier (blocked, another account), what the company makes of checks, or an order that other bills and receipts are of, too. The
 * others are as they were looked at.
 */
async function changedSince(tx: Executor, ids: readonly string[]): Promise<Set<string>> {
  const { rows } = await tx.execute<{ id: string }>(
    sql`select b.id from bill b where b.id = any(${sql.param([...ids])}::uuid[]) and (
          exists (select 1 from line_match m where m.bill_id = b.id)
          or exists (select 1 from event e where e.company_id = b.company_id and e.subject_type = 'supplier' and e.subject_id = b.supplier_id and e.at >= coalesce(b.sent_at, b.created_at))
          or exists (select 1 from event e where e.company_id = b.company_id and e.subject_type = 'check' and e.at >= coalesce(b.sent_at, b.created_at))
          or exists (select 1 from bill o where o.company_id = b.company_id and o.supplier_id = b.supplier_id and o.number_key = b.number_key and o.id <> b.id
            and o.stage not in ('discarded', 'reversed')))`,
  );
  return new Set(rows.map((r) => r.id));
}

/** Runs the checks once more on bills about to be posted, where something they depend on has changed; refuses the first that stops. */
export async function checkedOnceMore(tx: Executor, caller: Caller, prepared: readonly Prepared[], now: Date): Promise<void> {
  const changed = await changedSince(
    tx,
    prepared.map((p) => p.bill.id),
  );
  for (const { bill: one } of prepared) {
    if (!changed.has(one.id)) continue;
    const found = await findingsOf(tx, caller.company, one, await linesOf(tx, one.id), now.toISOString().slice(0, 10));
    // What the bill itself says stays since it was sent on: only what else is known may be new.
    const stops = stillOpen(found, await exceptionRowsOf(tx, one.id)).find(
      (e) => e.severity === 'stops' && checkOf(e.code)!.needs.length > 0,
    );
    if (stops)
      throw new Refusal(
        422,
        `${one.invoiceNumber} cannot be posted any more: ${stops.sentence} Return it to have it settled. Nothing was posted.`,
      );
  }
}
