import { eq } from 'drizzle-orm';
import { SetCompany, SetScanning, type CompanySettings, type QueueOrder } from '@ledgerline/contract';
import { squash } from '@ledgerline/core/reading';
import { recheckBills } from '../bills/checking.ts';
import { command, type Caller } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { company } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';

const own = async (tx: Executor, caller: Caller) => {
  const [row] = await tx.select().from(company).where(eq(company.id, caller.company.id)).for('update');
  return row!;
};

export async function companySettings(db: Executor, id: string): Promise<CompanySettings> {
  const [row] = await db.select().from(company).where(eq(company.id, id));
  const { name, taxId, mailAddress, queueOrder, suggests, firstCodingUsual, taxTolerance, baseCurrency, country } = row!;
  return {
    name,
    taxId,
    mailAddress,
    queueOrder: queueOrder as QueueOrder,
    suggests,
    firstCodingUsual,
    taxTolerance,
    baseCurrency,
    country,
  };
}

/** The company's name, tax number and the address that takes its mail. */
export const setCompany = command({ body: SetCompany, may: 'settings:edit', subject: own }, async (tx, caller, input, hand) => {
  const before = hand.subject;
  const columns = {
    name: input.name.trim(),
    taxId: input.taxId ? squash(input.taxId) || null : null,
    mailAddress: input.mailAddress.trim().toLowerCase(),
    queueOrder: input.queueOrder,
    suggests: input.suggests ?? before.suggests,
    firstCodingUsual: input.firstCodingUsual ?? before.firstCodingUsual,
    taxTolerance: input.taxTolerance === undefined ? before.taxTolerance : input.taxTolerance,
  };
  const { name, taxId, mailAddress, queueOrder, suggests, firstCodingUsual, taxTolerance } = before;
  const changed = difference({ name, taxId, mailAddress, queueOrder, suggests, firstCodingUsual, taxTolerance }, columns);
  if (!changed) return {};
  await tx.update(company).set(columns).where(eq(company.id, before.id));
  hand.record({ subject: { type: 'company', id: before.id }, verb: 'changed', ...changed });
  if (taxTolerance !== columns.taxTolerance)
    await recheckBills(tx, { id: before.id, baseCurrency: before.baseCurrency }, 'all', { personId: caller.me.id, now: hand.now });
  return {};
});

/** What parts documents in one scan from the scan folder. */
export const setScanning = command({ body: SetScanning, may: 'arrivals:add', subject: own }, async (tx, _, input, hand) => {
  const before = hand.subject;
  await tx.update(company).set({ scanSeparator: input.separator }).where(eq(company.id, before.id));
  hand.record({
    subject: { type: 'company', id: before.id },
    verb: 'changed',
    before: { scanSeparator: before.scanSeparator },
    after: { scanSeparator: input.separator },
  });
  return {};
});
