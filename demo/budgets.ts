import type { Executor } from '@ledgerline/server/db/client';
import { budget } from '@ledgerline/server/db/schema/index';
import { budgets } from './master.ts';

/** What may be spent this year and the last, the same each month. */
export async function writeBudgets(
  db: Executor,
  companyId: string,
  year: number,
  accountIds: ReadonlyMap<string, string>,
  centreIds: ReadonlyMap<string, string>,
): Promise<void> {
  await db.insert(budget).values(
    [year - 1, year].flatMap((of) =>
      budgets.flatMap(([account, centre, monthly]) =>
        Array.from({ length: 12 }, (_, i) => ({
          companyId,
          accountId: accountIds.get(account)!,
          costCentreId: centre === null ? null : centreIds.get(centre)!,
          year: of,
          month: i + 1,
          amount: monthly,
        })),
      ),
    ),
  );
}
