import { and, asc, desc, eq, inArray, or, sql, type SQL } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import { codingOf, type Coding, type CodingField, type DimensionField } from '@ledgerline/core/bills';
import type { Choice, ChoiceKind } from '@ledgerline/contract';
import { rateOnDay } from '@ledgerline/core/tax';
import { termsMeant } from '@ledgerline/core/terms';
import type { Asker } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { like } from '../db/column.ts';
import { openIn } from './open.ts';
import { choiceUse, costCentre, dimensionValue, exchangeRate, item, ledgerAccount, supplier, taxCode } from '../db/schema/index.ts';
import { namedIn, shownOf } from '../coding/named.ts';
import { openOf } from '../coding/rules.ts';
import { combinationsOf } from '../dimensions/combinations.ts';
import { goingOn } from '../dimensions/going.ts';
import { rangeOf } from '../people/ranges.ts';
import { listedTerms } from '../terms/store.ts';
import { codeIn, fittingCodes } from '../dimensions/ranges.ts';

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

/** The codes of what a line is coded with, by field. */
async function codesOf(db: Executor, companyId: string, coding: Partial<Coding>): Promise<Map<CodingField, string>> {
  const shown = shownOf(coding, await namedIn(db, companyId, [coding]));
  return new Map(shown.map(({ field, code }) => [field, code]));
}

const listOf = { accounts: 'accountId', 'cost-centres': 'costCentreId', 'tax-codes': 'taxCodeId' } as const;
type Row = { id: string; code: string; name: string };

/**
 * What a type-ahead field offers for what was typed on a bill of a day, at most forty, the likeliest first. `beside`: what else the line
 * is coded with; what the company does not let go together with it is not offered.
 */
export async function choicesFor(
  db: Executor,
  asker: Asker,
  of: ChoiceKind,
  q: string,
  day: string,
  beside: Partial<Coding> = {},
): Promise<Choice[]> {
  const companyId = asker.company.id;
  if (of === 'suppliers') {
    const rows = await find(db, supplier, asker, q, undefined);
    const own = rows.some((s) => s.terms !== null) ? await listedTerms(db, companyId) : [];
    return rows.map((s) => ({
      id: s.id,
      code: s.code,
      name: s.name,
      detail: s.blocked === null ? s.taxId : 'blocked',
      terms: s.terms && termsMeant(s.terms, own),
      currency: s.currency,
    }));
  }
  if (of === 'all-accounts') {
    const rows = await find(db, ledgerAccount, asker, q, eq(ledgerAccount.active, true));
    return rows.map((a) => ({ id: a.id, code: a.code, name: a.name, detail: a.group }));
  }
  if (of === 'items') return itemChoices(db, companyId, await find(db, item, asker, q, eq(item.active, true)), day);
  const field: CodingField = of in listOf ? listOf[of as keyof typeof listOf] : (of as DimensionField);
  const rules = Object.keys(beside).length > 0 ? await combinationsOf(db, companyId) : [];
  const codes = rules.length > 0 ? await codesOf(db, companyId, { ...beside, [field]: null }) : new Map();
  const own = field === 'accountId' || field === 'costCentreId' ? await rangeOf(db, companyId, asker.me.id) : null;
  const mine = own && (field === 'accountId' ? own.accounts : own.costCentres);
  const fits = (code: PgColumn) => and(...fittingCodes(field, code, codes, rules), mine ? codeIn(code, mine) : undefined);
  const shownAs = async <R extends Row>(rows: R[], detail: (row: R) => string | null): Promise<Choice[]> => {
    const ids = rows.map((r) => r.id);
    const going = await goingOn(db, companyId, ids, day);
    return rows.map((r) => ({
      id: r.id,
      code: r.code,
      name: r.name,
      detail: detail(r),
      ...(going.has(r.id) ? { going: going.get(r.id)! } : {}),
    }));
  };
  switch (of) {
    case 'accounts': {
      const bearing = and(inArray(ledgerAccount.kind, ['expense', 'asset']), ledgerAccount.postable, openIn(ledgerAccount, day));
      return shownAs(await find(db, ledgerAccount, asker, q, and(bearing, fits(ledgerAccount.code))), (a) => a.group);
    }
    case 'cost-centres':
      return shownAs(await find(db, costCentre, asker, q, and(openIn(costCentre, day), fits(costCentre.code))), () => null);
    case 'tax-codes':
      return shownAs(
        await find(db, taxCode, asker, q, and(openIn(taxCode, day), fits(taxCode.code))),
        (t) => `${Number(rateOnDay(t.rate, t.laterRates, day))}%`,
      );
    default: {
      const own = and(eq(dimensionValue.field, of), openIn(dimensionValue, day), fits(dimensionValue.code));
      return shownAs(await find(db, dimensionValue, asker, q, own), (v) => v.location);
    }
  }
}

/** Items with what a row that takes one is coded with: what the bill's day may use of it. */
async function itemChoices(db: Executor, companyId: string, rows: (typeof item.$inferSelect)[], day: string): Promise<Choice[]> {
  const codings = rows.map(({ accountId, taxCodeId }) => ({ coding: codingOf({ accountId, taxCodeId }) }));
  const open = await openOf(db, codings, day);
  const named = await namedIn(
    db,
    companyId,
    open.map((o) => o.coding),
  );
  return rows.map((r, i) => ({
    id: r.id,
    code: r.code,
    name: r.name,
    detail: r.price === null ? r.unit : `${r.price} ${r.currency}${r.unit ? ` a ${r.unit}` : ''}`,
    unit: r.unit,
    price: r.price,
    ...(r.stocked ? { stocked: true } : {}),
    ...(r.currency === null ? {} : { currency: r.currency }),
    going: shownOf(open[i]!.coding, named).map(({ field, ...one }) => ({ field, id: open[i]!.coding[field]!, ...one })),
  }));
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
