import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { Choice, Going, GoingShown } from '@ledgerline/contract';
import type { DimensionField } from '@ledgerline/core/bills';
import { Refusal } from '../http/problems.ts';
import { openIn } from '../accounts/open.ts';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { dimension, dimensionValue, goingWith, ledgerAccount, taxCode } from '../db/schema/index.ts';

/** What goes with rows of the company's lists, by their ids, with code and name. */
export async function goingOf(db: Executor, companyId: string, ids: readonly string[]): Promise<Map<string, GoingShown>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({
      source: goingWith.sourceId,
      field: goingWith.field,
      valueId: goingWith.valueId,
      value: sql<string>`${col(dimensionValue.code)} || ' ' || ${col(dimensionValue.name)}`,
    })
    .from(goingWith)
    .innerJoin(dimensionValue, eq(dimensionValue.id, goingWith.valueId))
    .where(and(eq(goingWith.companyId, companyId), inArray(goingWith.sourceId, [...ids])))
    .orderBy(asc(goingWith.field));
  const going = new Map<string, GoingShown>();
  for (const { source, ...one } of rows) going.set(source, [...(going.get(source) ?? []), one]);
  return going;
}

type Brought = NonNullable<Choice['going']>;

async function broughtBy(db: Executor, companyId: string, ids: readonly string[], day: string): Promise<Map<string, Brought>> {
  const taxes = await db
    .select({ source: ledgerAccount.id, id: taxCode.id, code: taxCode.code, name: taxCode.name })
    .from(ledgerAccount)
    .innerJoin(taxCode, eq(taxCode.id, ledgerAccount.taxCodeId))
    .where(and(eq(ledgerAccount.companyId, companyId), inArray(ledgerAccount.id, [...ids]), openIn(taxCode, day)));
  const values = await db
    .select({
      source: goingWith.sourceId,
      field: goingWith.field,
      id: dimensionValue.id,
      code: dimensionValue.code,
      name: dimensionValue.name,
    })
    .from(goingWith)
    .innerJoin(dimensionValue, eq(dimensionValue.id, goingWith.valueId))
    .innerJoin(
      dimension,
      and(eq(dimension.companyId, goingWith.companyId), eq(dimension.field, goingWith.field), eq(dimension.active, true)),
    )
    .where(and(eq(goingWith.companyId, companyId), inArray(goingWith.sourceId, [...ids]), openIn(dimensionValue, day)))
    .orderBy(asc(goingWith.field));
  const assets = await db
    .select({ source: dimensionValue.id, id: ledgerAccount.id, code: ledgerAccount.code, name: ledgerAccount.name })
    .from(dimensionValue)
    .innerJoin(ledgerAccount, eq(ledgerAccount.id, dimensionValue.accountId))
    .where(
      and(
        eq(dimensionValue.companyId, companyId),
        inArray(dimensionValue.id, [...ids]),
        openIn(ledgerAccount, day),
        ledgerAccount.postable,
        inArray(ledgerAccount.kind, ['expense', 'asset']),
      ),
    );
  const brought = new Map<string, Brought>();
  const all = [
    ...taxes.map((t) => ({ ...t, field: 'taxCodeId' as const })),
    ...assets.map((a) => ({ ...a, field: 'accountId' as const })),
    ...values,
  ];
  for (const { source, ...one } of all) brought.set(source, [...(brought.get(source) ?? []), one]);
  return brought;
}

/**
 * What goes with accounts, cost centres and values on lines of a bill of this day, as far as such a line may have it; with what goes with
 * that in its turn: the fund of the project of a cost centre. What is nearer comes first, and each dimension once.
 */
export async function goingOn(db: Executor, companyId: string, ids: readonly string[], day: string): Promise<Map<string, Brought>> {
  if (ids.length === 0) return new Map();
  const direct = await broughtBy(db, companyId, ids, day),
    known = new Map(direct);
  for (let open = [...direct.values()].flat(); open.length > 0;) {
    const unknown = [...new Set(open.map((g) => g.id))].filter((id) => !known.has(id));
    const more = unknown.length > 0 ? await broughtBy(db, companyId, unknown, day) : new Map<string, Brought>();
    for (const id of unknown) known.set(id, more.get(id) ?? []);
    open = [...more.values()].flat();
  }
  const all = new Map<string, Brought>();
  for (const [source, first] of direct) {
    const found = [...first];
    for (let i = 0; i < found.length; i++)
      for (const next of known.get(found[i]!.id) ?? []) if (!found.some((f) => f.field === next.field)) found.push(next);
    all.set(source, found);
  }
  return all;
}

/** Of what a row of a list is: which column names it. */
export type Source = 'accountId' | 'costCentreId' | 'ofValueId';

/** Sets what goes with a row of a list, in place of what did; gives both as the event log keeps them. Part of the caller's transaction. */
export async function setGoing(
  tx: Executor,
  companyId: string,
  source: Source,
  id: string,
  going: Going | undefined,
  /** The dimension that it is a value of. */ own?: DimensionField,
): Promise<{ was: string | null; is: string | null }> {
  const said = async () =>
    (await goingOf(tx, companyId, [id]))
      .get(id)
      ?.map((g) => g.value)
      .join(', ') ?? null;
  const was = await said();
  if (going === undefined) return { was, is: was };
  const refused = (sentence: string) => new Refusal(422, sentence, [{ path: 'going', sentence }]);
  if (new Set(going.map((g) => g.field)).size < going.length) throw refused('One value of each dimension goes with it.');
  if (going.some((g) => g.field === own)) throw refused('A value does not bring another of its own dimension.');
  await tx.delete(goingWith).where(and(eq(goingWith.companyId, companyId), eq(goingWith.sourceId, id)));
  if (going.length > 0) await tx.insert(goingWith).values(going.map(({ field, valueId }) => ({ companyId, [source]: id, field, valueId })));
  return { was, is: await said() };
}
