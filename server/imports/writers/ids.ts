import { and, eq, inArray, sql } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Executor } from '../../db/client.ts';
import { costCentre, ledgerAccount, membership, person, purchaseOrder, supplier, taxCode } from '../../db/schema/index.ts';

type Coded = PgTable & { id: PgColumn; code: PgColumn; companyId: PgColumn };

async function byCode(tx: Executor, of: Coded, companyId: string): Promise<Map<string, string>> {
  const rows = (await tx.select({ id: of.id, code: of.code }).from(of).where(eq(of.companyId, companyId))) as {
    id: string;
    code: string;
  }[];
  return new Map(rows.map((r) => [r.code.toLowerCase(), r.id]));
}
export const accountIds = (tx: Executor, companyId: string) => byCode(tx, ledgerAccount, companyId);
export const centreIds = (tx: Executor, companyId: string) => byCode(tx, costCentre, companyId);
export const supplierIds = (tx: Executor, companyId: string) => byCode(tx, supplier, companyId);
export const taxCodeIds = (tx: Executor, companyId: string) => byCode(tx, taxCode, companyId);

/** People who work in the company, by mail address. */
export async function personIds(tx: Executor, companyId: string): Promise<Map<string, string>> {
  const rows = await tx
    .select({ id: person.id, email: person.email })
    .from(membership)
    .innerJoin(person, eq(person.id, membership.personId))
    .where(eq(membership.companyId, companyId));
  return new Map(rows.map((r) => [r.email.toLowerCase(), r.id]));
}

/** The ids of orders with these numbers, however their letters are written. */
export async function ordersNamed(tx: Executor, companyId: string, numbers: readonly unknown[]): Promise<string[]> {
  const wanted = [...new Set(numbers.flatMap((n) => (typeof n === 'string' ? [n.toLowerCase()] : [])))];
  if (wanted.length === 0) return [];
  const rows = await tx
    .select({ id: purchaseOrder.id })
    .from(purchaseOrder)
    .where(and(eq(purchaseOrder.companyId, companyId), inArray(sql`lower(${purchaseOrder.number})`, wanted)));
  return rows.map((r) => r.id);
}
