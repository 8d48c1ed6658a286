import { and, eq } from 'drizzle-orm';
import { codingFields, codingOf, type Coding } from '@ledgerline/core/bills';
import { ForgetLines, type Learned } from '@ledgerline/contract';
import { command } from '../commands/command.ts';
import { rowIn } from '../accounts/row.ts';
import type { Executor } from '../db/client.ts';
import { codingForgotten, supplier } from '../db/schema/index.ts';
import { notFound } from '../http/problems.ts';
import { wordsKey } from './forgotten.ts';
import { givenOf, namedIn, shownOf } from './named.ts';
import { supplierLines } from './posted-lines.ts';

/** So many kinds of lines are shown, those that came most often first. */
const shown = 60;

/** What a supplier's posted lines say of new ones: lines that say alike, and how they were coded. Not found outside the company. */
export async function learnedFor(db: Executor, companyId: string, supplierId: string): Promise<Learned> {
  const [own] = await db
    .select({ id: supplier.id })
    .from(supplier)
    .where(and(eq(supplier.companyId, companyId), eq(supplier.id, supplierId)));
  if (!own) throw notFound('This supplier');
  const lines = await supplierLines(db, companyId, supplierId);
  const groups = new Map<
    string,
    { description: string; times: number; codings: Map<string, { coding: Coding; times: number; last: string }> }
  >();
  // The latest first: what it says of a kind of lines is what is shown of it.
  for (const line of lines) {
    const words = wordsKey(line.description);
    const group = groups.get(words) ?? { description: line.description, times: 0, codings: new Map() };
    const coding = codingOf(line),
      key = codingFields.map((field) => coding[field]).join();
    const as = group.codings.get(key) ?? { coding, times: 0, last: line.day };
    as.times++;
    group.times++;
    group.codings.set(key, as);
    groups.set(words, group);
  }
  const often = [...groups].sort(([, a], [, b]) => b.times - a.times).slice(0, shown);
  const named = await namedIn(
    db,
    companyId,
    often.flatMap(([, g]) => [...g.codings.values()].map((c) => c.coding)),
  );
  return {
    lines: lines.length,
    groups: often.map(([words, { description, times, codings }]) => ({
      words,
      description,
      times,
      codings: [...codings.values()]
        .sort((a, b) => b.times - a.times)
        .map((c) => ({ shown: shownOf(c.coding, named), coding: givenOf(c.coding), times: c.times, last: c.last })),
    })),
  };
}

const supplierIn = rowIn(supplier, 'This supplier');

/** Posted lines of these words, as far as they are posted by now, say nothing of new ones any more. */
export const forgetLines = command({ body: ForgetLines, may: 'rules:edit', subject: supplierIn }, async (tx, caller, input, hand) => {
  const { id, companyId } = hand.subject;
  const alike = (await supplierLines(tx, companyId, id)).filter((line) => wordsKey(line.description) === input.words);
  const [latest] = alike;
  if (!latest) return { id };
  const put = { until: latest.day, personId: caller.me.id, at: hand.now };
  await tx
    .insert(codingForgotten)
    .values({ companyId, supplierId: id, words: input.words, ...put })
    .onConflictDoUpdate({ target: [codingForgotten.companyId, codingForgotten.supplierId, codingForgotten.words], set: put });
  hand.record({
    subject: { type: 'supplier', id },
    verb: 'forgot',
    note: `${alike.length} lines like “${latest.description.slice(0, 80)}”`,
  });
  return { id };
});
