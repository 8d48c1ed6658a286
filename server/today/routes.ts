import { and, asc, desc, eq, inArray, ne, or, sql, type SQL } from 'drizzle-orm';
import { may, type Today } from '@ledgerline/contract';
import { arrival, bill, document, openItem, supplier } from '../db/schema/index.ts';
import type { Api } from '../http/define.ts';
import { today } from '../services.ts';

export function todayRoutes(api: Api): void {
  api.define(
    { method: 'get', path: '/today', access: 'bills:see', summary: 'What waits for me, what came in, what falls due' },
    async ({ services, caller }): Promise<Today> => {
      const { db } = services.database;
      const id = caller.company.id,
        day = today(services),
        held = caller.company.roles;
      const ofCompany = eq(bill.companyId, id);
      const [counts] = await db
        .select({
          review: sql<number>`count(*) filter (where stage = 'read')::int`,
          returned: sql<number>`count(*) filter (where stage = 'returned')::int`,
          approve: sql<number>`count(*) filter (where stage = 'coded' and sent_by <> ${caller.me.id}::uuid)::int`,
          post: sql<number>`count(*) filter (where stage = 'approved')::int`,
        })
        .from(bill)
        .where(and(ofCompany, inArray(bill.stage, ['read', 'returned', 'coded', 'approved'])));
      const [unread] = await db
        .select({ n: sql<number>`count(*)::int` })
        .from(document)
        .where(and(eq(document.companyId, id), inArray(document.state, ['unreadable', 'waiting', 'reading'])));
      const mine: (SQL | undefined)[] = [
        may(held, 'bills:edit') ? inArray(bill.stage, ['read', 'returned']) : undefined,
        may(held, 'bills:approve') ? and(eq(bill.stage, 'coded'), ne(bill.sentBy, caller.me.id)) : undefined,
        may(held, 'bills:post') ? eq(bill.stage, 'approved') : undefined,
      ].filter(Boolean);
      const task = sql<string>`case ${bill.stage} when 'coded' then 'approve' when 'approved' then 'post' when 'returned' then 'returned' else 'review' end`;
      const oldest = mine.length
        ? await db
            .select({
              id: bill.id,
              task,
              supplier: sql<string | null>`coalesce(${supplier.name}, ${bill.supplierName})`,
              invoiceNumber: bill.invoiceNumber,
              currency: bill.currency,
              gross: bill.gross,
              since: bill.createdAt,
              dueDate: bill.dueDate,
            })
            .from(bill)
            .leftJoin(supplier, eq(supplier.id, bill.supplierId))
            .where(and(ofCompany, or(...mine)))
            .orderBy(sql`${bill.dueDate} asc nulls last`, asc(bill.createdAt))
            .limit(9)
        : [];
      const due = await db
        .select({
          label: sql<string>`case when due_date < ${day}::date then 'Late' when due_date <= ${day}::date + 7 then 'Next 7 days' when due_date <= ${day}::date + 30 then 'Next 30 days' else 'Later' end`,
          amount: sql<string>`round(sum(base_amount * (amount - settled) / amount), 2)::text`,
          count: sql<number>`count(*)::int`,
        })
        .from(openItem)
        .where(and(eq(openItem.companyId, id), sql`amount <> settled`))
        .groupBy(sql`1`);
      const week = await db.execute<{
        day: string;
        arrived: number;
        posted: number;
      }>(sql`select d::date::text as day, (select count(*)::int from bill b where b.company_id = ${id} and b.created_at >= d and b.created_at < d + interval '1 day') as arrived,
      (select count(*)::int from bill b where b.company_id = ${id} and b.posted_at >= d and b.posted_at < d + interval '1 day') as posted from generate_series(${day}::date - 13, ${day}::date, interval '1 day') d`);
      const latest = await db
        .select({
          id: arrival.id,
          channel: arrival.channel,
          sender: arrival.sender,
          subject: arrival.subject,
          receivedAt: arrival.receivedAt,
          note: arrival.note,
          documents: sql<number>`(select count(*)::int from document d where d.arrival_id = ${arrival.id})`,
        })
        .from(arrival)
        .where(eq(arrival.companyId, id))
        .orderBy(desc(arrival.receivedAt))
        .limit(6);
      const order = ['Late', 'Next 7 days', 'Next 30 days', 'Later'];
      return {
        waiting: { ...counts!, unread: unread!.n },
        oldest: oldest.map((o) => ({ ...o, since: o.since.toISOString() })),
        due: order.map((label) => due.find((d) => d.label === label) ?? { label, amount: '0.00', count: 0 }),
        week: week.rows.map(({ day: d, arrived, posted }) => ({ day: d, arrived, posted })),
        latest: latest.map((l) => ({ ...l, receivedAt: l.receivedAt.toISOString() })),
      };
    },
  );
}
