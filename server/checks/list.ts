import { and, eq, isNull, sql, type SQL } from 'drizzle-orm';
import { checkOf, holdsPayment } from '@ledgerline/core/checks';
import type { ExceptionsQuery, OpenException } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { bill, billException, person, supplier } from '../db/schema/index.ts';
import type { decodeCursor } from '../http/cursor.ts';
import { inHand } from './open.ts';
import { overrulersOf, settledFor } from './overrule.ts';

/** What holds a payment is to be seen to until it is paid. */
const actedOn = sql`(${bill.stage} in ${inHand} or (${billException.code} in ${holdsPayment} and ${bill.stage} in ('coded', 'approved', 'posted')))`;

/** What settles a check’s findings without changing the bill; `by`: of the ways that somebody has. */
export function settlesOf(code: string, by: readonly string[] = checkOf(code)?.settledBy ?? []): OpenException['settles'] {
  return by.includes('confirm') ? 'confirm' : by.includes('overrule') ? 'overrule' : null;
}

type Own = { id: string; baseCurrency: string; roles: readonly string[] };
export type ExceptionSort = NonNullable<ExceptionsQuery['sort']>;

/** What the list is sorted by: the expression, its type, and what a cursor of it looks like; the id tells apart what is alike. */
export const exceptionSorts: Record<ExceptionSort, { by(own: Own): SQL; type: string; shape: Parameters<typeof decodeCursor>[1] }> = {
  age: { by: () => sql`date_trunc('milliseconds', ${col(billException.openedAt)})`, type: 'timestamptz', shape: 'moment' },
  // In the company's currency at the latest rate; what has no total or no rate is at the end.
  stake: {
    by: (own) =>
      sql`coalesce(round(abs(${col(bill.gross)}) * case when ${col(bill.currency)} = ${own.baseCurrency} then 1 else (select r.rate from exchange_rate r
        where r.company_id = ${own.id} and r.currency = ${col(bill.currency)} order by r.day desc limit 1) end, 4), 0)`,
    type: 'numeric',
    shape: 'number',
  },
  supplier: { by: () => sql`lower(coalesce(${col(supplier.name)}, ${col(bill.supplierName)}, ''))`, type: 'text', shape: 'text' },
  owner: { by: () => sql`lower(coalesce(${col(person.name)}, ''))`, type: 'text', shape: 'text' },
};

/** One page of what is open on bills under review; the oldest first where nothing else is asked. */
export async function openExceptions(
  db: Executor,
  own: Own,
  me: string,
  { code, q = '', owner, sort = 'age', order = 'asc' }: ExceptionsQuery,
  after: [key: string, id: string] | null,
  limit: number,
): Promise<{ row: OpenException; key: string }[]> {
  const words = q.trim(),
    by = await overrulersOf(db, own.id),
    key = exceptionSorts[sort].by(own),
    [way, beyond] = order === 'asc' ? [sql.raw('asc'), sql.raw('>')] : [sql.raw('desc'), sql.raw('<')];
  const rows = await db
    .select({
      x: billException,
      key: sql<string>`${key}::text`,
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
        eq(billException.companyId, own.id),
        eq(billException.state, 'open'),
        actedOn,
        code ? eq(billException.code, code) : undefined,
        owner === 'nobody' ? isNull(bill.assigneeId) : owner ? eq(bill.assigneeId, owner === 'me' ? me : owner) : undefined,
        words
          ? sql`(coalesce(${supplier.name}, ${bill.supplierName}, '') ilike ${like(words)} or coalesce(${bill.invoiceNumber}, '') ilike ${like(words)} or ${billException.sentence} ilike ${like(words)})`
          : undefined,
        after
          ? sql`(${key}, ${col(billException.id)}) ${beyond} (${after[0]}::${sql.raw(exceptionSorts[sort].type)}, ${after[1]}::uuid)`
          : undefined,
      ),
    )
    .orderBy(sql`${key} ${way}`, sql`${col(billException.id)} ${way}`)
    .limit(limit);
  return rows.map(({ x, key: at, ...of }) => ({
    key: at,
    row: {
      id: x.id,
      billId: x.billId,
      code: x.code,
      path: x.path,
      key: x.key,
      sentence: x.sentence,
      found: x.found,
      expected: x.expected,
      severity: x.severity as OpenException['severity'],
      openedAt: x.openedAt.toISOString(),
      ...of,
      settles: settlesOf(x.code, settledFor(x.code, own.roles, by(x.code))),
    },
  }));
}
