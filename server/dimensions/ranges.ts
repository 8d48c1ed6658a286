import { or, sql, type SQL } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import type { CodingField } from '@ledgerline/core/bills';
import { inRanges, type Range } from '@ledgerline/core/ranges';
import type { Combination } from '@ledgerline/core/checks';

/** Whether a column's code is in ranges, as `inRanges` says it. */
export const codeIn = (code: PgColumn | SQL, ranges: readonly Range[]): SQL =>
  or(
    ...ranges.map(({ from, to, open }) =>
      open
        ? sql`(length(${code}) >= ${from.length}::int and left(upper(${code}), ${from.length}::int) collate "C" between ${from} and ${to})`
        : sql`upper(${code}) = ${from}`,
    ),
  )!;

/**
 * What a field may still have beside what a line is coded with already, as a condition on the code of its list. `codes`: of the line, by
 * field. Rules hold both ways: what cannot stand beside the code that is there is not offered either.
 */
export function fittingCodes(
  field: CodingField,
  code: PgColumn,
  codes: ReadonlyMap<CodingField, string>,
  combinations: readonly Combination[],
): SQL[] {
  return combinations.flatMap(({ whenField, when, onlyField, only }): SQL[] => {
    const [has, other] = [codes.get(whenField), codes.get(onlyField)];
    if (onlyField === field && has !== undefined && inRanges(when, has)) return [codeIn(code, only)];
    if (whenField === field && other !== undefined && !inRanges(only, other)) return [sql`not ${codeIn(code, when)}`];
    return [];
  });
}
