import { and, asc, eq, inArray, isNull, or } from 'drizzle-orm';
import { codingFields, codingOf, type Coding, type CodingField } from '@ledgerline/core/bills';
import { alternatives, type CodingRule } from '@ledgerline/core/coding';
import { PutCodingRule, type CodingRuleRow } from '@ledgerline/contract';
import { openOn } from '../accounts/open.ts';
import { rowIn } from '../accounts/row.ts';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { codingRule, person, supplier } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';
import { givenOf, idsByList, namedIn, shownOf } from './named.ts';

/** The company's rules, or those about a supplier, the oldest first; without the ones that are off where `active`. */
async function rowsOf(db: Executor, companyId: string, supplierId: string | null | undefined, active: boolean) {
  return db
    .select({ r: codingRule, supplier: supplier.name, madeBy: person.name })
    .from(codingRule)
    .leftJoin(supplier, eq(supplier.id, codingRule.supplierId))
    .innerJoin(person, eq(person.id, codingRule.madeBy))
    .where(
      and(
        eq(codingRule.companyId, companyId),
        active ? eq(codingRule.active, true) : undefined,
        supplierId === undefined
          ? undefined
          : supplierId === null
            ? isNull(codingRule.supplierId)
            : or(isNull(codingRule.supplierId), eq(codingRule.supplierId, supplierId)),
      ),
    )
    .orderBy(asc(codingRule.id));
}

/** The company's rules, or (`supplierId`) those that are about this supplier alone, as people see them. */
export async function listRules(db: Executor, companyId: string, supplierId?: string): Promise<CodingRuleRow[]> {
  const rows = (await rowsOf(db, companyId, supplierId, false)).filter((row) => !supplierId || row.r.supplierId === supplierId);
  const named = await namedIn(
    db,
    companyId,
    rows.map((row) => row.r),
  );
  return rows.map(({ r, supplier: name, madeBy }) => ({
    id: r.id,
    supplierId: r.supplierId,
    supplier: name,
    words: r.words,
    coding: givenOf(r),
    shown: shownOf(r, named),
    active: r.active,
    madeBy,
  }));
}

/** What of these ids lines of a bill of a day may not be coded with. */
async function closedAmong(db: Executor, codings: readonly Partial<Coding>[], day: string): Promise<Set<string>> {
  const closed = new Set<string>();
  for (const { table, ids } of idsByList(codings))
    for (const row of await db.select().from(table).where(inArray(table.id, ids)))
      if (!openOn(row, day) || ('postable' in row && !(row.postable && ['expense', 'asset'].includes(row.kind)))) closed.add(row.id);
  return closed;
}

/** Codings without what lines of a bill of a day may not be coded with. */
export async function openOf<T extends { coding: Partial<Coding> }>(db: Executor, all: readonly T[], day: string): Promise<T[]> {
  const closed = await closedAmong(
    db,
    all.map((one) => one.coding),
    day,
  );
  const open = (coding: Partial<Coding>) =>
    Object.fromEntries(Object.entries(givenOf(coding)).filter(([, id]) => !closed.has(id))) as Partial<Coding>;
  return all.map((one) => ({ ...one, coding: open(one.coding) }));
}

/** The rules that may be about lines of a supplier on a bill of a day, without what such a line cannot have. */
export async function rulesFor(db: Executor, companyId: string, supplierId: string | null, day: string): Promise<CodingRule[]> {
  const rows = (await rowsOf(db, companyId, supplierId, true)).map((row) => row.r);
  return openOf(
    db,
    rows.map((r) => ({ id: r.id, supplierId: r.supplierId, words: r.words, coding: codingOf(r) })),
    day,
  );
}

/** A rule as it is kept; refused where it is about nothing, or says nothing. */
function columnsOf({ supplierId, words, coding, active }: PutCodingRule) {
  const text = words?.trim() || null;
  if (text !== null && alternatives(text).length === 0)
    throw new Refusal(422, 'The text has no word in it.', [{ path: 'words', sentence: 'Write a word that lines have.' }]);
  if (supplierId === null && text === null)
    throw new Refusal(422, 'A rule is about a supplier, a text, or both.', [
      { path: 'words', sentence: 'Write a text, or choose a supplier.' },
    ]);
  if (codingFields.every((field) => !coding[field]))
    throw new Refusal(422, 'A rule says at least one thing: an account, a cost centre, a tax code …');
  return { supplierId, words: text, ...codingOf(coding as Partial<Coding>), active };
}
type Columns = ReturnType<typeof columnsOf>;

/** As the event log keeps it: codes, not ids. */
async function saidOf(tx: Executor, companyId: string, of: Columns): Promise<Record<string, unknown>> {
  const shown = shownOf(of, await namedIn(tx, companyId, [of]));
  const [own] = of.supplierId ? await tx.select({ name: supplier.name }).from(supplier).where(eq(supplier.id, of.supplierId)) : [];
  return {
    supplier: own?.name ?? null,
    words: of.words,
    ...Object.fromEntries(shown.map(({ field, code, name }): [CodingField, string] => [field, `${code} ${name}`])),
    active: of.active,
  };
}

const ruleIn = rowIn(codingRule, 'This rule');

export const newCodingRule = command({ body: PutCodingRule, may: 'rules:edit' }, async (tx, caller, input, hand) => {
  const companyId = caller.company.id,
    put = columnsOf(input);
  const [made] = await tx
    .insert(codingRule)
    .values({ companyId, ...put, madeBy: caller.me.id })
    .returning({ id: codingRule.id });
  hand.record({ subject: { type: 'coding-rule', id: made!.id }, verb: 'made', after: await saidOf(tx, companyId, put) });
  return { id: made!.id };
});

/** Changes a rule, or switches it off. What was coded by it stays. */
export const changeCodingRule = command({ body: PutCodingRule, may: 'rules:edit', subject: ruleIn }, async (tx, _, input, hand) => {
  const { id, companyId } = hand.subject,
    put = columnsOf(input);
  const before = await saidOf(tx, companyId, hand.subject);
  await tx.update(codingRule).set(put).where(eq(codingRule.id, id));
  const changed = difference(before, await saidOf(tx, companyId, put));
  if (changed) hand.record({ subject: { type: 'coding-rule', id }, verb: 'changed', ...changed });
  return { id };
});
