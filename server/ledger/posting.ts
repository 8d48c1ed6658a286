import { and, eq, inArray, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { monthOf, yearOf } from '@ledgerline/core/dates';
import { PostBills, type Posted } from '@ledgerline/contract';
import { calendarOf } from '../companies/store.ts';
import { actorOf, command, type Caller, type Hand } from '../commands/command.ts';
import { refusedBy, type Executor } from '../db/client.ts';
import { bill, journalEntry, journalLine, journalTax, openItem, postingRequest } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';
import { bookBought } from '../items/stock.ts';
import { prepare } from './journal.ts';
import { itemsOf } from './items.ts';
import { checkedOnceMore } from './once-more.ts';
import { takeFirstCoding } from './suppliers.ts';

type One = Posted['posted'][number];

/** Rows that one statement takes: its values are numbered, and there is a limit to that. */
const atOnce = 2000;
const inParts = <T>(rows: T[]): T[][] =>
  Array.from({ length: Math.ceil(rows.length / atOnce) }, (_, i) => rows.slice(i * atOnce, (i + 1) * atOnce));

/** Writes the entries, lines and open items of approved bills, in their order, and moves the bills on. Part of the caller's transaction. */
async function postAll(tx: Executor, caller: Caller, billIds: string[], entryDate: string, hand: Hand<unknown>): Promise<One[]> {
  const prepared = await prepare(tx, caller.company, billIds, entryDate, true);
  for (const { bill: one } of prepared) {
    if (['posted', 'paid', 'reversed'].includes(one.stage)) throw new Refusal(409, `${one.invoiceNumber} is posted already.`);
    if (one.stage !== 'approved') throw new Refusal(409, `${one.invoiceNumber} is not approved.`);
  }
  await checkedOnceMore(tx, caller, prepared, hand.now);
  const companyId = caller.company.id;
  const all = prepared.map((p) => ({ ...p, entryId: v7(), source: { sourceType: 'bill', sourceId: p.bill.id } }));
  const numbers = new Map<string, { number: number; year: number }>();
  const entries = all.map(({ entryId, source, bill: one, supplierName, rate }) => ({
    id: entryId,
    companyId,
    year: yearOf(entryDate),
    month: monthOf(entryDate),
    entryDate,
    ...source,
    description: `${supplierName} ${one.kind === 'credit-note' ? 'credit note' : 'invoice'} ${one.invoiceNumber}`,
    currency: one.currency,
    rate,
    postedBy: caller.me.id,
    postedAt: hand.now,
  }));
  for (const part of inParts(entries))
    for (const { id, number, year } of await tx
      .insert(journalEntry)
      .values(part)
      .returning({ id: journalEntry.id, number: journalEntry.number, year: journalEntry.year }))
      numbers.set(id, { number, year });
  const lines = all.flatMap(({ entryId, journal }) =>
    journal.lines.map((line, position) => ({
      companyId,
      entryId,
      position,
      accountId: line.accountId,
      ...line.bearer,
      taxCodeId: line.taxCodeId,
      supplierId: line.supplierId,
      billLineId: line.billLineId,
      description: line.description,
      debit: line.debit,
      credit: line.credit,
      currencyAmount: line.currencyAmount,
    })),
  );
  for (const part of inParts(lines)) await tx.insert(journalLine).values(part);
  const taxes = all.flatMap(({ entryId, journal }) => journal.taxes.map((tax) => ({ ...tax, companyId, entryId, entryDate })));
  for (const part of inParts(taxes)) await tx.insert(journalTax).values(part);
  const calendar = calendarOf(caller.company);
  const items = all.flatMap(({ entryId, source, bill: one, journal }) =>
    itemsOf(one, journal, caller.company.baseCurrency, calendar).map((item) => ({
      companyId,
      supplierId: one.supplierId!,
      ...source,
      entryId,
      currency: one.currency,
      ...item,
    })),
  );
  for (const part of inParts(items)) await tx.insert(openItem).values(part);
  for (const { entryId, bill: one, journal } of all) {
    hand.record({
      subject: { type: 'bill', id: one.id },
      verb: 'posted',
      before: { stage: one.stage },
      after: { stage: 'posted', entry: entryId },
    });
    hand.record({
      subject: { type: 'entry', id: entryId },
      verb: 'posted',
      after: { bill: one.id, entryDate, total: journal.total },
    });
  }
  await tx.update(bill).set({ stage: 'posted', postedAt: hand.now }).where(inArray(bill.id, billIds));
  await bookBought(tx, companyId, billIds, actorOf(caller), hand.now);
  await takeFirstCoding(tx, caller, prepared, hand);
  return all.map(({ entryId, bill: one }) => ({ billId: one.id, entryId, ...numbers.get(entryId)! }));
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
  let posted: One[];
  try {
    posted = await postAll(tx, caller, ids, entryDate, hand);
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
