import { and, asc, eq, gte, lte, sql } from 'drizzle-orm';
import { dec } from '@ledgerline/core/money';
import type { Company, TaxLines, TaxSummary } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { journalEntry, journalTax, taxCode } from '../db/schema/index.ts';
import { allRows } from '../imports/saved.ts';
import type { Sheet } from '../imports/sheet.ts';
import { numberOf } from './store.ts';

type Amounts = Record<'net' | 'tax' | 'reclaimed' | 'owed' | 'withheld', string>;
/** With what stays with the costs. */
const withBorne = <T extends Amounts>(of: T): T & { borne: string } => ({ ...of, borne: dec(of.tax).minus(of.reclaimed).toFixed() });

const within = (companyId: string, from: string, to: string) =>
  and(eq(journalTax.companyId, companyId), gte(journalTax.entryDate, from), lte(journalTax.entryDate, to));

/** What was posted by tax code and month, from one day to another, both with it; in the company's currency. */
export async function taxSummary(
  db: Executor,
  company: Pick<Company, 'id' | 'baseCurrency'>,
  from: string,
  to: string,
): Promise<TaxSummary> {
  const month = sql<string>`to_char(${col(journalTax.entryDate)}, 'YYYY-MM')`,
    added = (of: keyof Amounts) => sql<string>`sum(${col(journalTax[of])})::text`;
  const rows = await db
    .select({
      taxCodeId: taxCode.id,
      code: taxCode.code,
      name: taxCode.name,
      month,
      entries: sql<number>`count(*)::int`,
      net: added('net'),
      tax: added('tax'),
      reclaimed: added('reclaimed'),
      owed: added('owed'),
      withheld: added('withheld'),
    })
    .from(journalTax)
    .innerJoin(taxCode, eq(taxCode.id, journalTax.taxCodeId))
    .where(within(company.id, from, to))
    .groupBy(taxCode.id, month)
    .orderBy(asc(taxCode.code), month);
  return { currency: company.baseCurrency, rows: rows.map(withBorne) };
}

/** What stands behind a summary, entry by entry in the order of their days; of one code, if it is said. */
export async function taxLines(
  db: Executor,
  companyId: string,
  { from, to, taxCodeId }: { from: string; to: string; taxCodeId?: string | undefined },
  after: { entryDate: string; code: string; entryId: string } | null,
  limit: number,
): Promise<TaxLines['lines']> {
  const rows = await db
    .select({
      entryId: journalTax.entryId,
      entry: numberOf,
      entryDate: journalTax.entryDate,
      description: journalEntry.description,
      billId: journalEntry.billId,
      taxCodeId: journalTax.taxCodeId,
      code: taxCode.code,
      net: journalTax.net,
      tax: journalTax.tax,
      reclaimed: journalTax.reclaimed,
      owed: journalTax.owed,
      withheld: journalTax.withheld,
    })
    .from(journalTax)
    .innerJoin(journalEntry, eq(journalEntry.id, journalTax.entryId))
    .innerJoin(taxCode, eq(taxCode.id, journalTax.taxCodeId))
    .where(
      and(
        within(companyId, from, to),
        taxCodeId ? eq(journalTax.taxCodeId, taxCodeId) : undefined,
        after
          ? sql`(${journalTax.entryDate}, ${taxCode.code}, ${journalTax.entryId}) > (${after.entryDate}::date, ${after.code}, ${after.entryId}::uuid)`
          : undefined,
      ),
    )
    .orderBy(asc(journalTax.entryDate), asc(taxCode.code), asc(journalTax.entryId))
    .limit(limit);
  return rows.map(withBorne);
}

const heads = ['Entry', 'Date', 'Text', 'Tax code', 'Net', 'Tax', 'Reclaimed', 'Stays with the cost', 'Owed by us', 'Withheld'];
const atOnce = 5000;

/** All that stands behind a summary, as a table. */
export async function taxTable(db: Executor, companyId: string, from: string, to: string): Promise<Sheet> {
  type Line = TaxLines['lines'][number];
  const lines = await allRows<Line, Line>(async (after) => {
    const rows = await taxLines(db, companyId, { from, to }, after, atOnce);
    return { rows, next: rows.length < atOnce ? null : rows[rows.length - 1]! };
  });
  return {
    heads,
    rows: lines.map((l) => [l.entry, l.entryDate, l.description, l.code, l.net, l.tax, l.reclaimed, l.borne, l.owed, l.withheld]),
  };
}
