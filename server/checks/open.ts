import { and, eq, sql } from 'drizzle-orm';
import { checkOf, checks, holdsPayment } from '@ledgerline/core/checks';
import { fixed } from '@ledgerline/core/money';
import type { ExceptionCauses, ExceptionsQuery, OpenException } from '@ledgerline/contract';
import { editable } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { bill, billException, person, supplier } from '../db/schema/index.ts';
import { overrulersOf, settledFor } from './overrule.ts';

/** Stages of bills whose exceptions somebody can act on. */
const inHand = [...editable, 'set-aside'];
/** What holds a payment is to be seen to until it is paid. */
const actedOn = sql`(${bill.stage} in ${inHand} or (${billException.code} in ${holdsPayment} and ${bill.stage} in ('coded', 'approved', 'posted')))`;

/** What settles a check’s findings without changing the bill; `by`: of the ways that somebody has. */
export function settlesOf(code: string, by: readonly string[] = checkOf(code)?.settledBy ?? []): OpenException['settles'] {
  return by.includes('confirm') ? 'confirm' : by.includes('overrule') ? 'overrule' : null;
}

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
  return {
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

/** One page of what is open on bills under review, the oldest first. */
export async function openExceptions(
  db: Executor,
  { id: companyId, roles }: { id: string; roles: readonly string[] },
  me: string,
  { code, q = '', mine }: ExceptionsQuery,
  after: [at: string, id: string] | null,
  limit: number,
): Promise<OpenException[]> {
  const words = q.trim(),
    by = await overrulersOf(db, companyId);
  const rows = await db
    .select({
      x: billException,
      supplier: sql<string | null>`coalesce(${col(supplier.name)}, ${col(bill.supplierName)})`,
      invoiceNumber: bill.invoiceNumber,
      gross: bill.gross,
      currency: bill.currency,
      stage: bill.stage,
      owner: person.name,
    })
    .from(billException)
    .innerJoin(bill, eq(bill.id, billException.billId))
    .leftJoin(supplier, eq(supplier.id, bill.supplierId))
    .leftJoin(person, eq(person.id, bill.assigneeId))
    .where(
      and(
        eq(billException.companyId, companyId),
        eq(billException.state, 'open'),
        actedOn,
        code ? eq(billException.code, code) : undefined,
        mine ? eq(bill.assigneeId, me) : undefined,
        words
          ? sql`(coalesce(${supplier.name}, ${bill.supplierName}, '') ilike ${like(words)} or coalesce(${bill.invoiceNumber}, '') ilike ${like(words)} or ${billException.sentence} ilike ${like(words)})`
          : undefined,
        after
          ? sql`(date_trunc('milliseconds', ${billException.openedAt}), ${billException.id}) > (${after[0]}::timestamptz, ${after[1]}::uuid)`
          : undefined,
      ),
    )
    .orderBy(sql`date_trunc('milliseconds', ${billException.openedAt})`, billException.id)
    .limit(limit);
  return rows.map(({ x, ...of }) => ({
    id: x.id,
    billId: x.billId,
    code: x.code,
    path: x.path,
    key: x.key,
    sentence: x.sentence,
    severity: x.severity as OpenException['severity'],
    openedAt: x.openedAt.toISOString(),
    ...of,
    settles: settlesOf(x.code, settledFor(x.code, roles, by(x.code))),
  }));
}
