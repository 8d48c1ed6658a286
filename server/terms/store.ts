import { asc, eq } from 'drizzle-orm';
import { termsMeant } from '@ledgerline/core/terms';
import type { TermsRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { paymentTerms } from '../db/schema/index.ts';

/** The company's own payment terms by code, closed ones too. */
export async function listedTerms(db: Executor, companyId: string): Promise<TermsRow[]> {
  const rows = await db.select().from(paymentTerms).where(eq(paymentTerms.companyId, companyId)).orderBy(asc(paymentTerms.code));
  return rows.map(({ companyId: _, ...row }) => row);
}

/** What terms on a page or with a supplier mean in this company; null where there are none. */
export async function meantTerms(db: Executor, companyId: string, text: string | null | undefined): Promise<string | null> {
  return text ? termsMeant(text, await listedTerms(db, companyId)) : null;
}
