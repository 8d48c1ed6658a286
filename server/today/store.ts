import { and, asc, desc, eq, inArray, or, sql, type SQL } from 'drizzle-orm';
import { may, type Today } from '@ledgerline/contract';
import type { Caller } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { unseenBy } from '../notes/store.ts';
import { arrival, bill, companyOwed, document, supplier } from '../db/schema/index.ts';

/** How many bills wait for each step, and how many documents are not read. */
async function waitingFor(db: Executor, caller: Caller): Promise<Today['waiting']> {
  const companyId = caller.company.id;
  const [counts] = await db
    .select({
      review: sql<number>`count(*) filter (where ${col(bill.stage)} = 'read')::int`,
      returned: sql<number>`count(*) filter (where ${col(bill.stage)} = 'returned')::int`,
      approve: sql<number>`count(*) filter (where ${col(bill.stage)} = 'coded' and ${col(bill.sentBy)} is distinct from ${caller.me.id}::uuid)::int`,
      post: sql<number>`count(*) filter (where ${col(bill.stage)} = 'approved')::int`,
    })
    .from(bill)
    .where(and(eq(bill.companyId, companyId), inArray(bill.stage, ['read', 'returned', 'coded', 'approved'])));
  const [unread] = await db
    .select({ n: sql<number>`count(*)::int` })
    .from(document)
    .where(and(eq(document.companyId, companyId), inArray(document.state, ['unreadable', 'waiting', 'reading'])));
  return { ...counts!, unread: unread!.n };
}

/** What waits for this person, what falls due first at the front. */
async function oldestFor(db: Executor, caller: Caller): Promise<Today['oldest']> {
  const held = caller.company.roles;
  const mine = [
    may(held, 'bills:edit') ? inArray(bill.stage, ['read', 'returned']) : undefined,
    may(held, 'bills:approve') ? and(eq(bill.stage, 'coded'), sql`${bill.sentBy} is distinct from ${caller.me.id}::uuid`) : undefined,
    may(held, 'bills:post') ? eq(bill.stage, 'approved') : undefined,
  ].filter((c) => c !== undefined);
  if (mine.length === 0) return [];
  const rows = await db
    .select({
      id: bill.id,
      task: sql<string>`case ${col(bill.stage)} when 'coded' then 'approve' when 'approved' then 'post' when 'returned' then 'returned' else 'review' end`,
      supplier: sql<string | null>`coalesce(${col(supplier.name)}, ${col(bill.supplierName)})`,
      invoiceNumber: bill.invoiceNumber,
      currency: bill.currency,
      gross: bill.gross,
      since: bill.createdAt,
      dueDate: bill.dueDate,
    })
    .from(bill)
    .leftJoin(supplier, eq(supplier.id, bill.supplierId))
    .where(and(eq(bill.companyId, caller.company.id), or(...mine)))
    .orderBy(sql`${bill.dueDate} asc nulls last`, asc(bill.createdAt))
    .limit(9);
  return rows.map((row) => ({ ...row, since: row.since.toISOString() }));
}

const buckets = ['Late', 'Next 7 days', 'Next 30 days', 'Later'];
/** What is owed, by when it falls due, in base currency; what suppliers owe back stands apart as credits. From the sums of each day that the database keeps. */
async function dueFor(db: Executor, companyId: string, day: string): Promise<Today['due']> {
  const rows = await db
    .select({
      label: sql<string>`case when ${col(companyOwed.back)} then 'Credits' when ${col(companyOwed.dueDate)} < ${day}::date then 'Late' when ${col(companyOwed.dueDate)} <= ${day}::date + 7 then 'Next 7 days' when ${col(companyOwed.dueDate)} <= ${day}::date + 30 then 'Next 30 days' else 'Later' end`,
      amount: sql<string>`round(sum(${col(companyOwed.amount)}), 2)::text`,
      count: sql<number>`sum(${col(companyOwed.items)})::int`,
    })
    .from(companyOwed)
    .where(and(eq(companyOwed.companyId, companyId), sql`${companyOwed.items} > 0`))
    .groupBy(sql`1`);
  const credits = rows.find((r) => r.label === 'Credits');
  return [
    ...buckets.map((label) => rows.find((r) => r.label === label) ?? { label, amount: '0.00', count: 0 }),
    ...(credits ? [credits] : []),
  ];
}

/** Bills that came in and that were posted, day by day, the last fourteen days. */
async function weekOf(db: Executor, companyId: string, day: string): Promise<Today['week']> {
  const counted = (moment: SQL) =>
    sql`select (${moment})::date as day, count(*)::int as n from bill where company_id = ${companyId}::uuid and ${moment} >= ${day}::date - 13 and ${moment} < ${day}::date + 1 group by 1`;
  const { rows } = await db.execute<{ day: string; arrived: number; posted: number }>(
    sql`select d::date::text as day, coalesce(a.n, 0) as arrived, coalesce(p.n, 0) as posted from generate_series(${day}::date - 13, ${day}::date, interval '1 day') d
      left join (${counted(sql`created_at`)}) a on a.day = d::date left join (${counted(sql`posted_at`)}) p on p.day = d::date order by 1`,
  );
  return rows.map(({ day: d, arrived, posted }) => ({ day: d, arrived, posted }));
}

async function latestOf(db: Executor, companyId: string): Promise<Today['latest']> {
  const rows = await db
    .select({
      id: arrival.id,
      channel: arrival.channel,
      sender: arrival.sender,
      subject: arrival.subject,
      receivedAt: arrival.receivedAt,
      note: arrival.note,
      documents: sql<number>`(select count(*)::int from document d where d.arrival_id = ${col(arrival.id)})`,
    })
    .from(arrival)
    .where(eq(arrival.companyId, companyId))
    .orderBy(desc(arrival.receivedAt))
    .limit(6);
  return rows.map((row) => ({ ...row, receivedAt: row.receivedAt.toISOString() }));
}

/** Today as one person of one company sees it. */
export async function todayFor(db: Executor, caller: Caller, day: string): Promise<Today> {
  const id = caller.company.id;
  return {
    waiting: await waitingFor(db, caller),
    oldest: await oldestFor(db, caller),
    mentions: await unseenBy(db, id, caller.me.id),
    due: await dueFor(db, id, day),
    week: await weekOf(db, id, day),
    latest: await latestOf(db, id),
  };
}
