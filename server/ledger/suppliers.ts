import { and, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import { dec } from '@ledgerline/core/money';
import type { Caller, Hand } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { billException, billLine, company, supplier } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';
import type { Prepared } from './journal.ts';

const idsOf = (prepared: readonly Prepared[]): string[] => [...new Set(prepared.map((p) => p.bill.supplierId!))];

/** Refuses bills of suppliers that were blocked since they were sent on, unless somebody overruled this very reason on the bill. */
export async function noneBlocked(tx: Executor, prepared: readonly Prepared[]): Promise<void> {
  const blocked = await tx
    .select()
    .from(supplier)
    .where(and(inArray(supplier.id, idsOf(prepared)), isNotNull(supplier.blocked)));
  if (blocked.length === 0) return;
  const reasons = new Map(blocked.map((s) => [s.id, s]));
  const concerned = prepared.filter((p) => reasons.has(p.bill.supplierId!)).map((p) => p.bill);
  const overruled = await tx
    .select({ billId: billException.billId, because: billException.key })
    .from(billException)
    .where(
      and(
        inArray(
          billException.billId,
          concerned.map((b) => b.id),
        ),
        eq(billException.code, 'supplier-blocked'),
        eq(billException.state, 'overruled'),
      ),
    );
  for (const one of concerned) {
    const { name, blocked: because } = reasons.get(one.supplierId!)!;
    if (!overruled.some((o) => o.billId === one.id && o.because === because))
      throw new Refusal(422, `${one.invoiceNumber} cannot be posted: ${name} is blocked: ${because}. Nothing was posted.`);
  }
}

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
