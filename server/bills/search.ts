import { and, asc, eq, inArray, ne, sql, type SQL } from 'drizzle-orm';
import { parseSearch, type BillRow, type BillsQuery, type NextBill } from '@ledgerline/contract';
import { isIsoDate } from '@ledgerline/core/dates';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { bill, supplier } from '../db/schema/index.ts';
import { decodeCursor } from '../http/cursor.ts';
import { billRows, editable, findBill } from './store.ts';

/** What lists are sorted by: the expression, its type, and what a cursor of it looks like. */
const sorts = {
  arrived: { by: sql`${col(bill.createdAt)}`, type: sql.raw('timestamptz'), shape: 'moment' },
  due: { by: sql`coalesce(${col(bill.dueDate)}, '9999-12-31')`, type: sql.raw('date'), shape: 'day' },
  dated: { by: sql`coalesce(${col(bill.issueDate)}, '0001-01-01')`, type: sql.raw('date'), shape: 'day' },
  total: { by: sql`coalesce(${col(bill.gross)}, 0)`, type: sql.raw('numeric'), shape: 'number' },
} as const;

function dueWithin(word: string, today: string): SQL | undefined {
  const open = sql`${bill.stage} in ('read','returned','coded','approved','posted')`;
  if (word === 'late') return and(open, sql`${bill.dueDate} < ${today}::date`);
  if (word === 'today') return and(open, eq(bill.dueDate, today));
  if (word === 'this-week') return and(open, sql`${bill.dueDate} between ${today}::date and ${today}::date + 7`);
  if (word === 'this-month') return and(open, sql`date_trunc('month', ${bill.dueDate}) = date_trunc('month', ${today}::date)`);
  return isIsoDate(word) ? sql`${bill.dueDate} = ${word}::date` : sql`false`;
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
    s.exception
      ? sql`exists (select 1 from bill_exception x where x.bill_id = ${bill.id} and x.state = 'open' and x.code = ${s.exception})`
      : undefined,
    ...s.text.map(
      (word) =>
        sql`(${name} ilike ${like(word)} or ${bill.invoiceNumber} ilike ${like(word)} or ${bill.purchaseOrder} ilike ${like(word)})`,
    ),
  ];
}

/** One page of the list of bills: filtered, sorted and cut by the database, never counted. Gives the sort value of each row for the next page. */
export function listBills(db: Executor, companyId: string, query: BillsQuery, today: string): Promise<{ row: BillRow; key: string }[]> {
  const { by, type, shape } = sorts[query.sort ?? 'arrived'],
    desc = (query.order ?? 'desc') === 'desc';
  const at = decodeCursor(query.cursor, shape);
  const beyond = at ? sql`(${by}, ${bill.id}) ${sql.raw(desc ? '<' : '>')} (${at[0]}::${type}, ${at[1]}::uuid)` : undefined;
  return billRows(
    db,
    [eq(bill.companyId, companyId), beyond, ...conditions(query.q ?? '', today)],
    [desc ? sql`${by} desc` : sql`${by} asc`, desc ? sql`${bill.id} desc` : sql`${bill.id} asc`],
    query.limit ?? 100,
    by,
  );
}

const queues = { review: editable, approve: ['coded'] };
/** The next bill of a queue after one, oldest first, round to the first again; and how many wait (500 at most are counted). */
export async function nextBill(
  db: Executor,
  companyId: string,
  personId: string,
  queue: keyof typeof queues,
  after: string | undefined,
): Promise<NextBill> {
  const rows = await db
    .select({ id: bill.id })
    .from(bill)
    .where(
      and(eq(bill.companyId, companyId), inArray(bill.stage, queues[queue]), queue === 'approve' ? ne(bill.sentBy, personId) : undefined),
    )
    .orderBy(asc(bill.createdAt), asc(bill.id))
    .limit(500);
  const at = rows.findIndex((r) => r.id === after);
  const next = rows[at + 1] ?? rows.find((r) => r.id !== after) ?? null;
  return { id: next?.id ?? null, left: rows.length };
}

/** The last six bills of a bill's supplier beside it; null where the bill is not there. */
export async function sameSupplier(db: Executor, companyId: string, billId: string): Promise<BillRow[] | null> {
  const one = await findBill(db, companyId, billId);
  if (!one) return null;
  if (!one.supplierId) return [];
  const rows = await billRows(
    db,
    [eq(bill.companyId, companyId), eq(bill.supplierId, one.supplierId), ne(bill.id, billId), ne(bill.stage, 'discarded')],
    [sql`${bill.issueDate} desc nulls last`, sql`${bill.id} desc`],
    6,
  );
  return rows.map((r) => r.row);
}
