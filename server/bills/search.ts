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

/** The search field as conditions; `rare`: one of them is on words that few bills have, as far as is known. */
interface Asked {
  all: (SQL | undefined)[];
  rare: boolean;
  /** The database knows too little of words to find the quickest way by itself. */ byWords: boolean;
}

/** Bills of suppliers that have a word in their name, or bills that have it themselves (`own`); and whether these are few. */
async function named(db: Executor, companyId: string, word: string, own: SQL): Promise<{ is: SQL; rare: boolean }> {
  const { ids, bills } = await suppliersLike(db, companyId, word);
  const is = ids.length > 0 ? sql`(${bill.supplierId} = any(${sql.param(ids)}::uuid[]) or ${own})` : own;
  return { is, rare: word.length >= 3 && bills < common };
}

async function askedFor(db: Executor, companyId: string, q: string, today: string): Promise<Asked> {
  const s = parseSearch(q);
  const words = await Promise.all([
    ...(s.supplier
      ? [
          named(
            db,
            companyId,
            s.supplier,
            and(sql`${bill.supplierId} is null`, sql`${bill.supplierName} ilike ${like(s.supplier)}`, ownWord(s.supplier))!,
          ),
        ]
      : []),
    ...s.text.map((word) => named(db, companyId, word, ownWord(word))),
  ]);
  const all = [
    s.stage.length ? inArray(bill.stage, s.stage) : ne(bill.stage, 'discarded'),
    s.number ? and(ownWord(s.number), sql`${bill.invoiceNumber} ilike ${like(s.number)}`) : undefined,
    s.over ? sql`${grossBy} > ${s.over}::numeric` : undefined,
    s.under ? and(sql`${grossBy} < ${s.under}::numeric`, sql`${bill.gross} is not null`) : undefined,
    s.due ? dueWithin(s.due, today) : undefined,
    s.kind ? eq(bill.kind, s.kind === 'credit' ? 'credit-note' : s.kind) : undefined,
    s.currency ? eq(bill.currency, s.currency) : undefined,
    s.exception
      ? sql`${bill.id} in (select x.bill_id from bill_exception x where x.company_id = ${companyId}::uuid and x.state = 'open' and x.code = ${s.exception})`
      : undefined,
    ...words.map((w) => w.is),
  ];
  const byWords = words.length > 0 || s.number !== null || s.exception !== null;
  return { all, byWords, rare: words.some((w) => w.rare) || (s.number?.length ?? 0) >= 3 || s.exception !== null };
}

/** Suppliers with fewer bills than this together are rare: all of those are fetched sooner than a page of them is met in the list's order. */
const common = 8000;
/** What was thought to be rare and is not shows after so many. */
const few = 4000;
/** So many bills are looked through in their order before they are searched for by what they hold. */
const walked = 12_000;

/**
 * One page of the list of bills: filtered, sorted and cut by the database, never counted. Gives the sort value of each row for the next
 * page. Rare words are fetched by their indexes, all of them, and sorted; common ones are met soon in the list's own order. Neither way
 * looks through all bills; where the first turns out to be the wrong one, the other is taken.
 */
export async function listBills(
  db: Executor,
  companyId: string,
  query: BillsQuery,
  today: string,
): Promise<{ row: BillRow; key: string }[]> {
  const { by, type, shape } = sorts[query.sort ?? 'arrived'],
    way = sql.raw((query.order ?? 'desc') === 'desc' ? 'desc' : 'asc'),
    beyondIs = sql.raw((query.order ?? 'desc') === 'desc' ? '<' : '>'),
    limit = query.limit ?? 100;
  const at = decodeCursor(query.cursor, shape);
  const beyond = at ? sql`(${by}, ${bill.id}) ${beyondIs} (${at[0]}::${type}, ${at[1]}::uuid)` : undefined;
  const within = and(eq(bill.companyId, companyId), beyond);
  const { all, rare, byWords } = await askedFor(db, companyId, query.q ?? '', today);
  const asked = and(...all),
    order = sql`${by} ${way}, ${bill.id} ${way}`;
  if (!query.q?.trim()) return billRows(db, [within, asked], [order], limit, by);
  const ids = async (statement: SQL) => (await db.execute<{ id: string; n?: number }>(statement)).rows;
  // The order is hidden from the database, so that it fetches by what is asked and does not go through all bills in order.
  const fetched = (most: SQL) =>
    sql`select id, count(*) over () as n from (select ${bill.id}, ${by} as key from bill where ${within} and ${asked} ${most} offset 0) bill order by key ${way}, id ${way} limit ${limit}`;
  const inOrder = sql`select bill.id from (select * from bill where ${within} order by ${order} limit ${walked}) bill where ${asked} order by ${order} limit ${limit}`;
  let chosen = rare ? await ids(fetched(sql`limit ${few}`)) : await ids(inOrder);
  if (rare && Number(chosen[0]?.n ?? 0) === few) chosen = await ids(inOrder);
  else if (rare) return rowsOf(db, chosen, order, limit, by);
  if (chosen.length < limit)
    chosen = await ids(
      byWords ? fetched(sql``) : sql`select ${bill.id} from bill where ${within} and ${asked} order by ${order} limit ${limit}`,
    );
  return rowsOf(db, chosen, order, limit, by);
}

const rowsOf = (db: Executor, chosen: { id: string }[], order: SQL, limit: number, by: SQL) =>
  chosen.length === 0
    ? []
    : billRows(
        db,
        [
          inArray(
            bill.id,
            chosen.map((c) => c.id),
          ),
        ],
        [order],
        limit,
        by,
      );

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
