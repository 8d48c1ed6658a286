import { and, eq } from 'drizzle-orm';
import { v7 } from 'uuid';
import { codingOf, emptyCells, type HeaderCells, type LineCells, type LineKind } from '@ledgerline/core/bills';
import { Changed, NewBill } from '@ledgerline/contract';
import type { Static } from '@sinclair/typebox';
import { command, actorOf } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { bill, billLine, company, supplier } from '../db/schema/index.ts';
import { record, type Actor } from '../events/record.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { meantTerms } from '../terms/store.ts';
import { recheck } from './checking.ts';
import { headOf, discountOf } from './hand.ts';
import { asLine } from './show.ts';
import { findBill, linesOf, type BillRecord } from './store.ts';

interface Made {
  companyId: string;
  head: Omit<HeaderCells, 'invoiceNumber' | 'issueDate' | 'dueDate'> &
    Partial<Pick<HeaderCells, 'invoiceNumber' | 'issueDate' | 'dueDate'>>;
  lines: ({ kind: LineKind } & LineCells)[];
  from?: string | null;
  turn?: { repeatId: string; day: string };
  by: Actor;
  now: Date;
  note: string;
  assigneeId?: string | null;
}

/** Makes a bill that no document made: head and lines as given, checked, in the event log. Part of the caller's transaction. */
export async function makeByHand(tx: Executor, { companyId, head, lines, from, turn, by, now, note, assigneeId }: Made): Promise<string> {
  const whole = { invoiceNumber: null, issueDate: null, dueDate: null, ...head };
  const [made] = await tx
    .insert(bill)
    .values({
      ...headOf(whole),
      companyId,
      stage: 'read',
      discountUntil: discountOf(whole.issueDate, whole.terms),
      madeFrom: from ?? null,
      repeatId: turn?.repeatId ?? null,
      turn: turn?.day ?? null,
      assigneeId: assigneeId ?? null,
      createdAt: now,
    })
    .returning();
  if (lines.length)
    await tx.insert(billLine).values(
      lines.map(({ kind, ...cells }, position) => ({
        ...emptyCells(),
        ...cells,
        kind,
        id: v7(),
        companyId,
        billId: made!.id,
        position,
        marks: {},
      })),
    );
  record(tx, { companyId, subject: { type: 'bill', id: made!.id }, verb: 'made', by, at: now, note });
  const [own] = await tx.select().from(company).where(eq(company.id, companyId));
  await recheck(tx, own!, made!, { personId: by.personId, now });
  return made!.id;
}

const cellsOf = (row: Awaited<ReturnType<typeof linesOf>>[number]): { kind: LineKind } & LineCells => {
  const { id: _id, marks: _marks, further: _further, ...cells } = asLine(row);
  return cells;
};
/** What a bill would be made from again: its head without number and dates, and its lines. */
export async function templateOf(tx: Executor, one: BillRecord) {
  const { invoiceNumber: _n, issueDate: _i, dueDate: _d, ...head } = headOf(one as BillRecord & { kind: HeaderCells['kind'] });
  return { head, lines: (await linesOf(tx, one.id)).map(cellsOf) };
}

/** A first line as a supplier is usually coded. */
async function begun(tx: Executor, companyId: string, supplierId: string | null) {
  const [own] = await tx.select().from(company).where(eq(company.id, companyId));
  const [of] = supplierId
    ? await tx
        .select()
        .from(supplier)
        .where(and(eq(supplier.id, supplierId), eq(supplier.companyId, companyId)))
    : [];
  if (supplierId && !of) throw notFound('This supplier');
  const head = {
    kind: 'invoice' as const,
    supplierId,
    terms: await meantTerms(tx, companyId, of?.terms),
    currency: of?.currency ?? own!.baseCurrency,
    purchaseOrder: null,
    net: null,
    tax: null,
    gross: null,
    pricesIncludeTax: false,
  };
  const line = {
    kind: 'line' as const,
    ...emptyCells(),
    ...codingOf(of),
  };
  return { head, lines: [line] };
}

/** A bill by hand: empty, for a supplier, as a copy of another, or as the credit note for one. In the hands of whoever makes it. */
export const newBill = command({ body: NewBill, may: 'bills:edit' }, async (tx, caller, input, hand): Promise<Static<typeof Changed>> => {
  const made = { companyId: caller.company.id, by: actorOf(caller), now: hand.now, assigneeId: caller.me.id };
  if (input.as === 'new') {
    const { head, lines } = await begun(tx, caller.company.id, input.supplierId ?? null);
    return { id: await makeByHand(tx, { ...made, head, lines, note: 'By hand' }) };
  }
  const from = input.billId ? await findBill(tx, caller.company.id, input.billId) : null;
  if (!from) throw notFound('This bill');
  const { head, lines } = await templateOf(tx, from);
  if (input.as === 'copy')
    return { id: await makeByHand(tx, { ...made, head, lines, from: from.id, note: `A copy of ${from.invoiceNumber ?? 'another bill'}` }) };
  if (from.kind === 'credit-note') throw new Refusal(422, 'This is a credit note itself. Copy it instead.');
  return {
    id: await makeByHand(tx, {
      ...made,
      head: { ...head, kind: 'credit-note', terms: null },
      lines,
      from: from.id,
      note: `For ${from.invoiceNumber ?? 'a bill without a number'}`,
    }),
  };
});
