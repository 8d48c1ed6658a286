import { and, eq } from 'drizzle-orm';
import { tellingWords } from '@ledgerline/core/coding';
import type { Executor } from '../db/client.ts';
import { codingForgotten } from '../db/schema/index.ts';

/** What tells lines from others: their words, in order. */
export const wordsKey = (description: string): string => [...tellingWords(description)].sort().join(' ');

/** Whether a posted line still says something: by the words that were forgotten, and until when. */
export async function rememberedBy(
  db: Executor,
  companyId: string,
  supplierId: string,
): Promise<(line: { description: string; day: string }) => boolean> {
  const rows = await db
    .select()
    .from(codingForgotten)
    .where(and(eq(codingForgotten.companyId, companyId), eq(codingForgotten.supplierId, supplierId)));
  const until = new Map(rows.map((r) => [r.words, r.until]));
  if (until.size === 0) return () => true;
  return ({ description, day }) => {
    const last = until.get(wordsKey(description));
    return last === undefined || day > last;
  };
}
