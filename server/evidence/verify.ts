import { asc, sql, type SQL } from 'drizzle-orm';
import { fixed, dec } from '@ledgerline/core/money';
import { chainBreak } from '../events/store.ts';
import { snapshot, type Db, type Executor } from '../db/client.ts';
import { company } from '../db/schema/index.ts';

/** One thing that was looked at in the books: how many of it there are, and what is wrong with them, in sentences. */
export interface Verified {
  what: string;
  looked: number;
  wrong: string[];
}
/** The books of a company, or what belongs to none. */
export interface VerifiedBooks {
  name: string;
  checks: Verified[];
}

/** So many faults of one kind are named; the rest are counted. */
const most = 20;

function verified(what: string, looked: number, faults: readonly string[]): Verified {
  const more = faults.length - most;
  return { what, looked, wrong: more > 0 ? [...faults.slice(0, most), `And ${more} more.`] : [...faults] };
}

type Own = typeof company.$inferSelect;

const rowsOf = async <R extends Record<string, unknown>>(db: Executor, query: SQL): Promise<R[]> => (await db.execute(query)).rows as R[];
const countOf = async (db: Executor, query: SQL): Promise<number> => (await rowsOf<{ n: number }>(db, query))[0]!.n;

/** Every act is as it was written, and none is missing: each bears the hash of the one before. */
async function chain(db: Executor, companyId: string | null): Promise<Verified> {
  const broken = await chainBreak(db, companyId);
  const looked = await countOf(db, sql`select count(*)::int as n from event where company_id is not distinct from ${companyId}::uuid`);
  return verified('acts in the event log, each chained to the one before', looked, [
    ...(broken === null ? [] : [`Act ${broken} was changed, or one before it is missing.`]),
  ]);
}

/** Debits and credits of each entry are the same, and each has lines. */
async function balances(db: Executor, { id, baseCurrency }: Own): Promise<Verified> {
  const off = await rowsOf<{ entry: string; debit: string; credit: string }>(
    db,
    sql`select e.year || '-' || lpad(e.number::text, 5, '0') as entry, coalesce(sum(l.debit), 0)::text as debit, coalesce(sum(l.credit), 0)::text as credit
      from journal_entry e left join journal_line l on l.entry_id = e.id where e.company_id = ${id}
      group by e.id having count(l.id) = 0 or sum(l.debit) <> sum(l.credit) order by e.year, e.number`,
  );
  const money = (amount: string) => `${baseCurrency} ${fixed(dec(amount), baseCurrency)}`;
  const looked = await countOf(db, sql`select count(*)::int as n from journal_entry where company_id = ${id}`);
  return verified(
    'entries whose debits and credits are the same',
    looked,
    off.map((o) => `Entry ${o.entry} has debits of ${money(o.debit)} and credits of ${money(o.credit)}.`),
  );
}

/** Each year's entries are numbered from 1, without gaps and without a number twice. */
async function numbers(db: Executor, { id }: Own): Promise<Verified> {
  const years = await rowsOf<{ year: number; n: number; first: number; last: number; distinct: number }>(
    db,
    sql`select year, count(*)::int as n, min(number) as first, max(number) as last, count(distinct number)::int as distinct
      from journal_entry where company_id = ${id} group by year order by year`,
  );
  const off = years.filter((y) => y.first !== 1 || y.last !== y.n || y.distinct !== y.n);
  return verified(
    'years whose entries are numbered without gaps',
    years.length,
    off.map((y) => `${y.year} has ${y.n} entries, numbered from ${y.first} to ${y.last}.`),
  );
}

/** What each supplier's account says is what the control account says of the supplier, in the company's currency and in the items' own. */
async function control(db: Executor, { id, baseCurrency }: Own): Promise<Verified> {
  const off = await rowsOf<{ name: string; currency: string | null; items: string; ledger: string }>(
    db,
    sql`with item as (
          select supplier_id, currency, sum(amount) as own, sum(base_amount) as base from open_item where company_id = ${id} group by 1, 2),
        entry as (
          select l.supplier_id, e.currency, -sum(l.currency_amount) as own, sum(l.credit - l.debit) as base
            from journal_line l join journal_entry e on e.id = l.entry_id where l.company_id = ${id} and l.supplier_id is not null group by 1, 2),
        both_sides as (
          select coalesce(i.supplier_id, e.supplier_id) as supplier_id, coalesce(i.currency, e.currency) as currency,
            coalesce(i.own, 0) as item_own, coalesce(e.own, 0) as entry_own, coalesce(i.base, 0) as item_base, coalesce(e.base, 0) as entry_base
          from item i full join entry e on e.supplier_id = i.supplier_id and e.currency = i.currency)
      select s.name, null as currency, b.item_base::text as items, b.entry_base::text as ledger
        from both_sides b join supplier s on s.id = b.supplier_id where b.item_base <> b.entry_base
      union all
      select s.name, b.currency, b.item_own::text, b.entry_own::text
        from both_sides b join supplier s on s.id = b.supplier_id where b.item_own <> b.entry_own
      order by 1, 2`,
  );
  const looked = await countOf(db, sql`select count(distinct supplier_id)::int as n from open_item where company_id = ${id}`);
  return verified(
    'supplier accounts that agree with the control account',
    looked,
    off.map(({ name, currency, items, ledger }) => {
      const money = (amount: string) => `${currency ?? baseCurrency} ${fixed(dec(amount), currency ?? baseCurrency)}`;
      return `${name}: the supplier’s account says ${money(items)}, the control account ${money(ledger)}.`;
    }),
  );
}

/** Each posted bill has one entry, and each entry of a bill belongs to one that was posted. */
async function bills(db: Executor, { id }: Own): Promise<Verified> {
  const off = await rowsOf<{ number: string | null; stage: string; entries: number }>(
    db,
    sql`select b.invoice_number as number, b.stage, count(e.id)::int as entries
      from bill b left join journal_entry e on e.bill_id = b.id and e.reverses is null
      where b.company_id = ${id} group by b.id
      having count(e.id) <> case when b.stage in ('posted', 'paid', 'reversed') then 1 else 0 end order by b.id`,
  );
  const looked = await countOf(
    db,
    sql`select count(*)::int as n from bill where company_id = ${id} and stage in ('posted', 'paid', 'reversed')`,
  );
  return verified(
    'posted bills, each with its one entry',
    looked,
    off.map(
      (o) => `${o.number ?? 'A bill without a number'} is ${o.stage} and has ${o.entries === 0 ? 'no entry' : `${o.entries} entries`}.`,
    ),
  );
}

/** Sums that lists show are those of what they are of. */
async function keptSums(db: Executor): Promise<Verified> {
  const off = await rowsOf<{ what: string; kept: string | null; should: string | null }>(
    db,
    sql`select what, kept::text, should::text from sums_off() order by 1`,
  );
  return verified(
    'kept sums',
    await countOf(
      db,
      sql`select ((select count(*) from supplier_owed) + (select count(*) from company_owed) + (select count(*) from account_month))::int as n`,
    ),
    off.map((o) => `The kept sum ${o.what} is ${o.kept ?? 'missing'} and should be ${o.should ?? 'none'}.`),
  );
}

/**
 * Looks through all books at one moment: chain, balances, numbers, control accounts, bills and kept sums. Changes nothing; whoever works
 * meanwhile is not held up.
 */
export const verifyBooks = (db: Db): Promise<VerifiedBooks[]> =>
  snapshot(db, async (tx) => {
    const books: VerifiedBooks[] = [];
    for (const own of await tx.select().from(company).orderBy(asc(company.code)))
      books.push({
        name: own.name,
        checks: [await chain(tx, own.id), await balances(tx, own), await numbers(tx, own), await control(tx, own), await bills(tx, own)],
      });
    books.push({ name: 'All companies', checks: [await chain(tx, null), await keptSums(tx)] });
    return books;
  });

/** What was found as lines of text, and whether all is right. */
export function saidOf(books: readonly VerifiedBooks[]): { lines: string[]; right: boolean } {
  const wrong = books.flatMap((b) => b.checks.flatMap((c) => c.wrong)).length;
  return {
    lines: [
      ...books.flatMap(({ name, checks }) => [
        name,
        ...checks.flatMap((c) => [
          `  ${c.wrong.length === 0 ? 'right' : 'WRONG'}  ${c.looked} ${c.what}`,
          ...c.wrong.map((w) => `         ${w}`),
        ]),
      ]),
      wrong === 0
        ? 'All is as it was written.'
        : 'Something is not as it was written. Keep a copy of the data folder before you change anything.',
    ],
    right: wrong === 0,
  };
}
