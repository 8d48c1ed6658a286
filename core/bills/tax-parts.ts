import { dec, decOrNull, fixed } from '../money/index.ts';
import { splitRow } from './rows.ts';
import { priced, type Operation, type WorkingLine } from './types.ts';

/** What of a bill carries tax under one code; all else is free of it under another. */
export interface Parting {
  taxCodeId: string;
  freeCodeId: string;
  /** Rows that carry tax as a whole. */ lines: string[];
  /** The row that is parted, and how much of its amount carries tax. */ parted: { line: string; amount: string } | null;
}

/**
 * Parts a bill into what carries tax and what does not: rows get one code or the other, one is split in two to the minor unit. `id`: of the row
 * that comes by it. Nothing where the row that is parted has changed so that it no longer has more than that.
 */
export function partTax(
  lines: readonly WorkingLine[],
  { taxCodeId, freeCodeId, lines: whole, parted }: Parting,
  currency: string,
  id: string,
): Operation[] {
  const code = (line: string, value: string): Operation => ({ do: 'set-cell', line, field: 'taxCodeId', value });
  const row = parted && lines.find((l) => l.id === parted.line);
  const shares = parted && [dec(parted.amount), dec(row?.amount ?? '0').minus(parted.amount)];
  if (shares?.some((s) => s.isZero() || s.isNegative() !== shares[0]!.isNegative())) return [];
  return priced(lines).flatMap((line): Operation[] => {
    if (shares && line === row)
      return [
        ...splitRow(
          line,
          shares.map((s) => fixed(s.abs(), currency)),
          [id],
          currency,
        ),
        code(line.id, taxCodeId),
        code(id, freeCodeId),
      ];
    const wanted = whole.includes(line.id) ? taxCodeId : freeCodeId;
    return line.taxCodeId === wanted || decOrNull(line.amount) === null ? [] : [code(line.id, wanted)];
  });
}
