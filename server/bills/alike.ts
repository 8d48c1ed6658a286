import { and, eq, isNotNull, ne, sql } from 'drizzle-orm';
import { numberKey, numbersAlike } from '@ledgerline/core/matching';
import type { Facts } from '@ledgerline/core/checks';
import type { Executor } from '../db/client.ts';
import { bill, company, supplier } from '../db/schema/index.ts';
import type { BillRecord } from './store.ts';

/** So many that share what is looked for are looked at. */
const most = 20;
const live = sql`${bill.stage} not in ('discarded', 'reversed')`;

/**
 * Another live bill that this one may be: of the same supplier with the same total and a number alike (a zero more, a letter for a digit,
 * another prefix); or with the same total and day under another supplier, or, with its number, in another of our companies.
 */
export async function alikeTo(db: Executor, one: BillRecord): Promise<Pick<Facts, 'alike' | 'elsewhere'>> {
  if (!one.gross || !one.invoiceNumber) return { alike: null, elsewhere: null };
  return { alike: await ofSupplier(db, one), elsewhere: one.issueDate ? await underAnother(db, one) : null };
}

async function ofSupplier(db: Executor, one: BillRecord): Promise<Facts['alike']> {
  if (!one.supplierId) return null;
  const rows = await db
    .select({ id: bill.id, number: bill.invoiceNumber, issueDate: bill.issueDate, stage: bill.stage })
    .from(bill)
    .where(
      and(
        eq(bill.companyId, one.companyId),
        eq(bill.supplierId, one.supplierId),
        eq(bill.numberKey, numberKey(one.invoiceNumber!)),
        eq(bill.gross, one.gross!),
        eq(bill.kind, one.kind),
        ne(bill.id, one.id),
        live,
      ),
    )
    .orderBy(bill.createdAt)
    .limit(most);
  for (const { number, ...of } of rows) {
    const how = number && numbersAlike(one.invoiceNumber!, number);
    if (how) return { ...of, number, how };
  }
  return null;
}

async function underAnother(db: Executor, one: BillRecord): Promise<Facts['elsewhere']> {
  const rows = await db
    .select({ id: bill.id, companyId: bill.companyId, number: bill.invoiceNumber, company: company.name, supplier: supplier.name })
    .from(bill)
    .innerJoin(company, eq(company.id, bill.companyId))
    .innerJoin(supplier, eq(supplier.id, bill.supplierId))
    .where(
      and(
        eq(bill.gross, one.gross!),
        eq(bill.issueDate, one.issueDate!),
        eq(bill.currency, one.currency),
        eq(bill.kind, one.kind),
        ne(bill.id, one.id),
        isNotNull(bill.invoiceNumber),
        sql`${bill.supplierId} is distinct from ${one.supplierId}::uuid`,
        live,
      ),
    )
    .orderBy(bill.createdAt)
    .limit(most);
  for (const { companyId, number, ...of } of rows) {
    const own = companyId === one.companyId,
      same = number === one.invoiceNumber || numbersAlike(one.invoiceNumber!, number!) !== null;
    // What another company has is only named where the number tells that it is the same.
    if (own) return { id: of.id, company: null, supplier: of.supplier, number: number! };
    if (same) return { id: null, company: of.company, supplier: of.supplier, number: number! };
  }
  return null;
}
