import { emptyCells, type StoredMark } from '@ledgerline/core/bills';
import type { Coding } from '@ledgerline/core/coding';
import { unitWord } from '@ledgerline/core/einvoice';
import type { Read, Reading, ReadLine } from '@ledgerline/core/reading';
import type { Executor } from '../db/client.ts';
import { billLine } from '../db/schema/index.ts';
import { stockOf } from '../items/stock.ts';
import { codedBy, suggestFor } from '../coding/suggest.ts';

/** What is kept of a value that was read. */
export const stored = (read: Read): StoredMark => ({
  mark: read.mark,
  confidence: read.confidence,
  proof: read.proof,
  ...(read.repaired ? { repaired: read.repaired } : {}),
  ...(read.rivals?.length ? { rivals: read.rivals.map(({ value, mark }) => ({ value, mark })) } : {}),
});
const cells = ['code', 'description', 'quantity', 'unitPrice', 'discountPercent', 'taxRate', 'amount'] as const;

function marksOf(line: ReadLine): Record<string, StoredMark> {
  return Object.fromEntries(cells.flatMap((cell) => (line[cell] ? [[cell, stored(line[cell])]] : [])));
}

/** Writes the lines and charges of a reading, each under the id given for it, coded by what lines like it were posted to. */
export async function addLines(
  tx: Executor,
  companyId: string,
  billId: string,
  ids: string[],
  reading: Reading,
  data: boolean,
  found: (Partial<Coding> & { id: string; suggests: boolean }) | null,
  today: string,
): Promise<void> {
  const day = reading.header.issueDate?.value ?? null;
  const onlyRate = reading.taxBreakdown.length === 1 ? reading.taxBreakdown[0]!.rate : null;
  const rows = [
    ...reading.lines.map((line) => ({
      kind: 'line',
      code: line.code?.value.slice(0, 60) ?? null,
      description: line.description?.value.slice(0, 500) ?? '',
      quantity: line.quantity?.value ?? null,
      unit: (data && line.unit ? unitWord(line.unit.value) : line.unit?.value)?.slice(0, 20) ?? null,
      unitPrice: line.unitPrice?.value ?? null,
      priceQuantity: line.priceQuantity ?? '1',
      discountPercent: line.discountPercent?.value ?? null,
      taxRate: line.taxRate?.value ?? null,
      amount: line.amount.value,
      marks: marksOf(line),
      further: line.further,
    })),
    ...reading.charges.map((charge) => ({
      ...emptyCells(),
      kind: 'charge',
      description: charge.label.slice(0, 500),
      amount: charge.amount.value,
      marks: { amount: stored(charge.amount) },
      further: [],
    })),
  ];
  if (rows.length === 0) return;
  const said = rows.map(({ code, description, amount, taxRate, quantity, unitPrice, priceQuantity }) => ({
    quantity,
    unitPrice,
    priceQuantity,
    supplierId: found?.id ?? null,
    code,
    description,
    amount,
    day,
    taxRate: taxRate ?? onlyRate,
  }));
  const suggested = await suggestFor(tx, companyId, found, said, day ?? today, reading.header.purchaseOrder?.value ?? null);
  // A row of what is kept in stock is bought into it.
  const stock = await stockOf(
    tx,
    companyId,
    rows.flatMap((row, i) => (row.kind === 'line' && row.quantity !== null ? [{ ...row, id: ids[i]! }] : [])),
  );
  await tx.insert(billLine).values(
    rows.map((row, position) => {
      const { marks, ...coding } = codedBy(suggested[position]!);
      return {
        ...row,
        ...(stock.has(ids[position]!) ? { kind: 'stock' } : {}),
        ...coding,
        id: ids[position]!,
        companyId,
        billId,
        position,
        marks: { ...row.marks, ...marks },
      };
    }),
  );
}
