import { and, eq, inArray } from 'drizzle-orm';
import { emptyCells, type StoredMark } from '@ledgerline/core/bills';
import { codingFields, suggest, sure, withAccountTax, type Coding, type Suggestions } from '@ledgerline/core/coding';
import { unitWord } from '@ledgerline/core/einvoice';
import type { Read, Reading, ReadLine } from '@ledgerline/core/reading';
import type { Executor } from '../db/client.ts';
import { billLine, ledgerAccount, taxCode } from '../db/schema/index.ts';
import { openOn } from '../accounts/open.ts';
import { postedLines } from './posted-lines.ts';

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

/** What is filled in of what a line may be coded with, and at each cell why, and what else it may be. */
function codedBy(suggestions: Suggestions): Coding & { marks: Record<string, StoredMark> } {
  const coding: Coding = { accountId: null, costCentreId: null, taxCodeId: null },
    marks: Record<string, StoredMark> = {};
  for (const field of codingFields) {
    const [first, ...others] = suggestions[field];
    if (!first) continue;
    const filled = first.share >= sure;
    if (filled) coding[field] = first.id;
    const rivals = (filled ? others : [first, ...others]).map(({ id, why }) => ({ value: id, mark: null, why }));
    marks[field] = { mark: null, confidence: first.share, proof: filled ? first.why : null, ...(rivals.length > 0 ? { rivals } : {}) };
  }
  return { ...coding, marks };
}

/** The usual tax codes of the likeliest accounts. */
async function usualTaxes(tx: Executor, suggestions: readonly Suggestions[]): Promise<Map<string, string>> {
  const ids = [...new Set(suggestions.flatMap((s) => s.accountId.slice(0, 1).map((o) => o.id)))];
  if (ids.length === 0) return new Map();
  const rows = await tx
    .select({ id: ledgerAccount.id, code: ledgerAccount.taxCodeId })
    .from(ledgerAccount)
    .where(inArray(ledgerAccount.id, ids));
  return new Map(rows.flatMap((r) => (r.code ? [[r.id, r.code]] : [])));
}

/** Writes the lines and charges of a reading, each under the id given for it, coded by what lines like it were posted to. */
export async function addLines(
  tx: Executor,
  companyId: string,
  billId: string,
  ids: string[],
  reading: Reading,
  data: boolean,
  found: (Coding & { id: string }) | null,
): Promise<void> {
  const day = reading.header.issueDate?.value ?? null;
  const inUse = await tx
    .select()
    .from(taxCode)
    .where(and(eq(taxCode.companyId, companyId), eq(taxCode.active, true)))
    .orderBy(taxCode.code);
  const codes = inUse.filter((c) => day === null || openOn(c, day));
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
  const said = rows.map(({ code, description, amount, taxRate }) => ({
    supplierId: found?.id ?? null,
    code,
    description,
    amount,
    day,
    taxRate: taxRate ?? onlyRate,
  }));
  const likely = suggest(said, await postedLines(tx, companyId, found?.id ?? null), found, codes);
  const suggested = withAccountTax(said, likely, await usualTaxes(tx, likely), codes);
  await tx.insert(billLine).values(
    rows.map((row, position) => {
      const { marks, ...coding } = codedBy(suggested[position]!);
      return { ...row, ...coding, id: ids[position]!, companyId, billId, position, marks: { ...row.marks, ...marks } };
    }),
  );
}
