import { and, desc, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import { applyAll, codingFields, codingOf, type Coding, type Operation, type WorkingLine } from '@ledgerline/core/bills';
import { CodeAlike, type AlikeRows, type CodedAlike } from '@ledgerline/contract';
import { noteUse } from '../accounts/choices.ts';
import { keepBill, workingBill } from '../bills/change.ts';
import { checked } from '../bills/hand.ts';
import { asLine } from '../bills/show.ts';
import { editable, linesOf } from '../bills/store.ts';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { bill, billLine, supplier } from '../db/schema/index.ts';
import { goingOn } from '../dimensions/going.ts';
import { Refusal } from '../http/problems.ts';
import { codedBy, mayCode } from '../people/ranges.ts';
import { wordsKey } from './forgotten.ts';
import { givenOf, namedIn, type Given } from './named.ts';
import { untyped } from './suggest.ts';

/** So many uncoded rows are looked at, the latest; and so many kinds of them shown, the largest. */
const most = 4000,
  shown = 100;

/** Rows in hand without an account, as kinds of rows that say alike from one supplier: those with most rows first. */
export async function alikeRows(db: Executor, companyId: string): Promise<AlikeRows> {
  const lines = await db
    .select({
      billId: bill.id,
      lineId: billLine.id,
      supplierId: bill.supplierId,
      supplier: sql<string | null>`coalesce(${col(supplier.name)}, ${col(bill.supplierName)})`,
      invoiceNumber: bill.invoiceNumber,
      day: bill.issueDate,
      currency: bill.currency,
      description: billLine.description,
      amount: billLine.amount,
      marks: billLine.marks,
    })
    .from(billLine)
    .innerJoin(bill, eq(bill.id, billLine.billId))
    .leftJoin(supplier, eq(supplier.id, bill.supplierId))
    .where(and(eq(bill.companyId, companyId), inArray(bill.stage, editable), ne(billLine.kind, 'text'), isNull(billLine.accountId)))
    .orderBy(desc(bill.createdAt), desc(bill.id), billLine.position)
    .limit(most + 1);
  const groups = new Map<string, (typeof lines)[number][]>();
  for (const line of lines.slice(0, most)) {
    const key = `${line.supplierId ?? line.supplier ?? ''} ${wordsKey(line.description)}`;
    groups.set(key, [...(groups.get(key) ?? []), line]);
  }
  const largest = [...groups].sort(([, a], [, b]) => b.length - a.length).slice(0, shown);
  const offersOf = (own: typeof lines) =>
    codingFields.flatMap((field) => {
      const rivals = own.flatMap((l) => l.marks[field]?.rivals ?? []);
      const seen = new Map(rivals.map((r) => [r.value, r.why ?? '']));
      return [...seen].slice(0, 3).map(([id, why]) => ({ field, id, why }));
    });
  const offers = new Map(largest.map(([key, own]) => [key, offersOf(own)]));
  const named = await namedIn(
    db,
    companyId,
    [...offers.values()].flat().map((o): Partial<Coding> => ({ [o.field]: o.id })),
  );
  return {
    groups: largest.map(([key, own]) => ({
      key,
      supplierId: own[0]!.supplierId,
      supplier: own[0]!.supplier,
      description: own[0]!.description,
      rows: own.map(({ billId, lineId, invoiceNumber, day, description, amount, currency }) => ({
        billId,
        lineId,
        invoiceNumber,
        day,
        description,
        amount,
        currency,
      })),
      offers: offers.get(key)!.flatMap((o) => (named.has(o.id) ? [{ ...o, ...named.get(o.id)! }] : [])),
    })),
    more: lines.length > most || groups.size > shown,
  };
}

/** What codes a row: what is given where nobody typed, and what goes with it where nothing stands. */
function codesOf(line: WorkingLine, given: Given, going: Awaited<ReturnType<typeof goingOn>>): Operation[] {
  const set = (field: keyof Coding, value: string): Operation => ({ do: 'set-cell', line: line.id, field, value });
  const own = codingFields.filter((field) => given[field] && untyped(line, field));
  const along = own.flatMap((field) => going.get(given[field]!) ?? []).filter((g) => line[g.field] === null && !given[g.field]);
  const once = along.filter((g, i) => along.findIndex((o) => o.field === g.field) === i);
  return [...own.map((field) => set(field, given[field]!)), ...once.map((g) => set(g.field, g.id))];
}

/** Codes rows of several bills alike, all in one go; bills that moved on meanwhile stay as they are. */
export const codeAlike = command({ body: CodeAlike, may: 'bills:edit' }, async (tx, caller, input, hand): Promise<CodedAlike> => {
  const given = givenOf(codingOf(input.coding as Partial<Coding>));
  if (Object.keys(given).length === 0) throw new Refusal(422, 'Choose an account, a cost centre, or something else to code with.');
  const wanted = new Map<string, Set<string>>();
  for (const { billId, lineId } of input.rows) wanted.set(billId, (wanted.get(billId) ?? new Set()).add(lineId));
  const companyId = caller.company.id;
  // In one order, so that two who code the same bills wait for each other, never crosswise.
  const records = await tx
    .select()
    .from(bill)
    .where(and(eq(bill.companyId, companyId), inArray(bill.id, [...wanted.keys()])))
    .orderBy(bill.id)
    .for('update');
  let coded = 0,
    bills = 0;
  const left: string[] = [];
  for (const record of records) {
    if (!editable.includes(record.stage)) {
      left.push(record.invoiceNumber ?? 'A bill without a number');
      continue;
    }
    const day = record.issueDate ?? hand.now.toISOString().slice(0, 10);
    const going = await goingOn(tx, companyId, Object.values(given), day);
    const before = workingBill(record, (await linesOf(tx, record.id)).map(asLine));
    const rows = before.lines.filter((line) => wanted.get(record.id)!.has(line.id) && line.kind !== 'text');
    const operations = rows.map((line) => codesOf(line, given, going)).filter((ops) => ops.length > 0);
    // What comes along is theirs to code or not, too.
    await mayCode(tx, caller, [given, ...codedBy(operations.flat(), before)]);
    if (operations.length === 0) continue;
    await keepBill(tx, record, before, applyAll(before, operations.flat()), hand);
    await checked(tx, caller, record.id, hand);
    coded += operations.length;
    bills++;
  }
  await noteUse(tx, caller.me.id, Object.values(given), hand.now);
  return { coded, bills, left };
});
