import type { CodingField, Operation } from '@ledgerline/core/bills';
import type { BillLine, Choice } from '@ledgerline/contract';

/**
 * A row coded with a choice, and with what goes with it: filled in where nothing stands, or where what stands there came along with what
 * was there before. What somebody chose otherwise stays.
 */
export function codedWith(
  line: Pick<BillLine, 'id' | CodingField>,
  field: CodingField,
  choice: Choice | null,
  choiceOf: (id: string | null) => Choice | null,
): Operation[] {
  const set = (of: CodingField, value: string | null): Operation => ({ do: 'set-cell', line: line.id, field: of, value });
  const before = choiceOf(line[field])?.going ?? [];
  const came = (of: CodingField) => before.some((g) => g.field === of && g.id === line[of]);
  const going = (choice?.going ?? []).filter((g) => g.field !== field && (line[g.field] === null || came(g.field)));
  // What came along with the one before goes with it, where the new one brings nothing in its place.
  const gone = before.filter(
    (g) => g.field !== field && g.field !== 'taxCodeId' && came(g.field) && !going.some((n) => n.field === g.field),
  );
  return [
    set(field, choice?.id ?? null),
    ...going.filter((g) => line[g.field] !== g.id).map((g) => set(g.field, g.id)),
    ...gone.map((g) => set(g.field, null)),
  ];
}
