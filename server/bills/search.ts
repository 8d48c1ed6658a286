import { and, asc, eq, inArray, ne, sql, type SQL } from 'drizzle-orm';
import { parseSearch, type BillRow, type BillsQuery, type NextBill } from '@ledgerline/contract';
import { isIsoDate } from '@ledgerline/core/dates';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { bill } from '../db/schema/index.ts';
import { decodeCursor } from '../http/cursor.ts';
import { suppliersLike } from '../suppliers/store.ts';
import { billRows, editable, findBill } from './store.ts';

const dueBy = sql`coalesce(${col(bill.dueDate)}, '9999-12-31')`,
  grossBy = sql`coalesce(${col(bill.gross)}, 0)`;
/** What lists are sorted by: the expression (as the index has it), its type, and what a cursor of it looks like. */
const sorts = {
  arrived: { by: sql`${col(bill.createdAt)}`, type: sql.raw('timestamptz'), shape: 'moment' },
  due: { by: dueBy, type: sql.raw('date'), shape: 'day' },
  dated: { by: sql`coalesce(${col(bill.issueDate)}, '0001-01-01')`, type: sql.raw('date'), shape: 'day' },
  total: { by: grossBy, type: sql.raw('numeric'), shape: 'number' },
} as const;

function dueWithin(word: string, today: string): SQL | undefined {
  const open = sql`${bill.stage} in ('read','returned','coded','approved','posted')`;
  if (word === 'late') return and(open, sql`${dueBy} < ${today}::date`);
  if (word === 'today') return and(open, sql`${dueBy} = ${today}::date`);
  if (word === 'this-week') return and(open, sql`${dueBy} between ${today}::date and ${today}::date + 7`);
  if (word === 'this-month')
    return and(
      open,
      sql`${dueBy} >= date_trunc('month', ${today}::date) and ${dueBy} < date_trunc('month', ${today}::date) + interval '1 month'`,
    );
  return isIsoDate(word) ? sql`${dueBy} = ${word}::date` : sql`false`;
}

/** A word of a bill itself: three letters or more are found anywhere, fewer at the beginning of a word. */
const ownWord = (word: string): SQL => sql`${bill.words} like ${like(word.length < 3 ? ` ${word.toLowerCase()}` : word.toLowerCase())}`;

/** A word in a bill's number or order, or in its supplier's name: as bills of the suppliers that have it, or bills that have it themselves. */
async function found(db: Executor, companyId: string, word: string): Promise<SQL> {
  const suppliers = await suppliersLike(db, companyId, word);
  return suppliers.length > 0 ? sql`(${bill.supplierId} = any(${sql.param(suppliers)}::uuid[]) or ${ownWord(word)})` : ownWord(word);
}

/** The search field's words as conditions. */
async function conditions(db: Executor, companyId: string, q: string, today: string): Promise<(SQL | undefined)[]> {
  const s = parseSearch(q);
  const named = async (name: string): Promise<SQL> => {
    const suppliers = await suppliersLike(db, companyId, name);
    const unnamed = and(sql`${bill.supplierId} is null`, sql`${bill.supplierName} ilike ${like(name)}`, ownWord(name))!;
    return suppliers.length > 0 ? sql`(${bill.supplierId} = any(${sql.param(suppliers)}::uuid[]) or ${unnamed})` : unnamed;
  };
  return [
    s.stage.length ? inArray(bill.stage, s.stage) : ne(bill.stage, 'discarded'),
    s.supplier ? await named(s.supplier) : undefined,
    s.number ? and(ownWord(s.number), sql`${bill.invoiceNumber} ilike ${like(s.number)}`) : undefined,
    s.over ? sql`${grossBy} > ${s.over}::numeric` : undefined,
    s.under ? and(sql`${grossBy} < ${s.under}::numeric`, sql`${bill.gross} is not null`) : undefined,
    s.due ? dueWithin(s.due, today) : undefined,
    s.kind ? eq(bill.kind, s.kind === 'credit' ? 'credit-note' : s.kind) : undefined,
    s.currency ? eq(bill.currency, s.currency) : undefined,
    s.exception
      ? sql`${bill.id} in (select x.bill_id from bill_exception x where x.company_id = ${companyId}::uuid and x.state = 'open' and x.code = ${s.exception})`
      : undefined,
    ...(await Promise.all(s.text.map((word) => found(db, companyId, word)))),
  ];
}

/** So many bills are looked through in their order before they are searched for by what they hold. */
const walked = 6000;

/**
 * One page of the list of bills: filtered, sorted and cut by the database, never counted. Gives the sort value of each row for the next
 * page. What is common is found within the first few thousand in the list's own order; what is not is rare, so that all of it is fetched
 * by its indexes and sorted: neither way looks through all bills.
 */
export async function listBills(
  db: Executor,
  companyId: string,
  query: BillsQuery,
  today: string,
): Promise<{ row: BillRow; key: string }[]> {
  const { by, type, shape } = sorts[query.sort ?? 'arrived'],
    way = sql.raw((query.order ?? 'desc') === 'desc' ? 'desc' : 'asc'),
    limit = query.limit ?? 100;
  const at = decodeCursor(query.cursor, shape);
  const beyond = at
    ? sql`(${by}, ${bill.id}) ${sql.raw((query.order ?? 'desc') === 'desc' ? '<' : '>')} (${at[0]}::${type}, ${at[1]}::uuid)`
    : undefined;
  const within = and(eq(bill.companyId, companyId), beyond);
  const asked = and(...(await conditions(db, companyId, query.q ?? '', today)));
  const order = sql`${by} ${way}, ${bill.id} ${way}`;
  const ids = async (statement: SQL) => (await db.execute<{ id: string }>(statement)).rows.map((r) => r.id);
  const first = await ids(
    sql`select bill.id from (select * from bill where ${within} order by ${order} limit ${walked}) bill where ${asked} order by ${order} limit ${limit}`,
  );
  // The sort value is disguised, so that the order's index is not walked to its end in search of what is rare.
  const chosen =
    first.length === limit || !query.q?.trim()
      ? first
      : await ids(
          sql`select id from (select ${bill.id}, ${by} as key from bill where ${within} and ${asked} offset 0) bill order by key ${way}, id ${way} limit ${limit}`,
        );
  return chosen.length === 0 ? [] : billRows(db, [inArray(bill.id, chosen)], [sql`${order}`], limit, by);
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
