import { and, eq, inArray, notInArray } from 'drizzle-orm';
import type { WorkingBill } from '@ledgerline/core/bills';
import { editable, findBill, type BillRecord } from '../bills/store.ts';
import { touch } from '../bills/touch.ts';
import type { Executor } from '../db/client.ts';
import { bill, billException } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';

/** What a debit note settled on the bill that it was drawn up for; nothing of any other bill. */
async function settledBy(tx: Executor, note: Pick<BillRecord, 'madeFrom' | 'invoiceNumber'>): Promise<string[]> {
  if (!note.madeFrom || !note.invoiceNumber) return [];
  const rows = await tx
    .select({ id: billException.id })
    .from(billException)
    .where(
      and(
        eq(billException.billId, note.madeFrom),
        eq(billException.how, 'debit-note'),
        eq(billException.state, 'settled'),
        eq(billException.reason, note.invoiceNumber),
      ),
    );
  return rows.map((r) => r.id);
}

/** What of a debit note decides how much less is paid. */
const weight = (of: WorkingBill): string =>
  JSON.stringify([
    of.kind,
    of.supplierId,
    of.invoiceNumber,
    of.currency,
    of.net,
    of.tax,
    of.gross,
    of.lines.map((l) => [l.kind, l.amount]),
  ]);

/** Refuses to make another bill of a debit note while it settles something: else a stop could be got round by a note of nothing. */
export async function staysDebit(tx: Executor, record: BillRecord, before: WorkingBill, after: WorkingBill): Promise<void> {
  if (record.kind !== 'credit-note' || weight(before) === weight(after) || (await settledBy(tx, record)).length === 0) return;
  throw new Refusal(422, 'This debit note settles what its bill asks beyond the order. Discard it, and draw it up again.');
}

/** Before a debit note goes: what it settled is open again. Refused once its bill has gone on. Part of the caller's transaction. */
export async function letGoOfDebit(tx: Executor, record: BillRecord): Promise<void> {
  const settled = await settledBy(tx, record);
  if (settled.length === 0) return;
  const of = await findBill(tx, record.companyId, record.madeFrom!, true);
  if (of && of.stage !== 'discarded' && ![...editable, 'set-aside'].includes(of.stage))
    throw new Refusal(409, `${of.invoiceNumber ?? 'Its bill'} has gone on with this debit note. Have that one returned first.`);
  await tx
    .update(billException)
    .set({ state: 'open', how: null, personId: null, reason: null, settledAt: null })
    .where(inArray(billException.id, settled));
  if (of) await touch(tx, of.id);
}

/** Before a bill is discarded: a debit note that was drawn up for it, and is still there, would ask back what nobody pays. */
export async function noDebitLeft(tx: Executor, { id, companyId }: BillRecord): Promise<void> {
  const drawn = await tx
    .select({ number: billException.reason })
    .from(billException)
    .where(and(eq(billException.billId, id), eq(billException.how, 'debit-note'), eq(billException.state, 'settled')));
  if (drawn.length === 0) return;
  const [note] = await tx
    .select({ number: bill.invoiceNumber })
    .from(bill)
    .where(
      and(
        eq(bill.companyId, companyId),
        eq(bill.madeFrom, id),
        inArray(
          bill.invoiceNumber,
          drawn.map((d) => d.number!),
        ),
        notInArray(bill.stage, ['discarded', 'reversed']),
      ),
    )
    .limit(1);
  if (note) throw new Refusal(409, `The debit note ${note.number} was drawn up for this bill. Discard that one first.`);
}
