import { and, asc, eq, inArray, isNotNull, isNull, ne, sql, type SQL } from 'drizzle-orm';
import type { Bill, BillRow } from '@ledgerline/contract';
import { holdsPayment } from '@ledgerline/core/checks';
import { numberKey } from '@ledgerline/core/matching';
import { formatAmount } from '@ledgerline/core/money';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { arrival, bill, billException, billLine, document, event, exchangeRate, journalEntry, supplier } from '../db/schema/index.ts';

export type BillRecord = typeof bill.$inferSelect;
/** Stages in which a bill is in the clerk's hands. */
export const editable = ['read', 'returned'];
/** Acts by which somebody has made a bill or worked on it, and may not approve it. The database knows the same list. */
const workVerbs = ['made', 'moved', 'joined', 'changed', 'coded', 'settled', 'overruled'];

const openOf = (severity: 'stops' | 'asks') =>
  sql<number>`(select count(*)::int from bill_exception x where x.bill_id = ${col(bill.id)} and x.state = 'open' and x.severity = ${severity})`;
/** What a list shows of a bill; `bill` is joined with its supplier. */
const rowColumns = {
  id: bill.id,
  stage: bill.stage,
  kind: bill.kind,
  supplier: sql<string | null>`coalesce(${col(supplier.name)}, ${col(bill.supplierName)})`,
  supplierId: bill.supplierId,
  invoiceNumber: bill.invoiceNumber,
  issueDate: bill.issueDate,
  dueDate: bill.dueDate,
  currency: bill.currency,
  gross: bill.gross,
  arrivedAt: bill.createdAt,
  rowVersion: bill.rowVersion,
  sentBy: bill.sentBy,
  assignee: sql<string | null>`(select p.name from person p where p.id = ${col(bill.assigneeId)})`,
  asideUntil: bill.asideUntil,
  discountUntil: bill.discountUntil,
  entry: sql<
    string | null
  >`(select entry_number(je.year, je.number) from journal_entry je where je.source_type = 'bill' and je.source_id = ${col(bill.id)} and je.reverses is null)`,
  stops: openOf('stops'),
  asks: openOf('asks'),
};

/** Rows of bills by conditions and order, at most `limit`; `key` comes back beside each row, as text. */
export async function billRows(
  db: Executor,
  where: (SQL | undefined)[],
  order: SQL[],
  limit: number,
  key: SQL = sql`null`,
): Promise<{ row: BillRow; key: string }[]> {
  const rows = await db
    .select({ ...rowColumns, key: sql<string>`${key}::text` })
    .from(bill)
    .leftJoin(supplier, eq(supplier.id, bill.supplierId))
    .where(and(...where))
    .orderBy(...order)
    .limit(limit);
  return rows.map(({ key: at, ...row }) => ({
    key: at,
    row: { ...row, kind: row.kind as BillRow['kind'], arrivedAt: row.arrivedAt.toISOString() },
  }));
}

export async function findBill(db: Executor, companyId: string, id: string, lock = false): Promise<BillRecord | null> {
  const query = db
    .select()
    .from(bill)
    .where(and(eq(bill.companyId, companyId), eq(bill.id, id)));
  const [row] = lock ? await query.for('update') : await query;
  return row ?? null;
}

export const linesOf = (db: Executor, billId: string) =>
  db.select().from(billLine).where(eq(billLine.billId, billId)).orderBy(asc(billLine.position));

/** Everybody who changed the bill, settled something on it or sent it on. */
export async function workersOf(db: Executor, billId: string): Promise<string[]> {
  const rows = await db
    .selectDistinct({ id: event.personId })
    .from(event)
    .where(and(eq(event.subjectType, 'bill'), eq(event.subjectId, billId), inArray(event.verb, workVerbs), isNotNull(event.personId)));
  return rows.map((r) => r.id!);
}

export async function arrivalOf(db: Executor, documentId: string | null): Promise<Bill['arrival']> {
  if (!documentId) return null;
  const [row] = await db
    .select({
      channel: arrival.channel,
      sender: arrival.sender,
      subject: arrival.subject,
      receivedAt: arrival.receivedAt,
      documentName: document.name,
    })
    .from(document)
    .innerJoin(arrival, eq(arrival.id, document.arrivalId))
    .where(eq(document.id, documentId));
  return row ? { ...row, receivedAt: row.receivedAt.toISOString() } : null;
}

export async function entryOf(db: Executor, billId: string): Promise<Bill['entry']> {
  const [row] = await db
    .select({ id: journalEntry.id, number: sql<string>`entry_number(${col(journalEntry.year)}, ${col(journalEntry.number)})` })
    .from(journalEntry)
    .where(and(eq(journalEntry.sourceType, 'bill'), eq(journalEntry.sourceId, billId), isNull(journalEntry.reverses)));
  return row ?? null;
}

/** Closes one open exception of a bill as a person settled it. */
export async function closeException(
  tx: Executor,
  billId: string,
  of: { code: string; path: string; key: string },
  as: { state: 'settled' | 'overruled'; how: string; personId: string; reason: string | null; settledAt: Date },
): Promise<void> {
  await tx
    .update(billException)
    .set(as)
    .where(
      and(
        eq(billException.billId, billId),
        eq(billException.code, of.code),
        eq(billException.path, of.path),
        eq(billException.key, of.key),
        eq(billException.state, 'open'),
      ),
    );
}

/** Another live bill of this supplier with the same number, as people call it. */
export async function twinOf(db: Executor, one: BillRecord): Promise<string | null> {
  if (!one.supplierId || !one.invoiceNumber) return null;
  const [twin] = await db
    .select({ stage: bill.stage, issueDate: bill.issueDate, gross: bill.gross, currency: bill.currency })
    .from(bill)
    .where(
      and(
        eq(bill.companyId, one.companyId),
        eq(bill.supplierId, one.supplierId),
        eq(bill.kind, one.kind),
        ne(bill.id, one.id),
        sql`${bill.stage} not in ('discarded', 'reversed')`,
        // Looked up by what the database keeps of numbers.
        eq(bill.numberKey, numberKey(one.invoiceNumber)),
        sql`upper(regexp_replace(${bill.invoiceNumber}, '\\s', '', 'g')) = upper(regexp_replace(${one.invoiceNumber}, '\\s', '', 'g'))`,
      ),
    )
    .limit(1);
  return twin
    ? `another bill (${twin.issueDate ?? 'no date'}, ${twin.currency} ${twin.gross ? formatAmount(twin.gross, twin.currency) : '?'}, ${twin.stage})`
    : null;
}

/** Another bill of the same document that is not discarded. */
export async function heirOf(db: Executor, one: BillRecord): Promise<BillRecord | null> {
  if (!one.documentId) return null;
  const [heir] = await db
    .select()
    .from(bill)
    .where(and(eq(bill.documentId, one.documentId), ne(bill.id, one.id), ne(bill.stage, 'discarded')));
  return heir ?? null;
}

/** The last day whose rate a bill of `day` may take, as SQL: that day, or the first of its month where the company takes rates by month. */
export const lastRateDay = (rateBy: SQL, day: SQL): SQL =>
  sql`case ${rateBy} when 'month' then date_trunc('month', ${day}::date)::date else ${day}::date end`;

/** The latest rate until the `lastRateDay` of a day: base units for one of the currency. "1" in base currency; null when there is none. */
export async function rateOn(db: Executor, companyId: string, currency: string, base: string, day: string): Promise<string | null> {
  if (currency === base) return '1';
  const until = sql`(select ${lastRateDay(sql`rate_by`, sql`${day}`)} from company where id = ${companyId})`;
  const [row] = await db
    .select({ rate: exchangeRate.rate })
    .from(exchangeRate)
    .where(and(eq(exchangeRate.companyId, companyId), eq(exchangeRate.currency, currency), sql`${exchangeRate.day} <= ${until}`))
    .orderBy(sql`${exchangeRate.day} desc`)
    .limit(1);
  return row?.rate ?? null;
}

export const exceptionRowsOf = (db: Executor, billId: string) => db.select().from(billException).where(eq(billException.billId, billId));

/** What is still to be verified of a bill before it is paid; nothing of one that is not to be paid any more. */
export const heldOn = async (db: Executor, { id, stage }: BillRecord) =>
  ['discarded', 'reversed', 'paid'].includes(stage)
    ? []
    : db
        .select()
        .from(billException)
        .where(and(eq(billException.billId, id), eq(billException.state, 'open'), inArray(billException.code, [...holdsPayment])))
        .orderBy(billException.openedAt);
