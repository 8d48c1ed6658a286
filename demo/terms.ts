import type { Executor } from '@ledgerline/server/db/client';
import { paymentTerms } from '@ledgerline/server/db/schema/index';
import { startingTerms } from '@ledgerline/server/setup/starting';

/** The terms that a company begins with, and two of its own. */
export async function writeTerms(db: Executor, companyId: string): Promise<void> {
  const own = [
    { code: 'BUILD', name: 'Building work', terms: '30% on receipt, 70% 30 days' },
    { code: 'QUICK', name: 'Paid quickly', terms: '2/10 n30', alsoCalled: 'prompt payment' },
  ];
  await db.insert(paymentTerms).values([...startingTerms, ...own].map((one) => ({ ...one, companyId })));
}
