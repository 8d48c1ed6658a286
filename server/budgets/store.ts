import { sql, type SQL } from 'drizzle-orm';
import type { BudgetRow } from '@ledgerline/contract';
import { lastRateDay } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { like } from '../db/column.ts';

interface Found {
  account_id: string;
  account: string;
  cost_centre_id: string | null;
  cost_centre: string | null;
  months: Record<string, string>;
  planned: string;
  posted: string;
  waiting: string;
}

/** Where a budget stands in its year: its account's code and its cost centre's, which have no spaces; those of an account's whole first. */
export const budgetAt = (row: BudgetRow): string => `${row.account.split(' ')[0]} ${row.costCentre?.split(' ')[0] ?? ''}`;

const billDay = sql`coalesce(b.issue_date, current_date)`;

/** The rate of tax code `t` on a bill's day, as `rateOnDay` of core. */
const taxRate = sql`coalesce((select (e ->> 'rate')::numeric from jsonb_array_elements(t.later_rates) e
  where (e ->> 'from')::date <= ${billDay} order by e ->> 'from' desc limit 1), t.rate)`;

/** A line's amount without tax in the company's currency, below zero on a credit note. */
const lineNet = sql`case b.kind when 'credit-note' then -l.amount else l.amount end * coalesce(r.rate, 1)
  / case when b.prices_include_tax and not t.reverse_charge then 1 + ${taxRate} / 100 else 1 end`;

/**
 * The lines of bills `b` that a condition fits, with what each takes of budgets: in the company's currency, without tax. A charge that is
 * shared takes where its goods are.
 */
export const billNet = (fits: SQL): SQL => sql`
  select l.id as line_id, l.position, l.account_id, l.cost_centre_id, ${lineNet} as amount
  from bill b join bill_line w on w.bill_id = b.id join company o on o.id = b.company_id
  cross join lateral (select w.id, w.position, w.tax_code_id, coalesce(s.amount, w.amount) as amount, coalesce(s.account_id, w.account_id) as account_id,
    case when s.account_id is null then w.cost_centre_id else s.cost_centre_id end as cost_centre_id
    from (select 1) one left join charge_share s on s.bill_line_id = w.id and w.kind = 'charge') l
  left join tax_code t on t.id = l.tax_code_id
  left join lateral (select rate from exchange_rate x where x.company_id = b.company_id and x.currency = b.currency
    and b.currency <> o.base_currency and x.day <= ${lastRateDay(sql`o.rate_by`, billDay)} order by x.day desc limit 1) r on true
  where l.account_id is not null and ${fits}`;

/** One page of a year's budgets by account and cost centre, with what was posted and what waits in bills that are not posted. */
export async function listBudgets(
  db: Executor,
  companyId: string,
  year: number,
  q: string,
  after: string | null,
  limit: number,
): Promise<BudgetRow[]> {
  const words = q.trim(),
    [account = '', centre = ''] = after?.split(' ') ?? [];
  const { rows } = await db.execute<Found & Record<string, unknown>>(sql`
    with page as (
      select b.account_id, b.cost_centre_id, a.code as account_code, coalesce(c.code, '') as centre_code,
        a.code || ' ' || a.name as account, c.code || ' ' || c.name as cost_centre,
        jsonb_object_agg(b.month, b.amount::text) as months, sum(b.amount) as planned
      from budget b join ledger_account a on a.id = b.account_id left join cost_centre c on c.id = b.cost_centre_id
      where b.company_id = ${companyId} and b.year = ${year}
        and (${words} = '' or a.code || ' ' || a.name || ' ' || coalesce(c.code || ' ' || c.name, '') ilike ${like(words)})
      group by b.account_id, b.cost_centre_id, a.code, a.name, c.code, c.name
      having ${after === null ? sql`true` : sql`(a.code, coalesce(c.code, '')) > (${account}, ${centre})`}
      order by a.code, coalesce(c.code, '') limit ${limit}),
    open as (
      select n.account_id, n.cost_centre_id, sum(n.amount) as amount from (${billNet(
        sql`b.company_id = ${companyId} and b.stage in ('read', 'coded', 'approved', 'set-aside', 'returned') and extract(year from ${billDay}) = ${year}`,
      )}) n group by 1, 2)
    select p.account_id, p.account, p.cost_centre_id, p.cost_centre, p.months, p.planned::text as planned,
      (select coalesce(sum(m.amount), 0)::text from account_month m where m.company_id = ${companyId} and m.account_id = p.account_id
        and m.year = ${year} and (p.cost_centre_id is null or m.cost_centre_id = p.cost_centre_id)) as posted,
      (select coalesce(round(sum(w.amount), 2), 0)::text from open w where w.account_id = p.account_id
        and (p.cost_centre_id is null or w.cost_centre_id = p.cost_centre_id)) as waiting
    from page p order by p.account_code, p.centre_code`);
  return rows.map((r) => ({
    accountId: r.account_id,
    account: r.account,
    costCentreId: r.cost_centre_id,
    costCentre: r.cost_centre,
    months: Array.from({ length: 12 }, (_, i) => r.months[String(i + 1)] ?? null),
    year: r.planned,
    posted: r.posted,
    waiting: r.waiting,
  }));
}
