import { sql } from 'drizzle-orm';
import { checks, holdsPayment } from '@ledgerline/core/checks';
import { fixed } from '@ledgerline/core/money';
import type { ExceptionCauses } from '@ledgerline/contract';
import { editable } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';

/** Stages of bills whose exceptions somebody can act on. */
export const inHand = [...editable, 'set-aside'];
/** What is open by cause, what is most at stake first, and how often each check was right. */
export async function exceptionCauses(db: Executor, own: { id: string; baseCurrency: string }): Promise<ExceptionCauses> {
  const { rows } = await db.execute<{
    code: string;
    open: number;
    stops: number;
    bills: number;
    amount: string | null;
    oldest: Date | string | null;
    ended: number;
    right: number;
  }>(sql`
    with rates as (select distinct on (currency) currency, rate from exchange_rate where company_id = ${own.id} order by currency, day desc),
    held as (
      select x.code, x.severity, x.opened_at, b.id,
        abs(b.gross) * case when b.currency = ${own.baseCurrency} then 1 else r.rate end as amount
      from bill_exception x join bill b on b.id = x.bill_id left join rates r on r.currency = b.currency
      where x.company_id = ${own.id} and x.state = 'open'
        and (b.stage in ${inHand} or (x.code in ${holdsPayment} and b.stage in ('coded', 'approved', 'posted')))),
    open as (
      select code, count(*)::int as open, count(*) filter (where severity = 'stops')::int as stops, count(distinct id)::int as bills, min(opened_at) as oldest
      from held group by code),
    stake as (select code, sum(amount) as amount from (select distinct code, id, amount from held) once group by code),
    past as (
      select code, count(*)::int as ended, count(*) filter (where how in ('change', 'debit-note') or how like 'choose:%')::int as right
      from bill_exception where company_id = ${own.id} and state <> 'open' group by code)
    select coalesce(o.code, p.code) as code, coalesce(o.open, 0) as open, coalesce(o.stops, 0) as stops, coalesce(o.bills, 0) as bills,
      s.amount::text as amount, o.oldest, coalesce(p.ended, 0) as ended, coalesce(p.right, 0) as right
    from open o full join past p on p.code = o.code left join stake s on s.code = o.code
    order by s.amount desc nulls last, code`);
  const known = new Map(checks.map((c) => [c.code, c.what]));
  const owners = await db.execute<{ id: string; name: string; open: number }>(
    sql`select p.id, p.name, count(*)::int as open from bill_exception x join bill b on b.id = x.bill_id join person p on p.id = b.assignee_id
        where x.company_id = ${own.id} and x.state = 'open' and b.stage in ${inHand} group by p.id, p.name order by p.name`,
  );
  return {
    owners: owners.rows,
    currency: own.baseCurrency,
    causes: rows
      .filter((r) => known.has(r.code))
      .map((r) => ({
        ...r,
        what: known.get(r.code)!,
        amount: fixed(r.amount ?? '0', own.baseCurrency),
        oldest: r.oldest === null ? null : new Date(r.oldest).toISOString(),
      })),
  };
}
