import { and, eq, isNotNull, or } from 'drizzle-orm';
import { alternatives, type Item } from '@ledgerline/core/coding';
import type { Executor } from '../db/client.ts';
import { item } from '../db/schema/index.ts';

/** The company's items that say how lines are coded. */
export async function codedItems(db: Executor, companyId: string): Promise<Item[]> {
  const rows = await db
    .select()
    .from(item)
    .where(and(eq(item.companyId, companyId), eq(item.active, true), or(isNotNull(item.accountId), isNotNull(item.taxCodeId))));
  return rows.map(({ code, name, alsoCalled, accountId, taxCodeId }) => ({
    code,
    name,
    // A comma parts alternatives: a name that has one is one text still.
    words: [name.replaceAll(',', ' '), ...alternatives(alsoCalled ?? '')].join(', '),
    coding: { accountId, taxCodeId },
  }));
}
