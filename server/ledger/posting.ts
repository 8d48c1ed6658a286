import { and, eq, sql } from 'drizzle-orm';
import { monthOf, yearOf } from '@ledgerline/core/dates';
import type { PostBills, Posted } from '@ledgerline/contract';
import { refusedBy, type Executor } from '../db/client.ts';
import { bill, billEvent, journalEntry, journalLine, openItem, postingRequest } from '../db/schema/index.ts';
import type { Caller } from '../http/define.ts';
import { Refusal } from '../http/problems.ts';
import { today, type Services } from '../services.ts';
import { prepare } from './journal.ts';

type One = Posted['posted'][number];

/** Writes one approved bill's entry, lines and open item, and moves the bill on. Part of the caller's transaction. */
async function postOne(tx: Executor, caller: Caller, billId: string, entryDate: string, now: Date): Promise<One> {
  const { bill: record, journal, rate, supplierName } = await prepare(tx, caller.company, billId, entryDate, true);
  if (record.stage === 'posted' || record.stage === 'paid') throw new Refusal(409, `${record.invoiceNumber} is posted already.`);
  if (record.stage !== 'approved') throw new Refusal(409, `${record.invoiceNumber} is not approved.`);
  const companyId = caller.company.id;
  const [entry] = await tx
    .insert(journalEntry)
    .values({
      companyId,
      year: yearOf(entryDate),
      month: monthOf(entryDate),
      entryDate,
      kind: 'bill',
      description: `${supplierName} ${record.kind === 'credit-note' ? 'credit note' : 'invoice'} ${record.invoiceNumber}`,
      billId,
      currency: record.currency,
      rate,
      postedBy: caller.me.id,
      postedAt: now,
    })
    .returning({ id: journalEntry.id, number: journalEntry.number, year: journalEntry.year });
  await tx.insert(journalLine).values(journal.lines.map((line, position) => ({ ...line, companyId, entryId: entry!.id, position })));
  await tx.insert(openItem).values({
    companyId,
    supplierId: record.supplierId!,
    billId,
    entryId: entry!.id,
    dueDate: record.dueDate ?? record.issueDate,
    currency: record.currency,
    amount: journal.openAmount,
    baseAmount: journal.payable,
  });
  await tx.insert(billEvent).values({ companyId, billId, what: 'posted', personId: caller.me.id, at: now });
  await tx
    .update(bill)
    .set({ stage: 'posted', postedAt: now, rowVersion: record.rowVersion + 1 })
    .where(eq(bill.id, billId));
  return { billId, entryId: entry!.id, number: entry!.number, year: entry!.year };
}

/**
 * Posts bills in one transaction: all of them or none. The same request (key) again gives the first answer and posts nothing; the
 * same key for other bills is refused. Bills are taken in a fixed order so that two requests at once wait for each other.
 */
export async function postBills(services: Services, caller: Caller, asked: PostBills): Promise<Posted> {
  const entryDate = asked.entryDate ?? today(services);
  const ids = [...asked.billIds].sort();
  try {
    return await services.database.db.transaction(async (tx) => {
      // The same request twice at once: the second waits here and finds the first one's answer.
      await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${caller.company.id + asked.key}, 11))`);
      const [before] = await tx
        .select()
        .from(postingRequest)
        .where(and(eq(postingRequest.companyId, caller.company.id), eq(postingRequest.key, asked.key)));
      if (before) {
        if (before.bills !== ids.join()) throw new Refusal(409, 'This request was made before for other bills. Load the list again.');
        return { posted: before.result };
      }
      const posted: One[] = [];
      for (const id of ids) posted.push(await postOne(tx, caller, id, entryDate, services.now()));
      await tx.insert(postingRequest).values({ companyId: caller.company.id, key: asked.key, bills: ids.join(), result: posted });
      return { posted };
    });
  } catch (error) {
    const constraint = refusedBy(error);
    if (constraint === 'journal_entry_period_open')
      throw new Refusal(
        422,
        `The period ${entryDate.slice(0, 7)} is not open. Open it, or post with a date in an open one. Nothing was posted.`,
      );
    throw error;
  }
}
