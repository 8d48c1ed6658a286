import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import type { Static } from '@sinclair/typebox';
import { codingOf, type Coding } from '@ledgerline/core/bills';
import { addDays, dayInWords, endOfMonth, monthOf, yearOf } from '@ledgerline/core/dates';
import { dec, fixed, sum } from '@ledgerline/core/money';
import { bearerOf } from '@ledgerline/core/posting';
import { PostAccrual, type Accrual } from '@ledgerline/contract';
import { keptAccount } from '../coding/usual.ts';
import { namedIn } from '../coding/named.ts';
import { command } from '../commands/command.ts';
import { refusedBy, type Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { accrual, accrualLine, journalEntry, journalLine, orderLine, person, purchaseOrder, supplier } from '../db/schema/index.ts';
import { dimensionsSaid, namesOn } from '../dimensions/store.ts';
import { Refusal } from '../http/problems.ts';
import { placesOf } from '../orders/places.ts';
import { receivedNotBilled } from '../receipts/unbilled.ts';

type Own = { id: string; baseCurrency: string };
const monthInWords = (day: string) => dayInWords(day).replace(/^\d+ /, '');

/** What is to be posted of a line of an order: what had come and was not billed, less what was posted for that day before. */
interface Part {
  orderLineId: string;
  order: string;
  place: number;
  description: string;
  supplier: string;
  amount: string;
  coding: Coding | null;
}

async function partsOn(db: Executor, own: Own, on: string): Promise<{ parts: Part[]; withoutRate: string[] }> {
  const { lines } = await receivedNotBilled(db, own, on);
  const owed = new Map(lines.flatMap((l) => (l.base === null ? [] : [[l.id, dec(l.base)] as const])));
  const before = await db
    .select({ id: accrualLine.orderLineId, amount: sql<string>`sum(${col(accrualLine.amount)})::text` })
    .from(accrualLine)
    .innerJoin(accrual, eq(accrual.id, accrualLine.accrualId))
    .where(and(eq(accrual.companyId, own.id), eq(accrual.onDay, on)))
    .groupBy(accrualLine.orderLineId);
  const amounts = new Map([...owed].map(([id, amount]) => [id, amount]));
  for (const { id, amount } of before) amounts.set(id, (owed.get(id) ?? dec(0)).minus(amount));
  const ids = [...amounts].flatMap(([id, amount]) => (amount.isZero() ? [] : [id]));
  const rows = ids.length
    ? await db
        .select({ l: orderLine, order: purchaseOrder.number, supplier: supplier.name })
        .from(orderLine)
        .innerJoin(purchaseOrder, eq(purchaseOrder.id, orderLine.orderId))
        .innerJoin(supplier, eq(supplier.id, purchaseOrder.supplierId))
        .where(inArray(orderLine.id, ids))
        .orderBy(asc(supplier.name), asc(purchaseOrder.number), asc(orderLine.position))
    : [];
  const places = await placesOf(db, rows.map((r) => r.l)); // prettier-ignore
  return {
    parts: rows.map(({ l, order, supplier: name }) => ({
      orderLineId: l.id,
      order,
      place: l.position + 1,
      description: l.description,
      supplier: name,
      amount: fixed(amounts.get(l.id)!, own.baseCurrency),
      coding: places.get(l.id) ?? null,
    })),
    withoutRate: [...new Set(lines.filter((l) => l.base === null).map((l) => l.currency))],
  };
}

const totalOf = (parts: readonly Part[], currency: string) => fixed(sum(parts.map((p) => dec(p.amount))), currency);
const named = (parts: readonly Part[]) =>
  `${parts.slice(0, 3).map((p) => `order ${p.order}, line ${p.place}`).join('; ')}${parts.length > 3 ? ` and ${parts.length - 3} more` : ''}`; // prettier-ignore

/** Why what had come and was not billed cannot be posted, in sentences. */
function troublesOf(on: string, account: unknown, parts: readonly Part[], withoutRate: readonly string[]): string[] {
  const nowhere = parts.filter((p) => !p.coding?.accountId);
  return [
    ...(endOfMonth(on) === on ? [] : ['It is posted for the last day of a month.']),
    ...(account ? [] : ['There is no account for what is received and not billed. Choose one in Settings, under Usual coding.']),
    ...withoutRate.map((currency) => `There is no exchange rate for ${currency} on ${dayInWords(on)}.`),
    ...(nowhere.length > 0
      ? [`Of some it is not known where they are posted to. Give them an account at the order: ${named(nowhere)}.`]
      : []),
  ];
}

/** What was posted for a day, the first one first. */
async function postedOn(db: Executor, own: Own, on: string): Promise<Accrual['posted']> {
  const number = (id: typeof accrual.entryId | typeof accrual.backId) =>
    sql<string>`(select entry_number(e.year, e.number) from journal_entry e where e.id = ${col(id)})`;
  const rows = await db
    .select({
      id: accrual.id,
      entryId: accrual.entryId,
      entry: number(accrual.entryId),
      backId: accrual.backId,
      back: number(accrual.backId),
      person: person.name,
      at: accrual.at,
      amount: sql<string>`(select sum(l.amount)::text from accrual_line l where l.accrual_id = ${col(accrual.id)})`,
    })
    .from(accrual)
    .innerJoin(person, eq(person.id, accrual.personId))
    .where(and(eq(accrual.companyId, own.id), eq(accrual.onDay, on)))
    .orderBy(asc(accrual.at), asc(accrual.id));
  return rows.map((r) => ({ ...r, at: r.at.toISOString(), amount: fixed(r.amount, own.baseCurrency) }));
}

/** What had come by the end of a month and was not billed: what was posted for it, and what is still to be. */
export async function accrualOn(db: Executor, own: Own, on: string): Promise<Accrual> {
  const account = await keptAccount(db, own.id, 'accrual');
  const { parts, withoutRate } = await partsOn(db, own, on);
  const codings = parts.map((p) => p.coding ?? codingOf({}));
  const codes = await namedIn(db, own.id, codings);
  const [dimensions, values] = await namesOn(db, own.id, codings);
  return {
    on,
    backOn: addDays(on, 1),
    currency: own.baseCurrency,
    account: account?.name ?? null,
    posted: await postedOn(db, own, on),
    lines: parts.map(({ order, place, description, supplier: name, amount, coding }) => {
      const of = codes.get(coding?.accountId ?? '');
      return {
        order,
        place,
        description,
        supplier: name,
        account: of?.code ?? '',
        accountName: of?.name ?? 'not known',
        costCentre: codes.get(coding?.costCentreId ?? '')?.code ?? null,
        dimensions: coding ? dimensionsSaid(coding, dimensions, values) : [],
        amount,
      };
    }),
    total: totalOf(parts, own.baseCurrency),
    troubles: troublesOf(on, account, parts, withoutRate),
  };
}

/**
 * Posts what had come by the end of a month and was not billed: each line of an order where its goods are, against the account kept for it,
 * on that day; and takes it back on the next. What was posted for the day before counts: only what differs is posted.
 */
export const postAccrual = command(
  { body: PostAccrual, may: 'bills:post' },
  async (tx, caller, { on, total }: Static<typeof PostAccrual>, hand) => {
    const own = caller.company,
      companyId = own.id;
    // Two at once: the second finds that nothing differs any more.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${companyId}, 12))`);
    const account = await keptAccount(tx, companyId, 'accrual');
    const { parts, withoutRate } = await partsOn(tx, own, on);
    const [trouble] = troublesOf(on, account, parts, withoutRate);
    if (trouble) throw new Refusal(422, trouble);
    if (parts.length === 0) throw new Refusal(409, 'Nothing is to be posted: all that had come is billed, or was posted before.');
    if (!dec(total).eq(totalOf(parts, own.baseCurrency))) throw new Refusal(409, 'It has changed since you saw it. Look at it again.');
    const id = v7(),
      source = { sourceType: 'accrual', sourceId: id };
    const lines = [
      ...parts.map((p) => ({
        accountId: p.coding!.accountId!,
        ...bearerOf(p.coding!),
        description: `${p.order}, line ${p.place}: ${p.description}`.slice(0, 500),
        amount: dec(p.amount),
      })),
      { accountId: account!.id, description: `Received, not billed, ${monthInWords(on)}`, amount: dec(total).negated() },
    ].filter((l) => !l.amount.isZero());
    const entry = async (entryDate: string, sign: 1 | -1, reverses: string | null) => {
      const description = `${reverses ? 'Taken back: received' : 'Received'}, not billed, ${monthInWords(on)}`;
      const dated = { year: yearOf(entryDate), month: monthOf(entryDate), entryDate };
      const [made] = await tx
        .insert(journalEntry)
        .values({
          companyId,
          ...dated,
          ...source,
          reverses,
          description,
          currency: own.baseCurrency,
          postedBy: caller.me.id,
          postedAt: hand.now,
        }) // prettier-ignore
        .returning({ id: journalEntry.id });
      await tx.insert(journalLine).values(
        lines.map(({ amount: of, ...line }, position) => {
          const amount = of.times(sign),
            shown = fixed(amount, own.baseCurrency);
          const [debit, credit] = amount.isPositive() ? [shown, '0'] : ['0', fixed(amount.negated(), own.baseCurrency)];
          return { companyId, entryId: made!.id, position, ...line, debit, credit, currencyAmount: shown };
        }),
      );
      hand.record({ subject: { type: 'entry', id: made!.id }, verb: 'posted', after: { what: description, entryDate, total } });
      return made!.id;
    };
    try {
      const entryId = await entry(on, 1, null),
        backId = await entry(addDays(on, 1), -1, entryId);
      await tx.insert(accrual).values({ id, companyId, onDay: on, entryId, backId, personId: caller.me.id, at: hand.now });
      await tx.insert(accrualLine).values(parts.map((p) => ({ accrualId: id, companyId, orderLineId: p.orderLineId, amount: p.amount })));
    } catch (error) {
      if (refusedBy(error) === 'journal_entry_period_open')
        throw new Refusal(
          422,
          `${monthInWords(on)} and the month after it have to be open: it is taken back on ${dayInWords(addDays(on, 1))}. Nothing was posted.`,
        );
      throw error;
    }
    return { id };
  },
);
