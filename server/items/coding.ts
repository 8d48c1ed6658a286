import { and, eq, isNotNull, or } from 'drizzle-orm';
import { alternatives, type Item } from '@ledgerline/core/coding';
import type { Executor } from '../db/client.ts';
import { item } from '../db/schema/index.ts';

/** What says that a row is an item, as a rule's words: its name, and what suppliers call it. A comma parts alternatives: a name that has one is one text still. */
export const wordsOf = ({ name, alsoCalled }: { name: string; alsoCalled: string | null }): string =>
  [name.replaceAll(',', ' '), ...alternatives(alsoCalled ?? '')].join(', ');

/** The company's items that say how lines are coded. */
export async function codedItems(db: Executor, companyId: string): Promise<Item[]> {
  const rows = await db
    .select()
    .from(item)
    .where(and(eq(item.companyId, companyId), eq(item.active, true), or(isNotNull(item.accountId), isNotNull(item.taxCodeId))));
  return rows.map((i) => ({ code: i.code, name: i.name, words: wordsOf(i), coding: { accountId: i.accountId, taxCodeId: i.taxCodeId } }));
}
