import { and, desc, eq, inArray, ne, or, isNull, sql, type SQL } from 'drizzle-orm';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import { codingFields, codingOf, type CodingField, type DimensionField } from '@ledgerline/core/bills';
import { Memory } from '@ledgerline/core/coding';
import { openIn } from '../accounts/open.ts';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { rememberedBy } from './forgotten.ts';
import { bill, billLine, costCentre, ledgerAccount } from '../db/schema/index.ts';

/** So many lines say how a supplier is coded; with fewer than `few` other suppliers' lines are asked, too. */
const ownLines = 300,
  few = 20,
  otherLines = 1000;

const open = (condition: SQL, id: AnyPgColumn) => sql<string | null>`CASE WHEN ${condition} THEN ${id} END`;

/** The values of the dimensions in use that a bill of the day may have. */
const dimensionsOpen = (dimensions: readonly DimensionField[], day: string) =>
  Object.fromEntries(
    dimensions.map((field) => [
      field,
      sql<string | null>`(select v.id from dimension_value v where v.id = ${col(billLine[field])}
        and v.active and coalesce(v.valid_from <= ${day}::date, true) and coalesce(${day}::date <= v.valid_to, true))`,
    ]),
  ) as Partial<Record<DimensionField, SQL<string | null>>>;

const posted = async (
  tx: Executor,
  companyId: string,
  dimensions: readonly DimensionField[],
  day: string,
  which: SQL | undefined,
  latest: SQL[],
  most: number,
) =>
  tx
    .select({
      supplierId: bill.supplierId,
      description: billLine.description,
      code: billLine.code,
      amount: billLine.amount,
      day: bill.issueDate,
      // What a bill of this day cannot use is not suggested.
      accountId: open(sql`${ledgerAccount.postable} AND ${openIn(ledgerAccount, day)}`, billLine.accountId),
      costCentreId: open(openIn(costCentre, day), billLine.costCentreId),
      taxCodeId: billLine.taxCodeId,
      ...dimensionsOpen(dimensions, day),
    })
    .from(billLine)
    .innerJoin(bill, eq(bill.id, billLine.billId))
    .leftJoin(ledgerAccount, eq(ledgerAccount.id, billLine.accountId))
    .leftJoin(costCentre, eq(costCentre.id, billLine.costCentreId))
    .where(and(eq(bill.companyId, companyId), inArray(bill.stage, ['posted', 'paid']), ne(billLine.kind, 'text'), which))
    .orderBy(...latest)
    .limit(most);

/** A supplier's own posted lines as they are, the latest first: without those that were forgotten. */
export async function supplierLines(db: Executor, companyId: string, supplierId: string) {
  const lines = await db
    .select({ description: billLine.description, day: bill.issueDate, ...codingColumns })
    .from(billLine)
    .innerJoin(bill, eq(bill.id, billLine.billId))
    .where(
      and(
        eq(bill.companyId, companyId),
        inArray(bill.stage, ['posted', 'paid']),
        ne(billLine.kind, 'text'),
        eq(bill.supplierId, supplierId),
      ),
    )
    .orderBy(desc(bill.issueDate), desc(bill.id))
    .limit(ownLines);
  const remembered = await rememberedBy(db, companyId, supplierId);
  return lines.flatMap(({ day, ...line }) => (day && remembered({ ...line, day }) ? [{ ...line, day }] : []));
}
/** The columns of a line's coding, to be selected together. */
export const codingColumns = Object.fromEntries(codingFields.map((field) => [field, billLine[field]])) as {
  [F in CodingField]: (typeof billLine)[F];
};

/** This company's posted lines that a supplier's lines on a bill of this day may be like: its own, and where it has few, the last of others. */
export async function postedLines(
  tx: Executor,
  companyId: string,
  supplierId: string | null,
  day: string,
  dimensions: readonly DimensionField[],
): Promise<Memory> {
  // Each in an order that an index has.
  const own = supplierId
    ? await posted(tx, companyId, dimensions, day, eq(bill.supplierId, supplierId), [desc(bill.issueDate), desc(bill.id)], ownLines)
    : [];
  const notOwn = supplierId ? or(ne(bill.supplierId, supplierId), isNull(bill.supplierId)) : undefined;
  const others =
    own.length < few ? await posted(tx, companyId, dimensions, day, notOwn, [desc(bill.createdAt), desc(bill.id)], otherLines) : [];
  const remembered = supplierId ? await rememberedBy(tx, companyId, supplierId) : () => true;
  const memory = new Memory();
  // The latest is learned last.
  for (const { day, ...line } of [...own, ...others].reverse())
    if (day && (line.supplierId !== supplierId || remembered({ ...line, day }))) memory.learn({ ...line, day }, codingOf(line));
  return memory;
}
