import { and, eq, inArray, isNull, ne } from 'drizzle-orm';
import { squash } from '@ledgerline/core/reading';
import { fitsTurn } from '@ledgerline/core/repeats';
import { codingFields, type WorkingBill, type WorkingLine } from '@ledgerline/core/bills';
import type { Executor } from '../db/client.ts';
import { bill, company, document, repeat } from '../db/schema/index.ts';
import { record, type Actor } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';
import { keepBill, workingBill } from './change.ts';
import { recheck } from './checking.ts';
import { dropBill } from './intake.ts';
import { asLine } from './show.ts';
import { editable, findBill, linesOf, type BillRecord } from './store.ts';

/** What a turn's bill takes from the page even where something stands there already: it was only foreseen. */
const foreseen = ['issueDate', 'dueDate', 'terms', 'invoiceNumber'] as const;
const taken = ['invoiceNumber', 'issueDate', 'dueDate', 'terms', 'purchaseOrder', 'net', 'tax', 'gross'] as const;

/** A bill that waited for its document, with what was read of it: what a person typed stays, what is empty is filled, places go along. */
export function joined(own: WorkingBill, read: WorkingBill, ofTurn: boolean, newId: () => string): WorkingBill {
  const head: Record<string, unknown> = {},
    marks: WorkingBill['marks'] = {},
    unsure: string[] = [];
  for (const f of taken) {
    const page = ofTurn && (foreseen as readonly string[]).includes(f) && read[f] !== null;
    const value = page || own[f] === null ? read[f] : own[f];
    head[f] = value;
    if (value === read[f] && read.marks[f]) marks[f] = read.marks[f];
    // Typed and printed differ: somebody has to look.
    if (value === read[f] ? read.unsure.includes(f) : read[f] !== null) unsure.push(f);
  }
  const open = own.lines.every((l) => l.amount === null);
  const codedLike = (l: WorkingLine) => own.lines.find((o) => o.description === l.description) ?? own.lines[0];
  const lines: WorkingLine[] = open
    ? read.lines.map((l) => {
        const like = codedLike(l);
        return {
          ...l,
          id: newId(),
          ...Object.fromEntries(codingFields.map((field) => [field, like?.[field] ?? l[field]])),
        };
      })
    : own.lines.map((l, i) => {
        const page = read.lines[i];
        return page && page.amount === l.amount ? { ...l, marks: page.marks } : l;
      });
  return { ...own, ...head, pricesIncludeTax: open ? read.pricesIncludeTax : own.pricesIncludeTax, marks, unsure, lines };
}

interface Joining {
  target: BillRecord;
  documentId: string;
  by: Actor;
  now: Date;
  note: string;
}
/**
 * Gives a bill without a document its own. The bill that the document made by itself, if any, is merged in and discarded; refused where
 * somebody works on that one already.
 */
export async function join(tx: Executor, { target, documentId, by, now, note }: Joining): Promise<void> {
  const [made] = await tx
    .select()
    .from(bill)
    .where(and(eq(bill.documentId, documentId), ne(bill.stage, 'discarded')))
    .for('update');
  if (made) {
    const [before, read] = [
      workingBill(target, (await linesOf(tx, target.id)).map(asLine)),
      workingBill(made, (await linesOf(tx, made.id)).map(asLine)),
    ];
    if (
      !(await dropBill(
        tx,
        documentId,
        `Joined to the bill that waited for it${target.invoiceNumber ? `, ${target.invoiceNumber}` : ''}.`,
        now,
        by,
      ))
    )
      throw new Refusal(409, 'Somebody works on the bill of this document already. Discard that one first.');
    const after = joined(before, read, target.repeatId !== null, () => crypto.randomUUID());
    await keepBill(tx, target, before, after, {
      record: (act) => record(tx, { ...act, companyId: target.companyId, by, at: now }),
    });
  }
  await tx
    .update(bill)
    .set({
      documentId,
      ...(made
        ? {
            supplierName: made.supplierName,
            supplierTaxId: made.supplierTaxId,
            supplierIban: made.supplierIban,
            addressedTo: made.addressedTo,
          }
        : {}),
    })
    .where(eq(bill.id, target.id));
  await tx.update(document).set({ state: 'read', note: null, forBill: target.id, further: false }).where(eq(document.id, documentId));
  record(tx, { companyId: target.companyId, subject: { type: 'bill', id: target.id }, verb: 'joined', by, at: now, note });
  const [own] = await tx.select().from(company).where(eq(company.id, target.companyId));
  await recheck(tx, own!, (await findBill(tx, target.companyId, target.id))!, { personId: by.personId, now });
}

const waits = [...editable, 'set-aside'];
/**
 * The bill that waits for a document that has just been read: a turn of a bill that repeats, by supplier, date and, where it is fixed,
 * amount; or one by hand with the same supplier and number. Null where there is none, or where two would do as well.
 */
export async function waitingFor(tx: Executor, made: BillRecord): Promise<BillRecord | null> {
  if (!made.supplierId) return null;
  const rows = await tx
    .select({ bill, repeat })
    .from(bill)
    .leftJoin(repeat, eq(repeat.id, bill.repeatId))
    .where(
      and(
        eq(bill.companyId, made.companyId),
        eq(bill.supplierId, made.supplierId),
        eq(bill.kind, made.kind),
        isNull(bill.documentId),
        inArray(bill.stage, waits),
        ne(bill.id, made.id),
      ),
    )
    .for('update', { of: bill });
  const number = squash(made.invoiceNumber ?? '');
  const numbered = rows.filter((r) => number !== '' && squash(r.bill.invoiceNumber ?? '') === number);
  if (numbered.length === 1) return numbered[0]!.bill;
  const fit = rows.filter(
    ({ bill: b, repeat: r }) =>
      r !== null &&
      r.documentWithin !== null &&
      b.turn !== null &&
      fitsTurn({ day: b.turn, within: r.documentWithin, fixed: r.fixed, gross: b.gross }, made),
  );
  const apart = (b: BillRecord) => Math.abs(Date.parse(b.turn!) - Date.parse(made.issueDate!));
  const [first, second] = fit.map((r) => r.bill).sort((a, b) => apart(a) - apart(b));
  return first && (!second || apart(second) > apart(first)) ? first : null;
}
