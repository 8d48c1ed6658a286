import { and, asc, desc, eq, inArray, or, sql, type SQL } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Choice, ChoiceKind } from '@ledgerline/contract';
import type { Asker } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { like } from '../db/column.ts';
import { openIn } from './open.ts';
import { choiceUse, costCentre, exchangeRate, ledgerAccount, supplier, taxCode } from '../db/schema/index.ts';

const shown = 40;
interface Coded {
  id: PgColumn;
  companyId: PgColumn;
  code: PgColumn;
  name: PgColumn;
}

/** Every word is the beginning of the code or any part of the name. */
const fitting = (table: Coded, words: string[]): SQL | undefined =>
  and(...words.map((word) => or(sql`${table.code} ilike ${like(word).slice(1)}`, sql`${table.name} ilike ${like(word)}`)));

/**
 * Those that fit, in tiers, each asked for only while there is room: the code that is typed, what this person used last, codes that begin
 * so, names that begin so, the rest; by code within each. So a short word, which fits nearly everything, stops at the first forty.
 */
async function find<T extends PgTable & Coded>(
  db: Executor,
  table: T,
  { company, me }: Asker,
  q: string,
  more: SQL | undefined,
): Promise<T['$inferSelect'][]> {
  const words = q.trim().split(/\s+/).filter(Boolean).slice(0, 6),
    [first] = words;
  const all = and(eq(table.companyId, company.id), fitting(table, words), more);
  const begins = first === undefined ? '' : like(first).slice(1);
  const used = await db
    .select({ of: table as PgTable })
    .from(choiceUse)
    .innerJoin(table as PgTable, eq(table.id, choiceUse.choiceId))
    .where(and(eq(choiceUse.personId, me.id), all))
    .orderBy(desc(choiceUse.usedAt))
    .limit(shown);
  const tier = (where: SQL | undefined) =>
    db
      .select()
      .from(table as PgTable)
      .where(and(all, where))
      .orderBy(asc(table.code))
      .limit(shown);
  const found = new Map<string, T['$inferSelect']>();
  const add = (rows: unknown[]) => {
    for (const row of rows as T['$inferSelect'][]) if (found.size < shown) found.set((row as { id: string }).id, row);
  };
  if (first !== undefined) add(await tier(sql`lower(${table.code}) = lower(${first})`));
  add(used.map((u) => u.of));
  // Fewer letters than the index has fit nearly everything: their names are met by code.
  const named = first !== undefined && first.length >= 3 ? [sql`${table.name} ilike ${begins}`] : [];
  const rest = first === undefined ? [undefined] : [sql`${table.code} ilike ${begins}`, ...named, undefined];
  for (const where of rest) if (found.size < shown) add(await tier(where));
  return [...found.values()];
}

/** Accounts' usual tax codes by id, as far as bills of the day may use them. */
async function usualTaxes(db: Executor, companyId: string, ids: (string | null)[], day: string) {
  const wanted = [...new Set(ids.filter((id) => id !== null))];
  if (wanted.length === 0) return new Map<string, NonNullable<Choice['usualTax']>>();
  const codes = await db
    .select({ id: taxCode.id, code: taxCode.code, name: taxCode.name })
    .from(taxCode)
    .where(and(eq(taxCode.companyId, companyId), inArray(taxCode.id, wanted), openIn(taxCode, day)));
  return new Map(codes.map((c) => [c.id, c]));
}

/** What a type-ahead field offers for what was typed on a bill of a day, at most forty, the likeliest first. */
export async function choicesFor(db: Executor, asker: Asker, of: ChoiceKind, q: string, day: string): Promise<Choice[]> {
  switch (of) {
    case 'suppliers': {
      const rows = await find(db, supplier, asker, q, undefined);
      return rows.map((s) => ({ id: s.id, code: s.code, name: s.name, detail: s.taxId, terms: s.terms, currency: s.currency }));
    }
    case 'accounts':
    case 'all-accounts': {
      const bearing =
        of === 'accounts'
          ? and(inArray(ledgerAccount.kind, ['expense', 'asset']), ledgerAccount.postable, openIn(ledgerAccount, day))
          : eq(ledgerAccount.active, true);
      const rows = await find(db, ledgerAccount, asker, q, bearing);
      const taxes = await usualTaxes(db, asker.company.id, of === 'accounts' ? rows.map((a) => a.taxCodeId) : [], day);
      return rows.map((a) => ({
        id: a.id,
        code: a.code,
        name: a.name,
        detail: a.group,
        ...(a.taxCodeId && taxes.has(a.taxCodeId) ? { usualTax: taxes.get(a.taxCodeId)! } : {}),
      }));
    }
    case 'cost-centres': {
      const rows = await find(db, costCentre, asker, q, openIn(costCentre, day));
      return rows.map((c) => ({ id: c.id, code: c.code, name: c.name, detail: null }));
    }
    case 'tax-codes': {
      const rows = await find(db, taxCode, asker, q, openIn(taxCode, day));
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

/** Notes what a person chose just now, for the next time. Part of the caller's transaction. */
export async function noteUse(tx: Executor, personId: string, choiceIds: readonly string[], now: Date): Promise<void> {
  // In one order, so that two who choose the same at once wait for each other, never crosswise.
  const ids = [...new Set(choiceIds)].sort();
  if (ids.length === 0) return;
  await tx
    .insert(choiceUse)
    .values(ids.map((choiceId) => ({ personId, choiceId, usedAt: now })))
    .onConflictDoUpdate({ target: [choiceUse.personId, choiceUse.choiceId], set: { usedAt: now } });
}
