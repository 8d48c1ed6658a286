import { and, asc, eq, inArray, or, sql } from 'drizzle-orm';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import { dimensionFields, type DimensionField } from '@ledgerline/core/bills';
import type { Dimension } from '@ledgerline/core/checks';
import type { DimensionRow, DimensionValueRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { dimension, dimensionValue, ledgerAccount } from '../db/schema/index.ts';
import { goingOf } from './going.ts';

/** The company's dimensions, closed ones too, with how many values each has. */
export async function listDimensions(db: Executor, companyId: string): Promise<DimensionRow[]> {
  const rows = await db
    .select({
      field: dimension.field,
      name: dimension.name,
      always: dimension.always,
      active: dimension.active,
      assets: dimension.assets,
      values: sql<number>`(select count(*)::int from dimension_value v where v.company_id = ${col(dimension.companyId)} and v.field = ${col(dimension.field)})`,
    })
    .from(dimension)
    .where(eq(dimension.companyId, companyId))
    .orderBy(asc(dimension.field));
  return rows;
}

/** The dimensions that lines are coded with now. */
export async function dimensionsOf(db: Executor, companyId: string): Promise<Dimension[]> {
  return db
    .select({ field: dimension.field, name: dimension.name, always: dimension.always })
    .from(dimension)
    .where(and(eq(dimension.companyId, companyId), eq(dimension.active, true)))
    .orderBy(asc(dimension.field));
}

/** One page of a dimension's values by code, closed ones too. */
export async function listValues(
  db: Executor,
  companyId: string,
  field: DimensionField,
  q: string,
  after: [code: string, id: string] | null,
  limit: number,
): Promise<DimensionValueRow[]> {
  const rows = await db
    .select({ v: dimensionValue, account: sql<string | null>`${col(ledgerAccount.code)} || ' ' || ${col(ledgerAccount.name)}` })
    .from(dimensionValue)
    .leftJoin(ledgerAccount, eq(ledgerAccount.id, dimensionValue.accountId))
    .where(
      and(
        eq(dimensionValue.companyId, companyId),
        eq(dimensionValue.field, field),
        q
          ? or(
              sql`${dimensionValue.code} ilike ${like(q).slice(1)}`,
              sql`concat_ws(' ', ${dimensionValue.name}, ${dimensionValue.serial}, ${dimensionValue.location}) ilike ${like(q)}`,
            )
          : undefined,
        after ? sql`(${dimensionValue.code}, ${dimensionValue.id}) > (${after[0]}, ${after[1]}::uuid)` : undefined,
      ),
    )
    .orderBy(asc(dimensionValue.code), asc(dimensionValue.id))
    .limit(limit);
  const going = await goingOf(
    db,
    companyId,
    rows.map((r) => r.v.id),
  );
  return rows.map(({ v: { companyId: _, accountId, inUseFrom, serial, location, ...row }, account }) => ({
    ...row,
    account,
    asset: { accountId, inUseFrom, serial, location },
    going: going.get(row.id) ?? [],
  }));
}

/** The columns of a line's dimensions, to be selected together. */
export const dimensionsIn = <T extends Record<DimensionField, AnyPgColumn>>(line: T): Pick<T, DimensionField> =>
  Object.fromEntries(dimensionFields.map((field) => [field, line[field]])) as unknown as Pick<T, DimensionField>;

/** "Project P-12" for each dimension that a line has a value of. `codes`: of the values, by id. */
export const dimensionsSaid = (
  line: Record<DimensionField, string | null>,
  named: ReadonlyMap<DimensionField, string>,
  codes: ReadonlyMap<string, string>,
): string[] => dimensionFields.flatMap((field) => (line[field] === null ? [] : [`${named.get(field)} ${codes.get(line[field])}`]));

/** The names of a company's dimensions, closed ones too, and the codes of the values that lines have. */
export async function namesOn(
  db: Executor,
  companyId: string,
  lines: readonly Record<DimensionField, string | null>[],
): Promise<[named: Map<DimensionField, string>, codes: Map<string, string>]> {
  const ids = [...new Set(lines.flatMap((l) => dimensionFields.flatMap((f) => l[f] ?? [])))];
  if (ids.length === 0) return [new Map(), new Map()];
  const names = await db.select().from(dimension).where(eq(dimension.companyId, companyId));
  const values = await db
    .select({ id: dimensionValue.id, code: dimensionValue.code })
    .from(dimensionValue)
    .where(inArray(dimensionValue.id, ids));
  return [new Map(names.map((n) => [n.field, n.name])), new Map(values.map((v) => [v.id, v.code]))];
}
