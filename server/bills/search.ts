import { and, eq, inArray, isNull, ne, or, sql, type SQL } from 'drizzle-orm';
import { parseSearch, type BillRow, type BillsQuery, type NextBill } from '@ledgerline/contract';
import { isIsoDate } from '@ledgerline/core/dates';
import type { Asker } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { like } from '../db/column.ts';
import { findIds, type Find, type FindLimits } from '../db/finding.ts';
import { bill } from '../db/schema/index.ts';
import { decodeCursor } from '../http/cursor.ts';
import { suppliersLike } from '../suppliers/store.ts';
import { queueOrder, takeable } from './hands.ts';
import { inOrderOfNames, sorts } from './sorts.ts';
import { billRows, findBill } from './store.ts';

const dueBy = sorts.due.by,
  grossBy = sorts.total.by;

function dueWithin(word: string, today: string): SQL | undefined {
  const open = sql`${bill.stage} in ('read','returned','coded','approved','posted')`;
  // Nobody waits for a credit note.
  if (word === 'late') return and(open, ne(bill.kind, 'credit-note'), sql`${dueBy} < ${today}::date`);
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

/** The search field as conditions, as a search of the database has them. */
type Asked = Pick<Find, 'asked' | 'ways' | 'rare'>;

/** A word that was asked for: the suppliers that have it in their name (bills by id), and the bills that have it themselves. */
interface Word {
  text: string;
  suppliers: Map<string, number>;
  own: SQL;
}
const ofSuppliers = (ids: string[]): SQL => sql`${bill.supplierId} = any(${sql.param(ids)}::uuid[])`;

/** Suppliers with fewer bills than this together are rare: those are fetched sooner than a page of them is met in the list's order. */
const common = 16_000;

/** The ways to bills that have all words, each in the supplier's name or in themselves: by suppliers that have them all, and by own words. */
function byWords(words: Word[]): Pick<Find, 'ways' | 'rare'> {
  if (words.length === 0) return { ways: [], rare: null };
  const [first, ...rest] = words.map((w) => w.suppliers);
  const both = [...first!].filter(([id]) => rest.every((s) => s.has(id)));
  const each = words.map(({ suppliers, own }) => (suppliers.size > 0 ? sql`(${ofSuppliers([...suppliers.keys()])} or ${own})` : own));
  const own = words.length === 1 ? words[0]!.own : and(or(...words.map((w) => w.own)), ...each)!;
  const bills = both.reduce((n, [, of]) => n + of, 0);
  return {
    ways: both.length > 0 ? [ofSuppliers(both.map(([id]) => id)), own] : [own],
    rare: bills < common && words.some((w) => w.text.length >= 3) ? bills : null,
  };
}

/** In whose hands: me, nobody, or somebody by part of the name. */
const inHands = (hands: string, meId: string): SQL =>
  hands === 'me'
    ? eq(bill.assigneeId, meId)
    : hands === 'nobody'
      ? isNull(bill.assigneeId)
      : sql`${bill.assigneeId} in (select p.id from person p where p.name ilike ${like(hands)})`;

async function askedFor(db: Executor, { company: { id: companyId }, me }: Asker, q: string, today: string): Promise<Asked> {
  const s = parseSearch(q);
  const word = async (text: string, own: SQL): Promise<Word> => ({ text, own, suppliers: await suppliersLike(db, companyId, text) });
  const name =
    s.supplier && and(sql`${bill.supplierId} is null`, sql`${bill.supplierName} ilike ${like(s.supplier)}`, ownWord(s.supplier))!;
  const words = await Promise.all([...(s.supplier && name ? [word(s.supplier, name)] : []), ...s.text.map((w) => word(w, ownWord(w)))]);
  const named = byWords(words);
  const ways = [
    s.number ? and(ownWord(s.number), sql`${bill.invoiceNumber} ilike ${like(s.number)}`) : undefined,
    s.exception
      ? sql`${bill.id} in (select x.bill_id from bill_exception x where x.company_id = ${companyId}::uuid and x.state = 'open' and x.code = ${s.exception})`
      : undefined,
  ].filter((w) => w !== undefined);
  const asked = and(
    s.stage.length ? inArray(bill.stage, s.stage) : ne(bill.stage, 'discarded'),
    s.over ? sql`${grossBy} > ${s.over}::numeric` : undefined,
    s.under ? and(sql`${grossBy} < ${s.under}::numeric`, sql`${bill.gross} is not null`) : undefined,
    s.due ? dueWithin(s.due, today) : undefined,
    s.hands ? inHands(s.hands, me.id) : undefined,
    s.kind ? eq(bill.kind, s.kind === 'credit' ? 'credit-note' : s.kind) : undefined,
    s.currency ? eq(bill.currency, s.currency) : undefined,
  );
  // One kind of way at a time; what else is asked is asked of each row.
  if (named.ways.length > 0) return { ...named, asked: and(asked, ...ways), rare: ways.length > 0 ? (named.rare ?? 0) : named.rare };
  return { asked, ways: ways.length > 0 ? [and(...ways)!] : [], rare: s.exception !== null || (s.number?.length ?? 0) >= 3 ? 0 : null };
}

/**
 * One page of the list of bills: filtered, sorted and cut by the database, never counted (`../db/finding.ts` says how). Gives the sort
 * value of each row for the next page.
 */
export async function listBills(
  db: Executor,
  asker: Asker,
  query: BillsQuery,
  today: string,
  limits?: FindLimits,
): Promise<{ row: BillRow; key: string }[]> {
  const companyId = asker.company.id;
  const { by, type, shape, names } = sorts[query.sort ?? 'arrived'],
    way = query.order ?? 'desc',
    limit = query.limit ?? 100,
    order = [sql`${by} ${sql.raw(way)}`, sql`${bill.id} ${sql.raw(way)}`];
  const at = decodeCursor(query.cursor, shape);
  const beyond = at ? sql`(${by}, ${bill.id}) ${sql.raw(way === 'desc' ? '<' : '>')} (${at[0]}::${type}, ${at[1]}::uuid)` : undefined;
  const within = and(eq(bill.companyId, companyId), beyond);
  const find = await askedFor(db, asker, query.q ?? '', today);
  const inOrder = names && inOrderOfNames(companyId, names, way, at);
  if (!query.q?.trim() && !inOrder) return billRows(db, [within, find.asked], order, limit, by);
  const ids = await findIds(db, { table: 'bill', within, inOrder, ...find, keys: [by, sql`${bill.id}`], way, limit }, limits);
  return ids.length === 0 ? [] : billRows(db, [sql`${bill.id} = any(${sql.param(ids)}::uuid[])`], order, limit, by);
}

/**
 * The next bill of a queue after one, round to the first again, and how many wait (500 at most are counted). Review: what is in nobody's
 * or this person's hands, as the company orders it; approval: the oldest first, none that this person sent.
 */
export async function nextBill(
  db: Executor,
  companyId: string,
  personId: string,
  queue: 'review' | 'approve',
  after: string | undefined,
): Promise<NextBill> {
  const [which, order] =
    queue === 'review'
      ? [takeable(companyId, personId), await queueOrder(db, companyId)]
      : [
          and(eq(bill.companyId, companyId), eq(bill.stage, 'coded'), sql`${bill.sentBy} is distinct from ${personId}::uuid`),
          sql`${bill.createdAt} asc, ${bill.id} asc`,
        ];
  const rows = await db.select({ id: bill.id }).from(bill).where(which).orderBy(order).limit(500);
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
