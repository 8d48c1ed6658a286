import { and, eq, inArray } from 'drizzle-orm';
import type { DimensionField } from '@ledgerline/core/bills';
import type { Executor } from '@ledgerline/server/db/client';
import { combination, dimension, dimensionValue, goingWith, ledgerAccount } from '@ledgerline/server/db/schema/index';
import { assets, centreProjects, dimensions, projectAccounts, projectFunds } from './master.ts';

/** A company's projects and funds, with what goes together; gives what lines of a cost centre have of them. */
export async function writeDimensions(
  db: Executor,
  companyId: string,
  centreIds: ReadonlyMap<string, string>,
  accountIds: ReadonlyMap<string, string>,
): Promise<(centre: string) => Partial<Record<DimensionField, string>>> {
  const ids = new Map<string, string>();
  for (const { field, name, values } of dimensions) {
    await db.insert(dimension).values({ companyId, field, name });
    const rows = values.map(([code, called]) => ({ companyId, field, code: code!, name: called! }));
    for (const v of await db.insert(dimensionValue).values(rows).returning()) ids.set(v.code, v.id);
  }
  await db.insert(dimension).values({ companyId, field: 'dimension3', name: 'Fixed asset', assets: true });
  await db.insert(dimensionValue).values(
    assets.map(([code, name, account, inUseFrom, serial, location]) => ({
      companyId,
      field: 'dimension3' as const,
      code,
      name,
      accountId: accountIds.get(account)!,
      inUseFrom,
      serial: serial || null,
      location,
    })),
  );
  await db.insert(goingWith).values([
    ...Object.entries(projectFunds).map(([project, fund]) => ({
      companyId,
      ofValueId: ids.get(project)!,
      field: 'dimension2' as const,
      valueId: ids.get(fund)!,
    })),
    ...Object.entries(centreProjects).map(([centre, project]) => ({
      companyId,
      costCentreId: centreIds.get(centre)!,
      field: 'dimension1' as const,
      valueId: ids.get(project)!,
    })),
  ]);
  await db
    .update(ledgerAccount)
    .set({ needsDimensions: ['dimension1'] })
    .where(and(eq(ledgerAccount.companyId, companyId), inArray(ledgerAccount.code, projectAccounts)));
  await db.insert(combination).values({
    companyId,
    whenField: 'dimension1',
    whenCodes: 'SCHOOLS',
    onlyField: 'costCentreId',
    onlyCodes: '300 to 399',
  });
  return (centre) => {
    const project = centreProjects[centre];
    return project ? { dimension1: ids.get(project)!, dimension2: ids.get(projectFunds[project]!)! } : {};
  };
}
