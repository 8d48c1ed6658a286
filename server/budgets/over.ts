import { sql } from 'drizzle-orm';
import type { Facts } from '@ledgerline/core/checks';
import { dec, fixed } from '@ledgerline/core/money';
import type { Executor } from '../db/client.ts';
import { billNet } from './store.ts';

interface Row extends Record<string, unknown> {
  line: string;
  account: string;
  centre: string | null;
  planned: string;
  spent: string;
  own: string;
}

/**
 * Budgets of a year that a bill's rows go over, with what was posted and what other bills that have gone on will be: each with the first row
 * that is on it. An account as a whole, and by cost centre, count by themselves.
 */
export async function overBudget(
  db: Executor,
  own: { id: string; baseCurrency: string },
  bill: { id: string },
  year: number,
): Promise<Facts['overBudget']> {
  const { rows } = await db.execute<Row>(sql`
    with lines as (${billNet(sql`b.id = ${bill.id}`)}),
    budgets as (
      select b.account_id, b.cost_centre_id, sum(b.amount) as planned from budget b
      where b.company_id = ${own.id} and b.year = ${year} and b.account_id in (select account_id from lines) group by 1, 2),
    hit as (
      select p.*, (select coalesce(sum(l.amount), 0) from lines l where l.account_id = p.account_id
          and (p.cost_centre_id is null or l.cost_centre_id = p.cost_centre_id)) as own,
        (select l.line_id from lines l where l.account_id = p.account_id and (p.cost_centre_id is null or l.cost_centre_id = p.cost_centre_id)
          order by l.position limit 1) as line
      from budgets p),
    waiting as (${billNet(sql`b.company_id = ${own.id} and b.id <> ${bill.id} and b.stage in ('coded', 'approved') and l.account_id in (select account_id from budgets) and extract(year from coalesce(b.issue_date, current_date)) = ${year}`)})
    select h.line, a.code as account, c.code as centre, h.planned::text as planned, h.own::text as own,
      ((select coalesce(sum(m.amount), 0) from account_month m where m.company_id = ${own.id} and m.account_id = h.account_id and m.year = ${year}
          and (h.cost_centre_id is null or m.cost_centre_id = h.cost_centre_id))
        + (select coalesce(sum(w.amount), 0) from waiting w where w.account_id = h.account_id
          and (h.cost_centre_id is null or w.cost_centre_id = h.cost_centre_id)))::text as spent
    from hit h join ledger_account a on a.id = h.account_id left join cost_centre c on c.id = h.cost_centre_id
    where h.line is not null order by a.code, c.code nulls first`);
  return rows.flatMap(({ line, account, centre, planned, spent, own: amount }) => {
    const over = dec(spent).plus(amount).minus(planned);
    return dec(amount).gt(0) && over.gt(0)
      ? [{ row: line, account, centre, year, planned: fixed(planned, own.baseCurrency), over: fixed(over, own.baseCurrency) }]
      : [];
  });
}
