import { and, eq, inArray, isNull } from 'drizzle-orm';
import { dec } from '@ledgerline/core/money';
import type { Caller, Hand } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { billLine, company, supplier } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import type { Prepared } from './journal.ts';

const idsOf = (prepared: readonly Prepared[]): string[] => [...new Set(prepared.map((p) => p.bill.supplierId!))];

/** Suppliers without a usual account take the coding of their first bill's largest row, where the company wants it so; what is set stays. */
export async function takeFirstCoding(tx: Executor, caller: Caller, prepared: readonly Prepared[], hand: Hand<unknown>): Promise<void> {
  const [own] = await tx.select({ wants: company.firstCodingUsual }).from(company).where(eq(company.id, caller.company.id));
  if (!own?.wants) return;
  const without = await tx
    .select()
    .from(supplier)
    .where(and(inArray(supplier.id, idsOf(prepared)), isNull(supplier.accountId)))
    .orderBy(supplier.id)
    .for('update');
  for (const { id, accountId, costCentreId, taxCodeId } of without) {
    const first = prepared.find((p) => p.bill.supplierId === id)!.bill;
    const lines = await tx
      .select()
      .from(billLine)
      .where(and(eq(billLine.billId, first.id), inArray(billLine.kind, ['line', 'stock', 'asset'])));
    const size = (line: (typeof lines)[number]) => dec(line.amount ?? '0').abs();
    const [largest] = lines.sort((a, b) => size(b).comparedTo(size(a)));
    if (!largest) continue;
    const usual = {
      accountId: largest.accountId,
      costCentreId: costCentreId ?? largest.costCentreId,
      taxCodeId: taxCodeId ?? largest.taxCodeId,
    };
    await tx.update(supplier).set(usual).where(eq(supplier.id, id));
    hand.record({
      subject: { type: 'supplier', id },
      verb: 'changed',
      note: `Usual coding from its first posting, ${first.invoiceNumber}`,
      ...difference({ accountId, costCentreId, taxCodeId }, usual)!,
    });
  }
}
