import { and, eq, ne, sql } from 'drizzle-orm';
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
 * another prefix); or with the same total, day and number (or one alike) under another supplier, or in another of our companies.
 */
export async function alikeTo(db: Executor, one: BillRecord): Promise<Pick<Facts, 'alike' | 'elsewhere'>> {
  if (!one.gross || !one.invoiceNumber) return { alike: null, elsewhere: null };
  return { alike: await ofSupplier(db, one), elsewhere: one.issueDate ? await underAnother(db, one) : null };
}

async function ofSupplier(db: Executor, one: BillRecord): Promise<Facts['alike']> {
  if (!one.supplierId) return null;
  const rows = await db
    .select({ id: bill.id, number: bill.invoiceNumber, issueDate: bill.issueDate })
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
        eq(bill.numberKey, numberKey(one.invoiceNumber!)),
        sql`${bill.supplierId} is distinct from ${one.supplierId}::uuid`,
        live,
      ),
    )
    .orderBy(bill.createdAt)
    .limit(most);
  for (const { companyId, number, ...of } of rows) {
    // Many bills of a day come to the same: only the number tells that it is one.
    if (!number || !(plain(number) === plain(one.invoiceNumber!) || numbersAlike(one.invoiceNumber!, number))) continue;
    return companyId === one.companyId
      ? { id: of.id, company: null, supplier: of.supplier, number }
      : { id: null, company: of.company, supplier: of.supplier, number };
  }
  return null;
}
const plain = (number: string): string => number.toUpperCase().replace(/\s/g, '');
