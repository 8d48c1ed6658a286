import { allocate, dec, decOrNull, fixed, sum } from '../money/index.ts';
import { cellsOf, placesOf } from './cells.ts';
import { codingFields, emptyCells, lineFields, type LineCells, type Operation, type WorkingLine } from './types.ts';

/**
 * Parts a row into several by shares of its amount: to the minor unit, together exactly its amount (`allocate`). The first part keeps the
 * row and its place; figures that no longer make its amount (quantity, price, discount) go from all.
 * `shares`: amounts or percent, two or more, not all zero. `ids`: of the rows that are added, one fewer than shares.
 */
export function splitRow(
  line: WorkingLine,
  shares: readonly string[],
  ids: readonly string[],
  currency: string,
  /** Of each part the cost centre, where they are shared out over several. */ centres: readonly string[] = [],
): Operation[] {
  const amounts = allocate(dec(line.amount ?? '0'), shares.map(dec), currency).map((a) => fixed(a, currency));
  const figures = ['quantity', 'unitPrice', 'discountPercent'] as const;
  const cells = { ...cellsOf(line), priceQuantity: '1', ...Object.fromEntries(figures.map((f) => [f, null])) };
  const places = placesOf(line);
  for (const f of figures) delete places[f];
  return [
    ...figures.filter((f) => line[f] !== null).map((field): Operation => ({ do: 'set-cell', line: line.id, field, value: null })),
    ...(line.priceQuantity === '1' ? [] : [{ do: 'set-cell' as const, line: line.id, field: 'priceQuantity' as const, value: '1' }]),
    { do: 'set-cell', line: line.id, field: 'amount', value: amounts[0]! },
    ...(centres[0] ? [{ do: 'set-cell' as const, line: line.id, field: 'costCentreId' as const, value: centres[0] }] : []),
    ...amounts.slice(1).map((amount, i): Operation => ({
      do: 'add-line',
      line: ids[i]!,
      kind: line.kind,
      after: i === 0 ? line.id : ids[i - 1]!,
      cells: { ...cells, amount, ...(centres[i + 1] ? { costCentreId: centres[i + 1]! } : {}) },
      marks: places,
    })),
  ];
}

const alike = <T>(values: readonly T[]): T | null => (values.every((v) => v === values[0]) ? values[0]! : null);

/**
 * Makes one row of several: descriptions one under the other, amounts added; quantities are added where unit and price are the same.
 * What differs between them (codes, tax rate, …) is left empty. The first stays, the others go. Rows of text alone give their words.
 */
export function joinRows(lines: readonly WorkingLine[], currency: string): Operation[] {
  const [first, ...others] = lines;
  if (!first || others.length === 0) return [];
  const counted = lines.filter((l) => l.kind !== 'text');
  const of = counted.length > 0 ? counted : lines;
  const all = <F extends keyof LineCells>(f: F) => of.map((l) => l[f]);
  const priced = ['unit', 'unitPrice', 'priceQuantity', 'discountPercent'] as const;
  const countable =
    priced.every((f) => alike(all(f)) !== null || all(f).every((v) => v === null)) && of.every((l) => decOrNull(l.quantity));
  const added = (f: 'quantity' | 'amount') => (of.some((l) => decOrNull(l[f]) === null) ? null : sum(of.map((l) => dec(l[f]!))));
  const amount = added('amount');
  const cells: LineCells = {
    ...emptyCells(),
    description: [...new Set(lines.map((l) => l.description.trim()).filter(Boolean))].join('\n').slice(0, 500),
    amount: amount && fixed(amount, currency),
    ...Object.fromEntries((['code', 'taxRate', 'serviceDate', ...codingFields] as const).map((f) => [f, alike(all(f))])),
    ...(countable
      ? { quantity: added('quantity')!.toFixed(), ...Object.fromEntries(priced.map((f) => [f, of[0]![f]])) }
      : { unit: null, priceQuantity: '1' }),
  };
  const kind = of[0]!.kind;
  return [
    ...(first.kind === kind ? [] : [{ do: 'set-kind' as const, line: first.id, kind }]),
    ...lineFields
      .filter((f) => first[f] !== cells[f])
      .map((field): Operation => ({ do: 'set-cell', line: first.id, field, value: cells[field] })),
    ...others.map((l): Operation => ({ do: 'remove-line', line: l.id })),
  ];
}
