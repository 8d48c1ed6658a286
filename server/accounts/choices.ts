import { and, asc, eq, inArray, or, sql, type SQL } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Choice, ChoiceKind } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { costCentre, exchangeRate, ledgerAccount, supplier, taxCode } from '../db/schema/index.ts';

const shown = 40;
interface Coded {
  id: PgColumn;
  companyId: PgColumn;
  code: PgColumn;
  name: PgColumn;
}

/** Every word is the beginning of the code or any part of the name; the code that is typed first, then codes and names that begin so. */
function fitting(table: Coded, q: string): { where: SQL | undefined; order: SQL[] } {
  const words = q.trim().split(/\s+/).filter(Boolean).slice(0, 6);
  const [first] = words;
  if (!first) return { where: undefined, order: [sql`${col(table.code)} asc`] };
  const begins = like(first).slice(1);
  return {
    where: and(...words.map((word) => or(sql`${table.code} ilike ${like(word).slice(1)}`, sql`${table.name} ilike ${like(word)}`))),
    order: [
      sql`case when lower(${col(table.code)}) = lower(${first}) then 0 when ${col(table.code)} ilike ${begins} then 1 when ${col(table.name)} ilike ${begins} then 2 else 3 end`,
      sql`${col(table.code)} asc`,
    ],
  };
}

async function find<T extends PgTable & Coded>(db: Executor, table: T, companyId: string, q: string, more: SQL | undefined) {
  const { where, order } = fitting(table, q);
  return (await db
    .select()
    .from(table as PgTable)
    .where(and(eq(table.companyId, companyId), where, more))
    .orderBy(...order)
    .limit(shown)) as T['$inferSelect'][];
}

/** What a type-ahead field offers for what was typed, at most forty, the likeliest first. */
export async function choicesFor(db: Executor, companyId: string, of: ChoiceKind, q: string): Promise<Choice[]> {
  switch (of) {
    case 'suppliers': {
      const rows = await find(db, supplier, companyId, q, undefined);
      return rows.map((s) => ({ id: s.id, code: s.code, name: s.name, detail: s.taxId, terms: s.terms, currency: s.currency }));
    }
    case 'accounts':
    case 'all-accounts': {
      const bearing = of === 'accounts' ? inArray(ledgerAccount.kind, ['expense', 'asset']) : undefined;
      const rows = await find(db, ledgerAccount, companyId, q, and(eq(ledgerAccount.active, true), bearing));
      return rows.map((a) => ({ id: a.id, code: a.code, name: a.name, detail: a.group }));
    }
    case 'cost-centres': {
      const rows = await find(db, costCentre, companyId, q, eq(costCentre.active, true));
      return rows.map((c) => ({ id: c.id, code: c.code, name: c.name, detail: null }));
    }
    case 'tax-codes': {
      const rows = await find(db, taxCode, companyId, q, eq(taxCode.active, true));
      return rows.map((t) => ({ id: t.id, code: t.code, name: t.name, detail: `${Number(t.rate)}%` }));
    }
  }
}

/** The company's currency and those that it has rates for. */
export async function currenciesOf(db: Executor, companyId: string, base: string): Promise<string[]> {
  const rates = await db
    .selectDistinct({ currency: exchangeRate.currency })
    .from(exchangeRate)
    .where(eq(exchangeRate.companyId, companyId))
    .orderBy(asc(exchangeRate.currency));
  return [base, ...rates.map((r) => r.currency)];
}
