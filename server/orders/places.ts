import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { codingOf, type Coding } from '@ledgerline/core/bills';
import type { Executor } from '../db/client.ts';
import { billLine, lineMatch, type orderLine } from '../db/schema/index.ts';

/** What the rows of bills are coded with that bill lines of orders, the last one each. */
async function billedOn(db: Executor, orderLineIds: readonly string[]): Promise<Map<string, Coding>> {
  if (orderLineIds.length === 0) return new Map();
  const rows = await db
    .selectDistinctOn([lineMatch.orderLineId], { of: lineMatch.orderLineId, line: billLine })
    .from(lineMatch)
    .innerJoin(billLine, eq(billLine.id, lineMatch.billLineId))
    .where(
      and(
        inArray(lineMatch.orderLineId, [...orderLineIds]),
        sql`${billLine.accountId} is not null and exists (select 1 from bill b where b.id = ${lineMatch.billId} and b.stage <> 'discarded')`,
      ),
    )
    .orderBy(lineMatch.orderLineId, desc(billLine.id));
  return new Map(rows.map((r) => [r.of!, codingOf(r.line)]));
}

/** Where goods are: as the line of their order is coded, else as it was billed last; lines of which neither is known are left out. */
export async function placesOf(db: Executor, lines: readonly (typeof orderLine.$inferSelect)[]): Promise<Map<string, Coding>> {
  const elsewhere = await billedOn(db, lines.flatMap((l) => (l.accountId ? [] : [l.id]))); // prettier-ignore
  return new Map(
    lines.flatMap((l) => {
      const coding = l.accountId ? codingOf(l) : elsewhere.get(l.id);
      return coding ? [[l.id, coding] as const] : [];
    }),
  );
}
