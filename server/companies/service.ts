import { eq } from 'drizzle-orm';
import { SetCompany, SetScanning, type CompanySettings, type QueueOrder } from '@ledgerline/contract';
import type { DueOn } from '@ledgerline/core/dates';
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

/** What is set of a company, with the country and currency that it is of. */
export async function companySettings(db: Executor, id: string): Promise<CompanySettings> {
  const [row] = await db.select().from(company).where(eq(company.id, id));
  return { ...settingsOf(row!), baseCurrency: row!.baseCurrency, country: row!.country };
}

type Settings = Omit<CompanySettings, 'baseCurrency' | 'country'>;
const settingsOf = (row: typeof company.$inferSelect): Settings => ({
  name: row.name,
  taxId: row.taxId,
  mailAddress: row.mailAddress,
  queueOrder: row.queueOrder as QueueOrder,
  suggests: row.suggests,
  firstCodingUsual: row.firstCodingUsual,
  taxTolerance: row.taxTolerance,
  billToNames: row.billToNames,
  rateBy: row.rateBy as Settings['rateBy'],
  dueOn: row.dueOn as DueOn,
});

/** A company's names, addresses and habits. What is not said stays as it is. */
export const setCompany = command({ body: SetCompany, may: 'settings:edit', subject: own }, async (tx, caller, input, hand) => {
  const { id, baseCurrency } = hand.subject,
    before = settingsOf(hand.subject);
  const said = Object.fromEntries(Object.entries(input).filter(([, value]) => value !== undefined)) as Partial<Settings>;
  const after: Settings = {
    ...before,
    ...said,
    name: input.name.trim(),
    taxId: input.taxId ? squash(input.taxId) || null : null,
    mailAddress: input.mailAddress.trim().toLowerCase(),
    billToNames: [...new Set((input.billToNames ?? before.billToNames).map((n) => n.trim()))],
  };
  const changed = difference(flat(before), flat(after));
  if (!changed) return {};
  await tx
    .update(company)
    .set({
      name: after.name,
      taxId: after.taxId,
      mailAddress: after.mailAddress,
      queueOrder: after.queueOrder,
      suggests: after.suggests,
      firstCodingUsual: after.firstCodingUsual,
      taxTolerance: after.taxTolerance,
      billToNames: after.billToNames,
      rateBy: after.rateBy,
      dueOn: after.dueOn,
    })
    .where(eq(company.id, id));
  hand.record({ subject: { type: 'company', id }, verb: 'changed', ...changed });
  if (before.taxTolerance !== after.taxTolerance || before.rateBy !== after.rateBy)
    await recheckBills(tx, { id, baseCurrency }, 'all', { personId: caller.me.id, now: hand.now });
  return {};
});
/** As the event log keeps it. */
const flat = ({ billToNames, ...of }: Settings) => ({ ...of, billToNames: billToNames.join('; ') || null });

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
