import { and, count, eq, inArray, sql } from 'drizzle-orm';
import {
  applyAll,
  codingFields,
  codingOf,
  Misfit,
  type LineCells,
  type Operation,
  type WorkingBill,
  type WorkingLine,
} from '@ledgerline/core/bills';
import { cellSchemas, ChangeBill, headerSchemas } from '@ledgerline/contract';
import { noteUse } from '../accounts/choices.ts';
import { command, type Caller, type Hand } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { bill, billLine, documentPage } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';
import { valid } from '../http/validate.ts';
import { findingsOf } from './checking.ts';
import { codedAnew } from '../coding/suggest.ts';
import { codedBy, mayCode } from '../people/ranges.ts';
import { asItStands, checked, headColumns, headOf, underReview } from './hand.ts';
import { touch } from './touch.ts';
import { staysDebit } from '../matching/held.ts';
import { asLine } from './show.ts';
import { closeException, linesOf, type BillRecord } from './store.ts';

export const workingBill = (record: BillRecord, lines: WorkingLine[]): WorkingBill => ({
  ...headOf(record as BillRecord & { kind: WorkingBill['kind'] }),
  marks: record.marks,
  unsure: record.unsure,
  lines,
});
const lineColumns = (line: LineCells & Pick<WorkingLine, 'kind' | 'marks' | 'further'>, position: number) => ({
  kind: line.kind,
  code: line.code,
  description: line.description,
  quantity: line.quantity,
  unit: line.unit,
  unitPrice: line.unitPrice,
  priceQuantity: line.priceQuantity,
  discountPercent: line.discountPercent,
  taxRate: line.taxRate,
  amount: line.amount,
  serviceDate: line.serviceDate,
  ...codingOf(line),
  marks: line.marks,
  further: line.further ?? [],
  position,
});

/** Refuses a value that does not fit its field, by the operation's place. */
function valuesFit(operations: readonly Operation[]): void {
  for (const [i, op] of operations.entries()) {
    if (op.do === 'set') valid(headerSchemas[op.field], op.value, false, `operations.${i}.value`);
    if (op.do === 'set-cell') valid(cellSchemas[op.field], op.value, false, `operations.${i}.value`);
  }
}

/** Refuses a place on a page that the bill's document does not have. */
async function placesExist(tx: Executor, record: BillRecord, operations: readonly Operation[]): Promise<void> {
  const pages = operations.flatMap((op) =>
    op.do === 'set' || op.do === 'set-cell'
      ? op.mark
        ? [op.mark.page]
        : []
      : op.do === 'add-line' || op.do === 'set-kind'
        ? Object.values(op.marks ?? {}).map((m) => m.page)
        : [],
  );
  if (pages.length === 0) return;
  const [there] = record.documentId
    ? await tx.select({ n: count() }).from(documentPage).where(eq(documentPage.documentId, record.documentId))
    : [];
  if (pages.some((page) => page > (there?.n ?? 0))) throw new Refusal(400, 'That place is on a page that this document does not have.');
}

/** A bill's values flat, for the event log: header fields, and cells by line id. */
function flat(of: WorkingBill): Record<string, unknown> {
  const { lines, marks: _m, unsure: _u, ...head } = of;
  return Object.assign(
    { ...head },
    ...lines.map(({ id, marks: _, ...cells }, i) => ({
      [`${id}.position`]: i + 1,
      ...Object.fromEntries(Object.entries(cells).flatMap(([cell, value]) => (value === null ? [] : [[`${id}.${cell}`, value]]))),
    })),
  ) as Record<string, unknown>;
}

/** Writes a bill's head and lines as they are now, and records what changed. Only what differs is touched. */
export async function keepBill(
  tx: Executor,
  record: BillRecord,
  before: WorkingBill,
  after: WorkingBill,
  hand: Pick<Hand<unknown>, 'record'>,
): Promise<void> {
  await staysDebit(tx, record, before, after);
  if (after.lines.length > 2000) throw new Refusal(422, 'A bill can have 2,000 rows at most.');
  await tx
    .update(bill)
    .set({
      ...headColumns(after),
      marks: after.marks,
      unsure: after.unsure,
      ...(after.supplierId === before.supplierId ? {} : { supplierReason: null }),
    })
    .where(eq(bill.id, record.id));
  const there = new Map(before.lines.map((l, i) => [l.id, { line: l, position: i }])),
    kept = new Set(after.lines.map((l) => l.id));
  const gone = before.lines.filter((l) => !kept.has(l.id)).map((l) => l.id);
  if (gone.length) await tx.delete(billLine).where(and(eq(billLine.billId, record.id), inArray(billLine.id, gone)));
  const moved: { id: string; position: number }[] = [],
    added: (typeof billLine.$inferInsert)[] = [];
  for (const [position, line] of after.lines.entries()) {
    const was = there.get(line.id);
    if (!was) added.push({ id: line.id, companyId: record.companyId, billId: record.id, ...lineColumns(line, position) });
    else if (was.line !== line)
      await tx
        .update(billLine)
        .set(lineColumns(line, position))
        .where(and(eq(billLine.id, line.id), eq(billLine.billId, record.id)));
    else if (was.position !== position) moved.push({ id: line.id, position });
  }
  if (added.length) await tx.insert(billLine).values(added);
  // A row put in at the top moves all others: one statement for them.
  if (moved.length)
    await tx.execute(sql`update bill_line l set position = m.position
      from unnest(${sql.param(moved.map((m) => m.id))}::uuid[], ${sql.param(moved.map((m) => m.position))}::int[]) as m(id, position)
      where l.id = m.id and l.bill_id = ${record.id}`);
  const changed = difference(flat(before), flat(after));
  if (changed) hand.record({ subject: { type: 'bill', id: record.id }, verb: 'changed', ...changed });
}

/** A difference between data and page is chosen by typing one of the two, too. */
async function choicesTyped(
  tx: Executor,
  caller: Caller,
  record: BillRecord,
  after: WorkingBill,
  set: Set<string>,
  now: Date,
): Promise<void> {
  const lines = await linesOf(tx, record.id);
  const differ = (await findingsOf(tx, caller.company, record, lines, now.toISOString().slice(0, 10))).filter(
    (e) => e.code === 'data-differs' && set.has(e.path),
  );
  for (const e of differ) {
    const value = String(after[e.path as keyof WorkingBill] ?? '');
    const take = e.choices.find((c) => c.value === value)?.take;
    if (take)
      await closeException(tx, record.id, e, {
        state: 'settled',
        how: `choose:${take}`,
        personId: caller.me.id,
        reason: null,
        settledAt: now,
      });
  }
}

/** Fields that hold a choice from a list. */
const choices: readonly string[] = ['supplierId', ...codingFields];

/** Saves what the desk changed: operations one after another, all or none. */
export const changeBill = command(
  { body: ChangeBill, may: 'bills:edit', subject: underReview },
  async (tx, caller, input, hand) => {
    const record = hand.subject,
      operations = input.operations as Operation[];
    valuesFit(operations);
    await placesExist(tx, record, operations);
    const before = workingBill(record, (await linesOf(tx, record.id)).map(asLine));
    let after: WorkingBill;
    try {
      after = applyAll(before, operations);
    } catch (error) {
      if (error instanceof Misfit) throw new Refusal(409, error.message, [], 'misfit');
      throw error;
    }
    await mayCode(tx, caller, codedBy(operations, before));
    if (after.supplierId !== before.supplierId || after.purchaseOrder !== before.purchaseOrder)
      after = await codedAnew(tx, caller.company.id, after, hand.now.toISOString().slice(0, 10));
    await keepBill(tx, record, before, after, hand);
    await choicesTyped(tx, caller, record, after, new Set(operations.flatMap((op) => (op.do === 'set' ? [op.field] : []))), hand.now);
    const chosen = operations.flatMap((op) =>
      (op.do === 'set' || op.do === 'set-cell') && choices.includes(op.field) && typeof op.value === 'string' ? [op.value] : [],
    );
    await noteUse(tx, caller.me.id, chosen, hand.now);
    if (before === after) await touch(tx, record.id);
    return checked(tx, caller, record.id, hand);
  },
  asItStands,
);
