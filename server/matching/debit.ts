import { codingFields, codingOf, emptyCells, type LineCells } from '@ledgerline/core/bills';
import type { Compared } from '@ledgerline/core/matching';
import { dec, fixed, roundTo, type Decimal } from '@ledgerline/core/money';
import type { BillRecord } from '../bills/store.ts';
import type { LineRecord } from './rebind.ts';

/** What a bill asks beyond its order, of one row. */
export interface Debit {
  row: LineRecord;
  amount: Decimal;
  text: string;
}
const plain = (n: Decimal): string => n.toDecimalPlaces(4).toFixed();

/**
 * What a bill asks beyond its orders: what rows cost more, and at the ordered price what is billed beyond what was ordered or has come,
 * the larger of the two. Nothing of bills whose amounts include tax, or of credit notes.
 */
export function debitOf(record: BillRecord, lines: readonly LineRecord[], compared: readonly Compared[]): Debit[] {
  if (record.kind !== 'invoice' || record.pricesIncludeTax) return [];
  const rowOf = (id: string) => lines.find((l) => l.id === id)!;
  const number = (id: string) => lines.findIndex((l) => l.id === id) + 1;
  const all = compared.flatMap((of): Debit[] => {
    const dearer = of.overPrice.map(({ row, each, total }) => ({
      row: rowOf(row),
      amount: dec(total),
      text: `Row ${number(row)}: ${plain(dec(of.unitPrice).plus(each))} instead of ${plain(dec(of.unitPrice))} each, as ordered (${of.order}, line ${of.place})`,
    }));
    const beyond = [of.overOrdered, of.overReceived].flatMap((o) => (o === null || dec(o).lte(0) ? [] : [dec(o)]));
    const most = beyond.length === 2 && beyond[1]!.gt(beyond[0]!) ? beyond[1] : beyond[0];
    if (!most) return dearer;
    // Of this bill's quantity alone: what others billed too much is theirs.
    const excess = most.gt(of.onBill) ? dec(of.onBill) : most,
      row = of.rows.at(-1)!;
    return [
      ...dearer,
      {
        row: rowOf(row),
        amount: excess.times(of.unitPrice),
        text: `Row ${number(row)}: ${plain(excess)}${of.unit ? ` ${of.unit}` : ''} not ${of.overReceived === null ? 'ordered' : 'received'} (${of.order}, line ${of.place})`,
      },
    ];
  });
  return all.map((d) => ({ ...d, amount: roundTo(d.amount, record.currency) })).filter((d) => d.amount.gt(0));
}

/** The lines of a debit note: what is asked back, coded as the rows that asked it. */
export const debitLines = (debit: readonly Debit[], currency: string): ({ kind: 'line' } & LineCells)[] =>
  debit.map(({ row, amount, text }) => ({
    ...emptyCells(),
    ...codingOf(Object.fromEntries(codingFields.map((f) => [f, row[f]]))),
    kind: 'line',
    description: text.slice(0, 500),
    taxRate: row.taxRate,
    amount: fixed(amount, currency),
  }));
