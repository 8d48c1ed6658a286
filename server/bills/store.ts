import { and, asc, eq, inArray, ne, sql, type SQL } from 'drizzle-orm';
import { parseSearch, type Bill, type BillRow, type BillsQuery } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { arrival, bill, billEvent, billLine, document, exchangeRate, journalEntry, person, supplier } from '../db/schema/index.ts';
import { decodeCursor } from '../http/cursor.ts';

const sorts = {
  arrived: sql`${bill.createdAt}`,
  due: sql`coalesce(${bill.dueDate}, '9999-12-31')`,
  dated: sql`coalesce(${bill.issueDate}, '0001-01-01')`,
  total: sql`coalesce(${bill.gross}, 0)`,
};
const types = { arrived: sql.raw('timestamptz'), due: sql.raw('date'), dated: sql.raw('date'), total: sql.raw('numeric') };
/** A LIKE pattern for text that a person typed. */
const like = (text: string): string => `%${text.replace(/[\\%_]/g, '\\$&')}%`;

function dueWithin(word: string, today: string): SQL | undefined {
  const open = sql`${bill.stage} in ('read','returned','coded','approved','posted')`;
  if (word === 'late') return and(open, sql`${bill.dueDate} < ${today}::date`);
  if (word === 'today') return and(open, eq(bill.dueDate, today));
  if (word === 'this-week') return and(open, sql`${bill.dueDate} between ${today}::date and ${today}::date + 7`);
  if (word === 'this-month') return and(open, sql`date_trunc('month', ${bill.dueDate}) = date_trunc('month', ${today}::date)`);
  return /^\d{4}-\d{2}-\d{2}$/.test(word) ? sql`${bill.dueDate} = ${word}::date` : sql`false`;
}

/** The search field's words as conditions. */
function conditions(q: string, today: string): (SQL | undefined)[] {
  const s = parseSearch(q);
  const name = sql`coalesce(${supplier.name}, ${bill.supplierName}, '')`;
  return [
    s.stage.length ? inArray(bill.stage, s.stage) : ne(bill.stage, 'discarded'),
    s.supplier ? sql`${name} ilike ${like(s.supplier)}` : undefined,
    s.number ? sql`${bill.invoiceNumber} ilike ${like(s.number)}` : undefined,
    s.over ? sql`${bill.gross} > ${s.over}::numeric` : undefined,
    s.under ? sql`${bill.gross} < ${s.under}::numeric` : undefined,
    s.due ? dueWithin(s.due, today) : undefined,
    s.kind ? eq(bill.kind, s.kind === 'credit' ? 'credit-note' : s.kind) : undefined,
    s.currency ? eq(bill.currency, s.currency) : undefined,
    ...s.text.map(
      (word) =>
        sql`(${name} ilike ${like(word)} or ${bill.invoiceNumber} ilike ${like(word)} or ${bill.purchaseOrder} ilike ${like(word)})`,
    ),
  ];
}

/** One page of the list of bills: filtered, sorted and cut by the database, never counted. Gives the sort value of each row for the next page. */
export async function listBills(
  db: Executor,
  companyId: string,
  query: BillsQuery,
  today: string,
): Promise<{ row: BillRow; key: string }[]> {
  const sort = query.sort ?? 'arrived',
    desc = (query.order ?? 'desc') === 'desc';
  const column = sorts[sort];
  const at = decodeCursor(query.cursor);
  const beyond = at ? sql`(${column}, ${bill.id}) ${sql.raw(desc ? '<' : '>')} (${at[0]}::${types[sort]}, ${at[1]}::uuid)` : undefined;
  const rows = await db
    .select({
      id: bill.id,
      stage: bill.stage,
      kind: bill.kind,
      supplier: sql<string | null>`coalesce(${supplier.name}, ${bill.supplierName})`,
      supplierId: bill.supplierId,
      invoiceNumber: bill.invoiceNumber,
      issueDate: bill.issueDate,
      dueDate: bill.dueDate,
      currency: bill.currency,
      gross: bill.gross,
      arrivedAt: bill.createdAt,
      rowVersion: bill.rowVersion,
      sentBy: bill.sentBy,
      unsure: sql<number>`jsonb_array_length(${bill.unsure})`,
      entry: sql<
        string | null
      >`(select je.year || '-' || lpad(je.number::text, 5, '0') from journal_entry je where je.bill_id = ${bill.id} and je.kind = 'bill')`,
      key: sql<string>`${column}::text`,
    })
    .from(bill)
    .leftJoin(supplier, eq(supplier.id, bill.supplierId))
    .where(and(eq(bill.companyId, companyId), beyond, ...conditions(query.q ?? '', today)))
    .orderBy(desc ? sql`${column} desc` : sql`${column} asc`, desc ? sql`${bill.id} desc` : asc(bill.id))
    .limit(query.limit ?? 100);
  return rows.map(({ key, ...row }) => ({
    key,
    row: { ...row, kind: row.kind as BillRow['kind'], arrivedAt: row.arrivedAt.toISOString() },
  }));
}

export async function findBill(db: Executor, companyId: string, id: string, lock = false) {
  const query = db
    .select()
    .from(bill)
    .where(and(eq(bill.companyId, companyId), eq(bill.id, id)));
  const [row] = lock ? await query.for('update') : await query;
  return row ?? null;
}

export const linesOf = (db: Executor, billId: string) =>
  db.select().from(billLine).where(eq(billLine.billId, billId)).orderBy(asc(billLine.position));

export async function eventsOf(db: Executor, billId: string): Promise<Bill['events']> {
  const rows = await db
    .select({ what: billEvent.what, person: person.name, note: billEvent.note, at: billEvent.at })
    .from(billEvent)
    .leftJoin(person, eq(person.id, billEvent.personId))
    .where(eq(billEvent.billId, billId))
    .orderBy(asc(billEvent.at), asc(billEvent.id));
  return rows.map((r) => ({ ...r, at: r.at.toISOString() }));
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
    .select({ id: journalEntry.id, year: journalEntry.year, number: journalEntry.number })
    .from(journalEntry)
    .where(and(eq(journalEntry.billId, billId), eq(journalEntry.kind, 'bill')));
  return row ? { id: row.id, number: `${row.year}-${String(row.number).padStart(5, '0')}` } : null;
}

/** Another live bill of this supplier with the same number, as people call it. */
export async function twinOf(db: Executor, one: typeof bill.$inferSelect): Promise<string | null> {
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
        ne(bill.stage, 'discarded'),
        sql`upper(regexp_replace(${bill.invoiceNumber}, '\\s', '', 'g')) = upper(regexp_replace(${one.invoiceNumber}, '\\s', '', 'g'))`,
      ),
    )
    .limit(1);
  return twin ? `another bill (${twin.issueDate ?? 'no date'}, ${twin.currency} ${twin.gross ?? '?'}, ${twin.stage})` : null;
}

/** The latest rate on or before a day: base units for one of the currency. "1" in base currency; null when there is none. */
export async function rateOn(db: Executor, companyId: string, currency: string, base: string, day: string): Promise<string | null> {
  if (currency === base) return '1';
  const [row] = await db
    .select({ rate: exchangeRate.rate })
    .from(exchangeRate)
    .where(and(eq(exchangeRate.companyId, companyId), eq(exchangeRate.currency, currency), sql`${exchangeRate.day} <= ${day}::date`))
    .orderBy(sql`${exchangeRate.day} desc`)
    .limit(1);
  return row?.rate ?? null;
}
