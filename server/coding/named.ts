import { and, eq, inArray } from 'drizzle-orm';
import { codingFields, type Coding, type CodingField } from '@ledgerline/core/bills';
import type { CodingShown } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { costCentre, dimensionValue, ledgerAccount, taxCode } from '../db/schema/index.ts';

/** The list that a field's values are of. */
const listOf = (field: CodingField) =>
  field === 'accountId' ? ledgerAccount : field === 'costCentreId' ? costCentre : field === 'taxCodeId' ? taxCode : dimensionValue;

type Named = Map<string, { code: string; name: string }>;

/** The lists that codings name something of, each with the ids. */
export const idsByList = (codings: readonly Partial<Coding>[]) =>
  [ledgerAccount, costCentre, taxCode, dimensionValue].flatMap((table) => {
    const fields = codingFields.filter((field) => listOf(field) === table);
    const ids = [...new Set(codings.flatMap((c) => fields.flatMap((field) => c[field] ?? [])))];
    return ids.length > 0 ? [{ table, ids }] : [];
  });

/** Codes and names of all that codings name, by id. */
export async function namedIn(db: Executor, companyId: string, codings: readonly Partial<Coding>[]): Promise<Named> {
  const named: Named = new Map();
  for (const { table, ids } of idsByList(codings)) {
    const rows = await db
      .select({ id: table.id, code: table.code, name: table.name })
      .from(table)
      .where(and(eq(table.companyId, companyId), inArray(table.id, ids)));
    for (const { id, ...one } of rows) named.set(id, one);
  }
  return named;
}

/** A coding in words, field by field. */
export const shownOf = (coding: Partial<Coding>, named: Named): CodingShown =>
  codingFields.flatMap((field) => {
    const one = coding[field] ? named.get(coding[field]) : undefined;
    return one ? [{ field, ...one }] : [];
  });
/** "6400 · 210 · S20": the codes alone. */
export const codesOf = (coding: Partial<Coding>, named: Named): string =>
  shownOf(coding, named)
    .map((s) => s.code)
    .join(' · ');
/** The fields of a coding that are given. */
export type Given = Partial<Record<CodingField, string>>;
/** What of a coding is given. */
export const givenOf = (coding: Partial<Coding>): Given =>
  Object.fromEntries(codingFields.flatMap((field) => (coding[field] ? [[field, coding[field]]] : [])));
