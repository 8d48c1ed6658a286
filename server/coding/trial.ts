import { and, desc, eq, gte, inArray, ne, sql, type SQL } from 'drizzle-orm';
import { codingFields, codingOf, type Coding } from '@ledgerline/core/bills';
import { rules } from '@ledgerline/core/coding';
import { addDays } from '@ledgerline/core/dates';
import type { CodingTrial, CodingTrialQuery } from '@ledgerline/contract';
import { editable } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { bill, billLine, supplier } from '../db/schema/index.ts';
import { codingColumns } from './posted-lines.ts';
import { codesOf, givenOf, namedIn } from './named.ts';

/** A rule is tried on so many lines at most, the latest; and so many are shown. */
const most = 20_000,
  shown = 6;

const linesOf = (db: Executor, where: (SQL | undefined)[], order: SQL[], limit: number) =>
  db
    .select({
      billId: bill.id,
      invoiceNumber: bill.invoiceNumber,
      supplierId: bill.supplierId,
      supplier: sql<string | null>`coalesce(${col(supplier.name)}, ${col(bill.supplierName)})`,
      day: bill.issueDate,
      code: billLine.code,
      description: billLine.description,
      ...codingColumns,
    })
    .from(billLine)
    .innerJoin(bill, eq(bill.id, billLine.billId))
    .leftJoin(supplier, eq(supplier.id, bill.supplierId))
    .where(and(ne(billLine.kind, 'text'), ...where))
    .orderBy(...order)
    .limit(limit);

/** What a rule would have said of the lines posted in the year before a day, and how many rows in hand it would code. */
export async function tryRule(db: Executor, companyId: string, asked: CodingTrialQuery, today: string): Promise<CodingTrial> {
  const coding = givenOf(asked as Partial<Coding>),
    rule = { supplierId: asked.supplierId ?? null, words: asked.words?.trim() || null };
  const own = [eq(bill.companyId, companyId), rule.supplierId ? eq(bill.supplierId, rule.supplierId) : undefined];
  const latest = [desc(bill.issueDate), desc(bill.id), desc(billLine.position)];
  const posted = await linesOf(
    db,
    [...own, inArray(bill.stage, ['posted', 'paid']), gte(bill.issueDate, addDays(today, -365))],
    latest,
    most,
  );
  const about = posted.filter((line) => rules(rule, line));
  const fields = codingFields.filter((field) => coding[field]);
  const asSaid = (line: Coding) => fields.every((field) => line[field] === coding[field]);
  const [same, otherwise] = [about.filter(asSaid), about.filter((line) => !asSaid(line))];
  const inHand = (await linesOf(db, [...own, inArray(bill.stage, [...editable, 'set-aside'])], latest, most)).filter(
    (line) => rules(rule, line) && fields.some((field) => line[field] === null),
  );
  // What is otherwise is what somebody wants to see.
  const examples = [...otherwise.slice(0, shown), ...same].slice(0, shown);
  const named = await namedIn(db, companyId, examples);
  return {
    lines: about.length,
    same: same.length,
    otherwise: otherwise.length,
    inHand: inHand.length,
    examples: examples.map((line) => ({
      billId: line.billId,
      invoiceNumber: line.invoiceNumber,
      supplier: line.supplier,
      description: line.description,
      day: line.day,
      same: asSaid(line),
      was: codesOf(codingOf(Object.fromEntries(fields.map((field) => [field, line[field]]))), named),
    })),
  };
}
