import { and, desc, eq, inArray } from 'drizzle-orm';
import { emptyCells, type StoredMark } from '@ledgerline/core/bills';
import { suggest, type Coding, type PastLine } from '@ledgerline/core/coding';
import { unitWord } from '@ledgerline/core/einvoice';
import type { Read, Reading, ReadLine } from '@ledgerline/core/reading';
import type { Executor } from '../db/client.ts';
import { bill, billLine, taxCode } from '../db/schema/index.ts';

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

/** The supplier's last lines as they were posted, newest first. */
export async function pastLines(tx: Executor, companyId: string, supplierId: string): Promise<PastLine[]> {
  return tx
    .select({
      description: billLine.description,
      code: billLine.code,
      accountId: billLine.accountId,
      costCentreId: billLine.costCentreId,
      taxCodeId: billLine.taxCodeId,
    })
    .from(billLine)
    .innerJoin(bill, eq(bill.id, billLine.billId))
    .where(and(eq(bill.companyId, companyId), eq(bill.supplierId, supplierId), inArray(bill.stage, ['posted', 'paid'])))
    .orderBy(desc(bill.issueDate))
    .limit(300);
}

/** Writes the lines and charges of a reading, each under the id given for it, coded by what this supplier's lines were. */
export async function addLines(
  tx: Executor,
  companyId: string,
  billId: string,
  ids: string[],
  reading: Reading,
  data: boolean,
  found: (Coding & { id: string }) | null,
): Promise<void> {
  const codes = await tx
    .select({ id: taxCode.id, rate: taxCode.rate, reverseCharge: taxCode.reverseCharge })
    .from(taxCode)
    .where(and(eq(taxCode.companyId, companyId), eq(taxCode.active, true)))
    .orderBy(taxCode.code);
  const past = found ? await pastLines(tx, companyId, found.id) : [];
  const onlyRate = reading.taxBreakdown.length === 1 ? reading.taxBreakdown[0]!.rate : null;
  const code = (description: string, item: string | null, taxRate: string | null) =>
    suggest({ description, code: item, taxRate: taxRate ?? onlyRate }, past, found, codes);
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
  await tx.insert(billLine).values(
    rows.map((row, position) => {
      const coding = code(row.description, row.code, row.taxRate);
      const marks: Record<string, StoredMark> = coding
        ? { ...row.marks, coding: { mark: null, confidence: 0.8, proof: coding.reason } }
        : row.marks;
      return {
        ...row,
        id: ids[position]!,
        companyId,
        billId,
        position,
        accountId: coding?.accountId ?? null,
        costCentreId: coding?.costCentreId ?? null,
        taxCodeId: coding?.taxCodeId ?? null,
        marks,
      };
    }),
  );
}
