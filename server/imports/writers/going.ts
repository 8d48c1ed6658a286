import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { DimensionField } from '@ledgerline/core/bills';
import type { Executor } from '../../db/client.ts';
import { col } from '../../db/column.ts';
import { dimension, dimensionValue, goingWith } from '../../db/schema/index.ts';
import type { Source } from '../../dimensions/going.ts';
import { text, type Ids, type Written } from './types.ts';

/** Dimensions by name, and their values by "name code", in lower case: lines know dimensions by their field. */
export async function dimensionIds(tx: Executor, companyId: string): Promise<Pick<Ids, 'dimension' | 'dimension-value'>> {
  const names = await tx.select().from(dimension).where(eq(dimension.companyId, companyId)).orderBy(asc(dimension.field));
  const values = await tx
    .select({ id: dimensionValue.id, code: dimensionValue.code, field: dimensionValue.field })
    .from(dimensionValue)
    .where(eq(dimensionValue.companyId, companyId));
  const called = new Map(names.map((d) => [d.field, d.name]));
  return {
    dimension: new Map(names.map((d) => [d.name.toLowerCase(), d.field])),
    'dimension-value': new Map(values.map((v) => [`${called.get(v.field)} ${v.code}`.toLowerCase(), v.id])),
  };
}

/** What goes with the rows of a company's lists, by their ids, as a cell has it: "Project ROOF, Fund GENERAL". */
export async function goingCells(tx: Executor, companyId: string): Promise<Map<string, string>> {
  const rows = await tx
    .select({
      source: goingWith.sourceId,
      said: sql<string>`string_agg(${col(dimension.name)} || ' ' || ${col(dimensionValue.code)}, ', ' order by ${col(goingWith.field)})`,
    })
    .from(goingWith)
    .innerJoin(dimensionValue, eq(dimensionValue.id, goingWith.valueId))
    .innerJoin(dimension, and(eq(dimension.companyId, goingWith.companyId), eq(dimension.field, goingWith.field)))
    .where(eq(goingWith.companyId, companyId))
    .groupBy(goingWith.sourceId);
  return new Map(rows.map((r) => [r.source, r.said]));
}
/** The names of dimensions as a cell has them: "Project, Fund". */
export const needsCell = (fields: readonly DimensionField[], names: ReadonlyMap<DimensionField, string>): string | null =>
  [...fields].sort().flatMap((f) => names.get(f) ?? []).join(', ') || null; // prettier-ignore

/** The pieces of a cell that lists something. */
const pieces = (cell: unknown): string[] => (text(cell) ?? '').split(/[,;]/).map((p) => p.trim()).filter((p) => p !== ''); // prettier-ignore

/** A cell that names dimensions or values of them, each as the company calls it; what is not known stays as it is. */
export function tidied(cell: unknown, of: 'dimension' | 'dimension-value', ids: Ids): string | null {
  if (text(cell) === null) return null;
  const known = pieces(cell).map((piece) => ({ piece, id: ids[of]?.get(piece.toLowerCase()) }));
  if (known.some((k) => k.id === undefined)) return text(cell);
  // In the dimensions' order, whatever the file's; values come with their dimension's name, by which they are sorted alike.
  const order = [...(ids[of]?.keys() ?? [])];
  const own = of === 'dimension' ? order : order.sort((a, b) => fieldOf(a, ids).localeCompare(fieldOf(b, ids)));
  return known.sort((a, b) => own.indexOf(a.piece.toLowerCase()) - own.indexOf(b.piece.toLowerCase())).map((k) => k.piece).join(', ') || null; // prettier-ignore
}
/** The field of the dimension that "name code" is a value of. */
function fieldOf(value: string, ids: Ids): string {
  const named = [...(ids.dimension ?? [])].filter(([name]) => value.startsWith(`${name} `)).sort(([a], [b]) => b.length - a.length)[0];
  return named?.[1] ?? '';
}
export const fieldsIn = (cell: unknown, ids: Ids): DimensionField[] =>
  pieces(cell).flatMap((p) => (ids.dimension?.get(p.toLowerCase()) as DimensionField | undefined) ?? []).sort(); // prettier-ignore

/** What is wrong with cells that name dimensions (`needs`) or values of them (`going`), in sentences. */
export function wrongDimensions(needs: unknown, going: unknown, ids: Ids): { severity: 'error'; sentence: string }[] {
  const said = (sentence: string) => ({ severity: 'error' as const, sentence });
  const unknown = [
    ...pieces(needs).filter((p) => !ids.dimension?.has(p.toLowerCase())).map((p) => said(`There is no dimension “${p.slice(0, 40)}”.`)),
    ...pieces(going).filter((p) => !ids['dimension-value']?.has(p.toLowerCase())).map((p) => said(`There is no “${p.slice(0, 60)}” among the dimensions. Write the dimension’s name and the value’s code.`)),
  ]; // prettier-ignore
  const fields = pieces(going).map((p) => fieldOf(p.toLowerCase(), ids));
  return unknown.length === 0 && new Set(fields).size < fields.length ? [said('One value of each dimension goes with it.')] : unknown;
}

/** Writes what goes with rows where it changed. */
export async function putGoing(tx: Executor, companyId: string, source: Source, rows: readonly Written[], ids: Ids): Promise<void> {
  const changed = rows.filter((r) => (r.values['going'] ?? null) !== (r.before?.['going'] ?? null));
  if (changed.length === 0) return;
  await tx.delete(goingWith).where(and(eq(goingWith.companyId, companyId), inArray(goingWith.sourceId, changed.map((r) => r.id)))); // prettier-ignore
  const all = changed.flatMap((r) =>
    pieces(r.values['going']).map((piece) => ({
      companyId,
      [source]: r.id,
      field: fieldOf(piece.toLowerCase(), ids) as DimensionField,
      valueId: ids['dimension-value']!.get(piece.toLowerCase())!,
    })),
  );
  if (all.length > 0) await tx.insert(goingWith).values(all);
}
