import { and, eq, inArray } from 'drizzle-orm';
import { codingOf } from '@ledgerline/core/bills';
import { stopsCoding, type CheckedLine, type CodingFacts, type Facts } from '@ledgerline/core/checks';
import { shareTrouble, sharesOf, type Basis, type Goods as Weighed } from '@ledgerline/core/charges';
import { fixed } from '@ledgerline/core/money';
import type { linesOf } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { charge, chargeShare, orderLine, receiptLine } from '../db/schema/index.ts';
import { goodsById } from './goods.ts';

export type LineRecord = Awaited<ReturnType<typeof linesOf>>[number];
type Share = typeof chargeShare.$inferSelect & { description: string };
/** Charges that are shared, by the row that they are of. */
export type Charges = Map<string, { basis: Basis; shares: Share[] }>;

/** How the rows of bills are shared over goods, in the order of their ids: so that the cents left over always go the same way. */
export async function chargesOf(db: Executor, billIds: readonly string[]): Promise<Charges> {
  if (billIds.length === 0) return new Map();
  const rows = await db
    .select({ basis: charge.basis, share: chargeShare, description: orderLine.description })
    .from(charge)
    .innerJoin(chargeShare, eq(chargeShare.billLineId, charge.billLineId))
    .innerJoin(receiptLine, eq(receiptLine.id, chargeShare.receiptLineId))
    .innerJoin(orderLine, eq(orderLine.id, receiptLine.orderLineId))
    .where(inArray(charge.billId, [...billIds]))
    .orderBy(charge.billLineId, chargeShare.receiptLineId);
  const charges: Charges = new Map();
  for (const { basis, share, description } of rows) {
    const of = charges.get(share.billLineId) ?? { basis: basis as Basis, shares: [] };
    of.shares.push({ ...share, description });
    charges.set(share.billLineId, of);
  }
  return charges;
}

/** A row as it is posted: as it is, or in its parts, each where its goods are. A row that is no charge any more is as it is. */
export function partsOf(line: LineRecord, charges: Charges): (LineRecord & { amount: string | null })[] {
  const of = line.kind === 'charge' ? charges.get(line.id) : undefined;
  if (!of) return [line];
  return of.shares.map((share) => ({
    ...line,
    ...(share.accountId ? { ...codingOf(share), taxCodeId: line.taxCodeId } : {}),
    description: `${line.description} for ${share.description}`.slice(0, 500),
    amount: share.amount,
  }));
}

/**
 * What is wrong with where the parts of a row go, but for its first, as which the row itself is looked at: by goods, in words that follow
 * "Row 3, for Pots,".
 */
export function partsStopped(line: LineRecord, charges: Charges, ground: CodingFacts): { goods: string; stops: string }[] {
  return partsOf(line, charges).flatMap((part, i) => {
    const stops = part.accountId === null ? 'needs an account.' : stopsCoding([part as CheckedLine], ground);
    return i === 0 || stops === null ? [] : [{ goods: charges.get(line.id)!.shares[i]!.description, stops: stops.replace(/^Row 1 /, '') }];
  });
}

/** "shared by value over 2 lines of what came" */
export const saidOf = (basis: Basis, lines: number): string =>
  `shared ${basis === 'equally' ? 'equally' : basis === 'by-hand' ? 'by hand' : `by ${basis}`} over ${lines} ${lines === 1 ? 'line' : 'lines'} of what came`;
/** How rows of a bill are shared, in words. */
export async function sharedOn(db: Executor, billId: string): Promise<{ row: string; said: string }[]> {
  return [...(await chargesOf(db, [billId]))].map(([row, { basis, shares }]) => ({ row, said: saidOf(basis, shares.length) }));
}

type Own = { id: string; baseCurrency: string };
type Record = { id: string; currency: string };
/** A bill's charges as they are to be shared now: the parts, or why they cannot be. */
async function weighed(db: Executor, own: Own, record: Record, lines: readonly LineRecord[], charges: Charges) {
  const all = [...charges].flatMap(([row, of]) => {
    const line = lines.find((l) => l.id === row);
    return line?.kind === 'charge' ? [{ row, line, ...of }] : [];
  });
  const goods = await goodsById(db, own, [...new Set(all.flatMap((c) => c.shares.map((s) => s.receiptLineId)))]);
  const byId = new Map(goods.map((g) => [g.id, g]));
  return all.map(({ row, line, basis, shares }) => {
    const over = shares.map((s): Weighed => ({ ...byId.get(s.receiptLineId)!, amount: s.amount }));
    return {
      row,
      line,
      shares,
      trouble: shareTrouble(line.amount, basis, over, record.currency),
      parts: sharesOf(line.amount, basis, over, record.currency),
    };
  });
}

/** Works the parts of a bill's charges out anew, where they follow from the goods. */
export async function shareAnew(tx: Executor, own: Own, record: Record, lines: readonly LineRecord[]): Promise<void> {
  for (const { row, shares, parts } of await weighed(tx, own, record, lines, await chargesOf(tx, [record.id])))
    for (const [i, share] of shares.entries()) {
      const amount = parts && fixed(parts[i]!, record.currency);
      if (amount === null || amount === share.amount) continue;
      await tx
        .update(chargeShare)
        .set({ amount })
        .where(and(eq(chargeShare.billLineId, row), eq(chargeShare.receiptLineId, share.receiptLineId)));
    }
}

/** What the checks have to know of a bill's charges; `ground`: what is to know of what lines are coded with. */
export async function chargeFacts(
  db: Executor,
  own: Own,
  record: Record,
  lines: readonly LineRecord[],
  charges: Charges,
  ground: CodingFacts,
): Promise<Facts['charges']> {
  const found = await weighed(db, own, record, lines, charges);
  return new Map(found.map(({ row, line, trouble }) => [row, { trouble, places: partsStopped(line, charges, ground) }]));
}
