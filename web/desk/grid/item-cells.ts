import { dec, roundTo } from '@ledgerline/core/money';
import type { CodingField, LineField, Operation } from '@ledgerline/core/bills';
import type { BillLine, Choice } from '@ledgerline/contract';

/**
 * A row that takes an item: its code, name, unit, price and coding where nothing stands; what is there already stays. The amount follows
 * from the price where there is none. What is kept in stock is bought into it, but for rows of an order, which has receipts of its own.
 */
export function itemCells(
  line: Pick<BillLine, 'id' | 'kind' | 'code' | 'description' | 'quantity' | 'unit' | 'unitPrice' | 'amount' | CodingField>,
  item: Choice,
  currency: string,
  ordered = false,
): Operation[] {
  const price = item.price && item.currency === currency && line.unitPrice === null && line.amount === null ? item.price : null;
  const wanted: [LineField, string | null | undefined, boolean][] = [
    ['code', item.code, line.code === null],
    ['description', item.name, line.description.trim() === ''],
    ['unit', item.unit, line.unit === null],
    ['quantity', '1', price !== null && line.quantity === null],
    ['unitPrice', price, price !== null],
    ['amount', price && roundTo(dec(price).times(line.quantity ?? 1), currency).toFixed(), price !== null],
    ...(item.going ?? []).map((g): [LineField, string, boolean] => [g.field, g.id, line[g.field] === null]),
  ];
  return [
    ...(item.stocked && line.kind === 'line' && !ordered ? [{ do: 'set-kind', line: line.id, kind: 'stock' } as const] : []),
    ...wanted.flatMap(([field, value, free]): Operation[] => (free && value ? [{ do: 'set-cell', line: line.id, field, value }] : [])),
  ];
}
