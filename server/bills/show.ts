import { meantTerms } from '../terms/store.ts';
import { and, eq, inArray, ne } from 'drizzle-orm';
import type { Bill, BillLine, Choice, SettledException } from '@ledgerline/contract';
import { codingOf, dimensionFields, type CodingField } from '@ledgerline/core/bills';
import { taxByRates, type CheckedBill } from '@ledgerline/core/checks';
import { fixed } from '@ledgerline/core/money';
import { sharedOn } from '../charges/shared.ts';
import type { Executor } from '../db/client.ts';
import { goingOn } from '../dimensions/going.ts';
import { dimensionsOf } from '../dimensions/store.ts';
import { billException, costCentre, dimensionValue, ledgerAccount, person, supplier, taxCode } from '../db/schema/index.ts';
import { historyOf } from '../events/store.ts';
import { notFound } from '../http/problems.ts';
import { notesOf } from '../notes/store.ts';
import { overrulersOf, settledFor } from '../checks/overrule.ts';
import { findingsOf, stillOpen, taxRulesOf } from './checking.ts';
import { arrivalOf, editable, entryOf, exceptionRowsOf, findBill, heldOn, linesOf, workersOf, type BillRecord } from './store.ts';

type LineRecord = Awaited<ReturnType<typeof linesOf>>[number];

export const asLine = (row: LineRecord): BillLine => ({
  id: row.id,
  kind: row.kind as BillLine['kind'],
  code: row.code,
  description: row.description,
  quantity: row.quantity,
  unit: row.unit,
  unitPrice: row.unitPrice,
  priceQuantity: row.priceQuantity,
  discountPercent: row.discountPercent,
  taxRate: row.taxRate,
  amount: row.amount,
  serviceDate: row.serviceDate,
  ...codingOf(row),
  marks: row.marks,
  ...(row.further.length > 0 ? { further: row.further } : {}),
});

/** The supplier, accounts, cost centres and tax codes that a bill names, with their codes and names. */
async function namedOn(db: Executor, record: BillRecord, lines: LineRecord[], today: string): Promise<Choice[]> {
  // What is offered for a cell is named, too.
  const ids = (of: CodingField) => [
    ...new Set(lines.flatMap((l) => [...(l[of] ? [l[of]] : []), ...(l.marks[of]?.rivals ?? []).map((r) => r.value)])),
  ];
  const named: Choice[] = [];
  if (record.supplierId) {
    const [s] = await db.select().from(supplier).where(eq(supplier.id, record.supplierId));
    if (s)
      named.push({
        id: s.id,
        code: s.code,
        name: s.name,
        detail: s.taxId,
        terms: await meantTerms(db, record.companyId, s.terms),
        currency: s.currency,
      });
  }
  for (const [table, wanted] of [
    [ledgerAccount, ids('accountId')],
    [costCentre, ids('costCentreId')],
    [taxCode, ids('taxCodeId')],
    [dimensionValue, dimensionFields.flatMap(ids)],
  ] as const) {
    if (wanted.length === 0) continue;
    const rows = await db.select({ id: table.id, code: table.code, name: table.name }).from(table).where(inArray(table.id, wanted));
    named.push(...rows.map((r) => ({ ...r, detail: null })));
  }
  // What came along with what stands there goes with it when it is changed.
  const going = await goingOn(
    db,
    record.companyId,
    named.map((n) => n.id),
    record.issueDate ?? today,
  );
  for (const one of named) if (going.has(one.id)) one.going = going.get(one.id)!;
  return named;
}

/** What persons settled on a bill, and how. */
async function settledOn(db: Executor, billId: string): Promise<SettledException[]> {
  const rows = await db
    .select({ x: billException, person: person.name })
    .from(billException)
    .leftJoin(person, eq(person.id, billException.personId))
    .where(and(eq(billException.billId, billId), ne(billException.state, 'open'), ne(billException.how, 'change')))
    .orderBy(billException.settledAt);
  return rows.map(({ x, person: name }) => ({
    code: x.code,
    sentence: x.sentence,
    how: x.how!,
    person: name,
    reason: x.reason,
    asked: x.asked,
    at: x.settledAt!.toISOString(),
  }));
}

/** What still holds the payment of a bill that has gone on. */
const heldException = (x: typeof billException.$inferSelect, settledBy: Bill['exceptions'][number]['settledBy']) => ({
  code: x.code,
  path: x.path,
  key: x.key,
  sentence: x.sentence,
  many: null,
  severity: x.severity as 'asks' | 'stops',
  settledBy,
  choices: [],
  changes: [],
  other: null,
  earlier: [],
  found: x.found,
  expected: x.expected,
});

/** What the rates of its tax codes make of a bill's tax, where that is another figure. */
async function ratesMake(db: Executor, companyId: string, record: BillRecord, lines: LineRecord[], today: string): Promise<string | null> {
  const rules = (await taxRulesOf(db, companyId))(record.issueDate ?? today);
  const made = taxByRates({ ...record, lines } as CheckedBill, rules);
  return made === null || made.eq(record.tax ?? 0) ? null : fixed(made, record.currency);
}

async function assigneeOf(db: Executor, id: string | null): Promise<Bill['assignee']> {
  if (!id) return null;
  const [one] = await db.select({ id: person.id, name: person.name }).from(person).where(eq(person.id, id));
  return one ?? null;
}

/** A bill as the desk shows it: what was read and typed, what is open, what happened. Not found outside the company. */
/** `own`: the asker's company, with the roles that they have there. */
export async function getBill(
  db: Executor,
  own: { id: string; baseCurrency: string; roles: readonly string[] },
  id: string,
  today: string,
): Promise<Bill> {
  const record = await findBill(db, own.id, id);
  if (!record) throw notFound('This bill');
  const lines = await linesOf(db, id);
  const by = await overrulersOf(db, own.id);
  const inHand = [...editable, 'set-aside'].includes(record.stage);
  return {
    id,
    companyId: record.companyId,
    documentId: record.documentId,
    stage: record.stage,
    kind: record.kind as Bill['kind'],
    supplierId: record.supplierId,
    supplierName: record.supplierName,
    supplierTaxId: record.supplierTaxId,
    supplierIban: record.supplierIban,
    supplierReason: record.supplierReason,
    invoiceNumber: record.invoiceNumber,
    issueDate: record.issueDate,
    dueDate: record.dueDate,
    terms: record.terms,
    currency: record.currency,
    purchaseOrder: record.purchaseOrder,
    net: record.net,
    tax: record.tax,
    gross: record.gross,
    pricesIncludeTax: record.pricesIncludeTax,
    marks: record.marks,
    unsure: record.unsure,
    note: record.note,
    rowVersion: record.rowVersion,
    createdAt: record.createdAt.toISOString(),
    sentBy: record.sentBy,
    approvedBy: record.approvedBy,
    madeFrom: record.madeFrom,
    turn: record.turn,
    assignee: await assigneeOf(db, record.assigneeId),
    asideUntil: record.asideUntil,
    discountUntil: record.discountUntil,
    notes: await notesOf(db, id),
    workedOn: await workersOf(db, id),
    lines: lines.map(asLine),
    exceptions: inHand
      ? stillOpen(await findingsOf(db, own, record, lines, today), await exceptionRowsOf(db, id)).map((e) => ({
          ...e,
          settledBy: settledFor(e.code, own.roles, by(e.code)),
        }))
      : (await heldOn(db, record)).map((x) => heldException(x, settledFor(x.code, own.roles, by(x.code)))),
    settled: await settledOn(db, id),
    events: await historyOf(db, own.id, 'bill', id),
    taxByRates: inHand ? await ratesMake(db, own.id, record, lines, today) : null,
    shared: await sharedOn(db, id),
    dimensions: await dimensionsOf(db, own.id),
    named: await namedOn(db, record, lines, today),
    arrival: await arrivalOf(db, record.documentId),
    entry: await entryOf(db, id),
  };
}
