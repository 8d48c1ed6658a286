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
  ) ?? sql`false`;

/**
 * What a field may still have beside what a line is coded with already, as a condition on the code of its list. `codes`: of the line, by
 * field. What a rule depends on is always offered: else a row could not be coded over, first the one and then the other.
 */
export function fittingCodes(
  field: CodingField,
  code: PgColumn,
  codes: ReadonlyMap<CodingField, string>,
  combinations: readonly Combination[],
): SQL[] {
  return combinations.flatMap(({ whenField, when, onlyField, only }): SQL[] => {
    const has = codes.get(whenField);
    return onlyField === field && has !== undefined && inRanges(when, has) ? [codeIn(code, only)] : [];
  });
}
