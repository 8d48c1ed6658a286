import { addDays } from '@ledgerline/core/dates';
import { and, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import { codingOf, parsePath, type CodingField } from '@ledgerline/core/bills';
import { holdsPayment, runChecks, type CheckedBill, type Exception, type Facts, type Setting } from '@ledgerline/core/checks';
import type { PostingLine } from '@ledgerline/core/posting';
import { rateOnDay } from '@ledgerline/core/tax';
import type { Executor } from '../db/client.ts';
import {
  bankAccount,
  bill,
  billException,
  billLine,
  checkSetting,
  company,
  document,
  repeat,
  supplier,
  taxCode,
} from '../db/schema/index.ts';
import { chargeFacts, chargesOf, partsOf, shareAnew } from '../charges/shared.ts';
import { orderFacts } from '../matching/facts.ts';
import { rebind } from '../matching/rebind.ts';
import { codingGround } from '../dimensions/facts.ts';
import { stockOf } from '../items/stock.ts';
import { senderOf, supplierKnown } from './habits.ts';
import { lookFacts } from './looks.ts';
import { timeFacts } from './times.ts';
import { alikeTo } from './alike.ts';
import { billField } from './fields.ts';
import { editable, exceptionRowsOf, linesOf, rateOn, twinOf, type BillRecord } from './store.ts';

type OwnCompany = { id: string; baseCurrency: string };
type LineRecord = Awaited<ReturnType<typeof linesOf>>[number];

/** The company's tax codes as rules on a day, with their accounts, by id. */
export async function taxRulesOf(db: Executor, companyId: string): Promise<(day: string) => Map<string, PostingLine['rule']>> {
  const rows = await db.select().from(taxCode).where(eq(taxCode.companyId, companyId));
  return (day) => new Map(rows.map((r) => [r.id, { ...r, rate: rateOnDay(r.rate, r.laterRates, day) }]));
}

/** Another supplier of the company that a condition fits, by name. */
async function otherSupplier(db: Executor, record: BillRecord, fits: ReturnType<typeof sql>): Promise<string | null> {
  const [other] = await db
    .select({ name: supplier.name })
    .from(supplier)
    .where(and(eq(supplier.companyId, record.companyId), ne(supplier.id, record.supplierId!), fits))
    .limit(1);
  return other?.name ?? null;
}

async function supplierFacts(
  db: Executor,
  record: BillRecord,
  own: typeof supplier.$inferSelect | undefined,
): Promise<Pick<Facts, 'bank' | 'blocked' | 'sameTaxId' | 'sameIban'>> {
  if (!own) return { bank: null, blocked: null, sameTaxId: null, sameIban: null };
  const accounts = await db
    .select()
    .from(bankAccount)
    .where(and(eq(bankAccount.supplierId, own.id), isNull(bankAccount.retiredAt)));
  const ibans = accounts.map((a) => a.iban);
  return {
    bank: {
      supplier: own.name,
      verified: accounts.filter((a) => a.verifiedAt).map((a) => a.iban),
      waiting: accounts.filter((a) => !a.verifiedAt).map((a) => a.iban),
    },
    blocked: own.blocked === null ? null : { supplier: own.name, because: own.blocked },
    sameTaxId: own.taxId ? await otherSupplier(db, record, sql`${supplier.taxId} = ${own.taxId}`) : null,
    sameIban: ibans.length
      ? await otherSupplier(
          db,
          record,
          sql`exists (select 1 from bank_account a where a.supplier_id = ${supplier.id} and a.retired_at is null and a.iban = any(${sql.param(ibans)}))`,
        )
      : null,
  };
}

async function documentFacts(db: Executor, record: BillRecord): Promise<Pick<Facts, 'differences' | 'broken'>> {
  const [row] = record.documentId
    ? await db.select({ findings: document.findings }).from(document).where(eq(document.id, record.documentId))
    : [];
  return {
    differences: (row?.findings?.differences ?? []).map((d) => {
      const path = billField(d.field),
        at = parsePath(path);
      return { ...d, path, choosable: at !== null && 'field' in at && at.field !== 'supplierId' };
    }),
    broken: (row?.findings?.broken ?? []).map((b) => ({ rule: b.rule, sentence: b.sentence, path: billField(b.paths[0] ?? 'lines') })),
  };
}

/** The document that a bill of a repeat waits for. */
async function awaitedBy(db: Executor, record: BillRecord, today: string): Promise<Facts['awaits']> {
  if (!record.repeatId || !record.turn || record.documentId) return null;
  const [of] = await db.select({ within: repeat.documentWithin }).from(repeat).where(eq(repeat.id, record.repeatId));
  if (!of || of.within === null) return null;
  const by = addDays(record.turn, of.within);
  return { by, missed: today > by };
}

/** What a second person has still to verify of a bill, as it was found, and what one has verified. */
async function verifyingOn(db: Executor, billId: string): Promise<Pick<Facts, 'waiting' | 'verified'>> {
  const rows = await db
    .select()
    .from(billException)
    .where(and(eq(billException.billId, billId), inArray(billException.code, [...holdsPayment])));
  const named = (x: Kept) => `${x.code} ${x.key}`;
  return {
    waiting: new Map(rows.filter((x) => x.state === 'open').map((x) => [named(x), x.sentence])),
    verified: new Set(rows.filter((x) => x.how === 'verify').map(named)),
  };
}

/** What the company made of its checks. */
export async function settingsOf(db: Executor, companyId: string): Promise<Map<string, Setting>> {
  const rows = await db.select().from(checkSetting).where(eq(checkSetting.companyId, companyId));
  return new Map(rows.flatMap((r) => (r.severity === null ? [] : [[r.code, r.severity as Setting] as const])));
}

async function toleranceOf(db: Executor, companyId: string): Promise<string | null> {
  const [row] = await db.select({ lets: company.taxTolerance }).from(company).where(eq(company.id, companyId));
  return row?.lets ?? null;
}

/** Everything that the checks find on a bill as it stands. */
export async function findingsOf(
  db: Executor,
  own: OwnCompany,
  record: BillRecord,
  lines: LineRecord[],
  today: string,
  rules?: ReadonlyMap<string, PostingLine['rule']>,
): Promise<Exception[]> {
  const [addressee] = record.addressedTo
    ? await db.select({ name: company.name }).from(company).where(eq(company.id, record.addressedTo))
    : [];
  const taxRules = rules ?? (await taxRulesOf(db, own.id))(record.issueDate ?? today);
  const [supplierOf] = record.supplierId ? await db.select().from(supplier).where(eq(supplier.id, record.supplierId)) : [];
  const charges = await chargesOf(db, [record.id]),
    parts = lines.map((l) => partsOf(l, charges));
  const ground = (await codingGround(db, own.id, parts.flat()))(record.issueDate ?? today);
  const facts: Facts = {
    baseCurrency: own.baseCurrency,
    taxRules,
    taxTolerance: await toleranceOf(db, own.id),
    duplicate: await twinOf(db, record),
    ...(await alikeTo(db, record)),
    ...(await lookFacts(db, record)),
    stockRows: new Set(
      (
        await stockOf(
          db,
          own.id,
          lines.filter((l) => l.kind === 'stock'),
        )
      ).keys(),
    ),
    ...(await verifyingOn(db, record.id)),
    today,
    known: supplierOf ? await supplierKnown(db, record, supplierOf, lines) : null,
    sender: supplierOf ? await senderOf(db, record, supplierOf) : null,
    hasRate: (await rateOn(db, own.id, record.currency, own.baseCurrency, record.issueDate ?? today)) !== null,
    addressedTo: addressee?.name ?? null,
    ...ground,
    charges: await chargeFacts(db, own, record, lines, charges, ground),
    ...(await supplierFacts(db, record, supplierOf)),
    ...(await documentFacts(db, record)),
    awaits: await awaitedBy(db, record, today),
    ...(await timeFacts(db, own, record, lines, today)),
    orders: await orderFacts(db, record, lines, taxRules),
  };
  // A row that is shared is coded as its goods are.
  const coded = lines.map((l, i) => ({ ...l, ...codingOf(parts[i]![0]!) }));
  return runChecks({ ...record, lines: coded } as CheckedBill, facts, await settingsOf(db, own.id));
}

const same = (a: { code: string; path: string; key: string }) => `${a.code} ${a.path} ${a.key}`;
type Kept = Awaited<ReturnType<typeof exceptionRowsOf>>[number];
/** Whether a person settled it for good: what a change settled opens again when it is found again. */
const forGood = (row: Kept | undefined): boolean => row !== undefined && row.state !== 'open' && row.how !== 'change';

/** What is found and not settled by a person. */
export const stillOpen = (found: Exception[], kept: Kept[]): Exception[] => {
  const known = new Map(kept.map((row) => [same(row), row]));
  return found.filter((e) => !forGood(known.get(same(e))));
};

/**
 * Runs the checks on a bill and keeps what they find: what is new is opened, what is not found any more was settled by a change. Part
 * of the caller's transaction; gives what is open.
 */
export async function recheck(
  tx: Executor,
  own: OwnCompany,
  record: BillRecord,
  by: { personId: string | null; now: Date },
): Promise<Exception[]> {
  const lines = await linesOf(tx, record.id),
    today = by.now.toISOString().slice(0, 10);
  const rules = (await taxRulesOf(tx, own.id))(record.issueDate ?? today);
  await rebind(tx, record, lines, rules);
  await shareAnew(tx, own, record, lines);
  const found = await findingsOf(tx, own, record, lines, today, rules);
  const kept = await exceptionRowsOf(tx, record.id);
  const known = new Map(kept.map((row) => [same(row), row])),
    there = new Set(found.map(same));
  const fresh = found.filter((e) => !known.has(same(e)));
  if (fresh.length)
    await tx.insert(billException).values(
      fresh.map(({ code, path, key, sentence, severity, found: says, expected }) => ({
        companyId: own.id,
        billId: record.id,
        code,
        path,
        key,
        sentence,
        severity,
        found: says,
        expected,
        openedAt: by.now,
      })),
    );
  for (const e of found) {
    const row = known.get(same(e));
    if (!row || forGood(row) || (row.state === 'open' && row.sentence === e.sentence && row.severity === e.severity)) continue;
    await tx
      .update(billException)
      .set({
        state: 'open',
        how: null,
        personId: null,
        settledAt: null,
        sentence: e.sentence,
        severity: e.severity,
        found: e.found,
        expected: e.expected,
      })
      .where(eq(billException.id, row.id));
  }
  const gone = kept.filter((row) => row.state === 'open' && !there.has(same(row))).map((row) => row.id);
  if (gone.length)
    await tx
      .update(billException)
      .set({ state: 'settled', how: 'change', personId: by.personId, settledAt: by.now })
      .where(inArray(billException.id, gone));
  return stillOpen(found, kept);
}

/** What bills a change of something else concerns. */
export type Concerned = 'all' | { supplierId: string } | { orderId: string } | { currency: string } | { coding: CodingField; id: string };

function concernedBy(of: Concerned) {
  if (of === 'all') return undefined;
  if ('supplierId' in of) return eq(bill.supplierId, of.supplierId);
  if ('orderId' in of)
    return sql`(exists (select 1 from line_match m join order_line l on l.id = m.order_line_id where m.bill_id = ${bill.id} and l.order_id = ${of.orderId}) or ${bill.supplierId} = (select o.supplier_id from purchase_order o where o.id = ${of.orderId}))`;
  if ('currency' in of) return eq(bill.currency, of.currency);
  const column = sql`l.${sql.identifier(billLine[of.coding].name)}`;
  return sql`exists (select 1 from bill_line l where l.bill_id = ${bill.id} and ${column} = ${of.id})`;
}

/** Runs the checks again on the bills under review that a change of something else concerns. Part of the caller's transaction. */
export async function recheckBills(
  tx: Executor,
  own: OwnCompany,
  of: Concerned,
  by: { personId: string | null; now: Date },
): Promise<void> {
  const records = await tx
    .select()
    .from(bill)
    .where(and(eq(bill.companyId, own.id), inArray(bill.stage, [...editable, 'set-aside']), concernedBy(of)))
    .orderBy(bill.id)
    .for('update');
  for (const record of records) await recheck(tx, own, record, by);
}
