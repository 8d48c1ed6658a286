import { and, eq } from 'drizzle-orm';
import { v7 } from 'uuid';
import type { Static } from '@sinclair/typebox';
import { isGoods } from '@ledgerline/core/bills';
import { quantityOf } from '@ledgerline/core/matching';
import { dec, fixed, sum } from '@ledgerline/core/money';
import { explainedTax } from '@ledgerline/core/tax';
import { MoveBill, SetMatch, SetWithoutOrder } from '@ledgerline/contract';
import { makeByHand } from '../bills/by-hand.ts';
import { findingsOf, recheck, stillOpen, taxRulesOf } from '../bills/checking.ts';
import { asItStands, checked, headOf, underReview } from '../bills/hand.ts';
import { touch } from '../bills/touch.ts';
import { closeException, exceptionRowsOf, linesOf, type BillRecord } from '../bills/store.ts';
import { actorOf, command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { bill, lineMatch, orderLine, purchaseOrder } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';
import { debitLines, debitOf } from './debit.ts';
import { comparedWith } from './facts.ts';

/** A line of an order with the bill's supplier. */
async function lineFor(tx: Executor, record: BillRecord, id: string) {
  const [found] = await tx
    .select({ l: orderLine, o: purchaseOrder })
    .from(orderLine)
    .innerJoin(purchaseOrder, eq(purchaseOrder.id, orderLine.orderId))
    .where(and(eq(orderLine.companyId, record.companyId), eq(orderLine.id, id)));
  if (!found || found.o.supplierId !== record.supplierId) throw new Refusal(422, 'This line is of no order with this supplier.');
  return found;
}

/** Says which line of an order a row bills, that it bills none, or leaves it to the matching again. */
export const setMatch = command(
  { body: SetMatch, may: 'bills:edit', subject: underReview },
  async (tx, caller, input: Static<typeof SetMatch>, hand) => {
    const record = hand.subject;
    const row = (await linesOf(tx, record.id)).find((l) => l.id === input.row);
    if (!row || !isGoods(row.kind)) throw new Refusal(422, 'This row is not there any more, or bills no goods.');
    await tx.delete(lineMatch).where(and(eq(lineMatch.billId, record.id), eq(lineMatch.billLineId, row.id)));
    let said = 'As the matching finds it';
    if (input.orderLineId !== undefined) {
      const found = input.orderLineId === null ? null : await lineFor(tx, record, input.orderLineId);
      const quantity = found ? quantityOf(row, { ...found.l, open: found.l.quantity }) : dec(0);
      await tx.insert(lineMatch).values({
        id: v7(),
        companyId: record.companyId,
        billId: record.id,
        billLineId: row.id,
        orderLineId: input.orderLineId,
        quantity: quantity.abs().toDecimalPlaces(6).toFixed(),
        why: `Said by ${caller.me.name}`,
        how: 'hand',
      });
      said = found ? `${found.o.number}, line ${found.l.position + 1}` : 'Of no order';
    }
    hand.record({ subject: { type: 'bill', id: record.id }, verb: 'matched', note: `Row ${row.position + 1}: ${said}` });
    await touch(tx, record.id);
    return checked(tx, caller, record.id, hand);
  },
  asItStands,
);

/** Makes a bill one of no order, or lets it be of one again. What a person said of its rows goes. */
export const setWithoutOrder = command(
  { body: SetWithoutOrder, may: 'bills:edit', subject: underReview },
  async (tx, caller, { without }, hand) => {
    const record = hand.subject;
    if (record.withoutOrder !== without) {
      await tx.delete(lineMatch).where(eq(lineMatch.billId, record.id));
      await tx.update(bill).set({ withoutOrder: without }).where(eq(bill.id, record.id));
      hand.record({
        subject: { type: 'bill', id: record.id },
        verb: 'changed',
        before: { withoutOrder: record.withoutOrder },
        after: { withoutOrder: without },
      });
    }
    return checked(tx, caller, record.id, hand);
  },
  asItStands,
);

/** What a debit note settles. */
const settles = ['order-price', 'order-quantity', 'order-not-received'];

/**
 * Draws up a debit note for what a bill asks beyond its orders: a credit note by hand with a row for each, coded alike, which goes its own
 * way to approval. The bill is paid short by it; what it was about is settled.
 */
export const drawDebitNote = command(
  { body: MoveBill, may: 'bills:edit', subject: underReview },
  async (tx, caller, _, hand) => {
    const record = hand.subject,
      today = hand.now.toISOString().slice(0, 10);
    await recheck(tx, caller.company, record, { personId: caller.me.id, now: hand.now });
    const lines = await linesOf(tx, record.id),
      rules = (await taxRulesOf(tx, caller.company.id))(record.issueDate ?? today);
    const debit = debitOf(record, lines, (await comparedWith(tx, record, lines, rules)).compared);
    if (debit.length === 0) throw new Refusal(422, 'This bill asks nothing beyond its orders.');
    const open = stillOpen(await findingsOf(tx, caller.company, record, lines, today), await exceptionRowsOf(tx, record.id)).filter((e) =>
      settles.includes(e.code),
    );
    if (open.length === 0) throw new Refusal(409, 'This has been settled meanwhile. Load the bill again.');
    const uncoded = debit.find((d) => !d.row.taxCodeId || !rules.has(d.row.taxCodeId));
    if (uncoded) throw new Refusal(422, `Row ${uncoded.row.position + 1} needs its tax code first.`);
    const net = sum(debit.map((d) => d.amount)),
      tax = explainedTax(debit.map((d) => ({ amount: d.amount, rule: rules.get(d.row.taxCodeId!)! })), false, record.currency); // prettier-ignore
    const number = `DN-${record.invoiceNumber ?? record.id.slice(-6)}`.slice(0, 60);
    const made = await makeByHand(tx, {
      companyId: record.companyId,
      head: {
        ...headOf(record as Parameters<typeof headOf>[0]),
        kind: 'credit-note',
        invoiceNumber: number,
        issueDate: today,
        dueDate: null,
        terms: null,
        purchaseOrder: null,
        net: fixed(net, record.currency),
        tax: fixed(tax, record.currency),
        gross: fixed(net.plus(tax), record.currency),
      },
      lines: debitLines(debit, record.currency),
      from: record.id,
      by: actorOf(caller),
      now: hand.now,
      note: `A debit note for ${record.invoiceNumber ?? 'a bill without a number'}`,
      assigneeId: caller.me.id,
    });
    await tx.update(bill).set({ withoutOrder: true }).where(eq(bill.id, made));
    for (const e of open)
      await closeException(tx, record.id, e, {
        state: 'settled',
        how: 'debit-note',
        personId: caller.me.id,
        reason: number,
        settledAt: hand.now,
      });
    hand.record({
      subject: { type: 'bill', id: record.id },
      verb: 'settled',
      note: `Debit note ${number}`,
      after: { how: 'debit-note', exceptions: open.map((e) => e.sentence).join(' ') },
    });
    await touch(tx, record.id);
    return checked(tx, caller, record.id, hand);
  },
  asItStands,
);
