import type { Executor } from '@ledgerline/server/db/client';
import { item, type taxCode } from '@ledgerline/server/db/schema/index';
import { items } from './master.ts';

/** What a company buys again and again: with the tax code of the usual rate in its country, and no price but in pounds. */
export async function writeItems(
  db: Executor,
  companyId: string,
  currency: string,
  accountIds: ReadonlyMap<string, string>,
  codes: readonly (typeof taxCode.$inferSelect)[],
): Promise<void> {
  const usual = codes.find((c) => !c.reverseCharge && Number(c.recoverable) === 100 && Number(c.rate) >= 20);
  await db.insert(item).values(
    items.map(({ account, price, ...one }) => ({
      ...one,
      companyId,
      accountId: accountIds.get(account)!,
      taxCodeId: usual?.id ?? null,
      ...(price !== null && currency === 'GBP' ? { price, currency } : {}),
    })),
  );
}
