import { and, eq, sql } from 'drizzle-orm';
import { monthOf, yearOf } from '@ledgerline/core/dates';
import { PostBills, type Posted } from '@ledgerline/contract';
import { command, type Caller, type Hand } from '../commands/command.ts';
import { refusedBy, type Executor } from '../db/client.ts';
import { bill, journalEntry, journalLine, openItem, postingRequest } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';
import { prepare } from './journal.ts';

type One = Posted['posted'][number];

/** Writes one approved bill's entry, lines and open item, and moves the bill on. Part of the caller's transaction. */
async function postOne(tx: Executor, caller: Caller, billId: string, entryDate: string, hand: Hand<unknown>): Promise<One> {
  const { bill: record, journal, rate, supplierName } = await prepare(tx, caller.company, billId, entryDate, true);
  if (['posted', 'paid', 'reversed'].includes(record.stage)) throw new Refusal(409, `${record.invoiceNumber} is posted already.`);
  if (record.stage !== 'approved') throw new Refusal(409, `${record.invoiceNumber} is not approved.`);
  const companyId = caller.company.id,
    source = { sourceType: 'bill', sourceId: billId };
  const [entry] = await tx
    .insert(journalEntry)
    .values({
      companyId,
      year: yearOf(entryDate),
      month: monthOf(entryDate),
      entryDate,
      ...source,
      description: `${supplierName} ${record.kind === 'credit-note' ? 'credit note' : 'invoice'} ${record.invoiceNumber}`,
      currency: record.currency,
      rate,
      postedBy: caller.me.id,
      postedAt: hand.now,
    })
    .returning({ id: journalEntry.id, number: journalEntry.number, year: journalEntry.year });
  await tx.insert(journalLine).values(
    journal.lines.map((line, position) => ({
      companyId,
      entryId: entry!.id,
      position,
      accountId: line.accountId,
      costCentreId: line.costCentreId,
      taxCodeId: line.taxCodeId,
      supplierId: line.supplierId,
      billLineId: line.billLineId,
      description: line.description,
      debit: line.debit,
      credit: line.credit,
      currencyAmount: line.currencyAmount,
    })),
  );
  await tx.insert(openItem).values({
    companyId,
    supplierId: record.supplierId!,
    ...source,
    entryId: entry!.id,
    dueDate: record.dueDate ?? record.issueDate,
    currency: record.currency,
    amount: journal.openAmount,
    baseAmount: journal.payable,
  });
  hand.record({
    subject: { type: 'bill', id: billId },
    verb: 'posted',
    before: { stage: record.stage },
    after: { stage: 'posted', entry: entry!.id },
  });
  hand.record({ subject: { type: 'entry', id: entry!.id }, verb: 'posted', after: { bill: billId, entryDate, total: journal.total } });
  await tx.update(bill).set({ stage: 'posted', postedAt: hand.now }).where(eq(bill.id, billId));
  return { billId, entryId: entry!.id, number: entry!.number, year: entry!.year };
}

/**
 * Posts bills in one transaction: all of them or none. The same request (key) again gives the first answer and posts nothing; the same
 * key for other bills or another date is refused. Bills are taken in a fixed order so that two requests at once wait for each other.
 */
export const postBills = command({ body: PostBills, may: 'bills:post' }, async (tx, caller, asked, hand): Promise<Posted> => {
  const entryDate = asked.entryDate ?? hand.now.toISOString().slice(0, 10);
  const ids = [...asked.billIds].sort(),
    companyId = caller.company.id;
  // The same request twice at once: the second waits here and finds the first one's answer.
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${companyId + asked.key}, 11))`);
  const [before] = await tx
    .select()
    .from(postingRequest)
    .where(and(eq(postingRequest.companyId, companyId), eq(postingRequest.key, asked.key)));
  if (before) {
    if (before.bills !== ids.join()) throw new Refusal(409, 'This request was made before for other bills. Load the list again.');
    if (asked.entryDate && before.entryDate !== asked.entryDate)
      throw new Refusal(409, `This request was made before with the date ${before.entryDate}. Load the list again.`);
    return { posted: before.result };
  }
  const posted: One[] = [];
  try {
    for (const id of ids) posted.push(await postOne(tx, caller, id, entryDate, hand));
  } catch (error) {
    if (refusedBy(error) === 'journal_entry_period_open')
      throw new Refusal(
        422,
        `The period ${entryDate.slice(0, 7)} is not open. Open it, or post with a date in an open one. Nothing was posted.`,
      );
    throw error;
  }
  await tx.insert(postingRequest).values({ companyId, key: asked.key, bills: ids.join(), entryDate, result: posted });
  return { posted };
});
