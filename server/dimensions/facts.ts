import { eq, inArray } from 'drizzle-orm';
import { codingFields, type Coding, type CodingField } from '@ledgerline/core/bills';
import type { CodingFacts } from '@ledgerline/core/checks';
import { openOn } from '../accounts/open.ts';
import type { Executor } from '../db/client.ts';
import { costCentre, dimensionValue, ledgerAccount, taxCode } from '../db/schema/index.ts';
import { combinationsOf } from './combinations.ts';
import { dimensionsOf } from './store.ts';

/** What is to know of what lines are coded with, fetched once for bills of any day. */
export async function codingGround(db: Executor, companyId: string, lines: readonly Coding[]): Promise<(day: string) => CodingFacts> {
  const ids = (...of: CodingField[]) => [...new Set(lines.flatMap((l) => of.flatMap((field) => l[field] ?? [])))];
  const dimensions = await dimensionsOf(db, companyId),
    combinations = await combinationsOf(db, companyId);
  const [accountIds, centreIds] = [ids('accountId'), ids('costCentreId')],
    valueIds = ids(...codingFields.filter((f) => f.startsWith('dimension')));
  const accounts = accountIds.length ? await db.select().from(ledgerAccount).where(inArray(ledgerAccount.id, accountIds)) : [];
  const centres = centreIds.length ? await db.select().from(costCentre).where(inArray(costCentre.id, centreIds)) : [];
  const values = valueIds.length ? await db.select().from(dimensionValue).where(inArray(dimensionValue.id, valueIds)) : [];
  // Those that no line has, too: what a repair takes is open.
  const codes = await db.select().from(taxCode).where(eq(taxCode.companyId, companyId));
  const common = {
    dimensions,
    combinations,
    assetAccounts: new Set(accounts.filter((a) => a.kind === 'asset').map((a) => a.id)),
    gathering: new Set(accounts.filter((a) => !a.postable).map((a) => a.id)),
    needsCostCentre: new Set(accounts.filter((a) => a.needsCostCentre).map((a) => a.id)),
    needsDimensions: new Map(accounts.map((a) => [a.id, a.needsDimensions])),
    codes: new Map([...accounts, ...centres, ...values, ...codes].map((of) => [of.id, of.code])),
  };
  return (day) => ({
    ...common,
    closed: new Set([
      ...[...centres, ...codes, ...values].filter((of) => !openOn(of, day)).map((of) => of.id),
      ...accounts.filter((a) => !openOn(a, day) || !['expense', 'asset'].includes(a.kind)).map((a) => a.id),
    ]),
  });
}
