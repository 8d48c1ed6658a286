import { and, count, countDistinct, desc, eq, gte, inArray, ne, sql, type SQL } from 'drizzle-orm';
import { addDays } from '@ledgerline/core/dates';
import type { CodingField } from '@ledgerline/core/bills';
import type { CombinationEffect, CombinationQuery } from '@ledgerline/contract';
import { editable } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { bill, billLine, supplier } from '../db/schema/index.ts';
import { ruleOf } from './combinations.ts';
import { codeIn } from './ranges.ts';

const tables: Partial<Record<CodingField, string>> = { accountId: 'ledger_account', costCentreId: 'cost_centre', taxCodeId: 'tax_code' };
/** The code of what a line has in a field. */
const codeOf = (field: CodingField): SQL<string> =>
  sql<string>`(select x.code from ${sql.identifier(tables[field] ?? 'dimension_value')} x where x.id = ${col(billLine[field])})`;

/** So many rows are shown of what was posted against it. */
const shown = 5;

/** What a rule on what goes together would do: rows in hand that it stops, and what was posted in the year before a day against it. */
export async function effectOf(db: Executor, companyId: string, rule: CombinationQuery, today: string): Promise<CombinationEffect> {
  const { whenField, when, onlyField, only } = ruleOf(rule);
  const [has, other] = [codeOf(whenField), codeOf(onlyField)];
  const concerned = and(eq(bill.companyId, companyId), ne(billLine.kind, 'text'), codeIn(has, when));
  const against = sql`${other} is not null and not ${codeIn(other, only)}`;
  const posted = and(concerned, inArray(bill.stage, ['posted', 'paid']), gte(bill.issueDate, addDays(today, -365)));
  const lines = () =>
    db
      .select({ rows: count(), bills: countDistinct(bill.id) })
      .from(billLine)
      .innerJoin(bill, eq(bill.id, billLine.billId));
  const [inHand] = await lines().where(and(concerned, against, inArray(bill.stage, [...editable, 'set-aside'])));
  const [all] = await lines().where(posted);
  const [bad] = await lines().where(and(posted, against));
  const examples = await db
    .select({
      billId: bill.id,
      invoiceNumber: bill.invoiceNumber,
      supplier: sql<string | null>`coalesce(${col(supplier.name)}, ${col(bill.supplierName)})`,
      description: billLine.description,
      has,
      with: other,
    })
    .from(billLine)
    .innerJoin(bill, eq(bill.id, billLine.billId))
    .leftJoin(supplier, eq(supplier.id, bill.supplierId))
    .where(and(posted, against))
    .orderBy(desc(bill.issueDate), desc(bill.id))
    .limit(shown);
  return { stopped: inHand!.rows, bills: inHand!.bills, posted: all!.rows, against: bad!.rows, examples };
}
