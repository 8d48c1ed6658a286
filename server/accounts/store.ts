import { and, asc, eq, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { AccountRow, CostCentreRow, PutRate, TaxCodeRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { goingOf } from '../dimensions/going.ts';
import { costCentre, exchangeRate, ledgerAccount, person, taxCode } from '../db/schema/index.ts';

type After = [code: string, id: string] | null;

/** One page of the chart of accounts by code, closed ones too. */
export async function listAccounts(db: Executor, companyId: string, q: string, after: After, limit: number): Promise<AccountRow[]> {
  const parent = alias(ledgerAccount, 'parent');
  const rows = await db
    .select({ a: ledgerAccount, parent: sql<string | null>`parent.code || ' ' || parent.name`, taxCode: taxCode.code })
    .from(ledgerAccount)
    .leftJoin(parent, eq(parent.id, ledgerAccount.parentId))
    .leftJoin(taxCode, eq(taxCode.id, ledgerAccount.taxCodeId))
    .where(
      and(
        eq(ledgerAccount.companyId, companyId),
        q
          ? or(
              sql`${ledgerAccount.code} ilike ${like(q).slice(1)}`,
              sql`${ledgerAccount.name} || ' ' || ${ledgerAccount.group} ilike ${like(q)}`,
            )
          : undefined,
        after ? sql`(${ledgerAccount.code}, ${ledgerAccount.id}) > (${after[0]}, ${after[1]}::uuid)` : undefined,
      ),
    )
    .orderBy(asc(ledgerAccount.code), asc(ledgerAccount.id))
    .limit(limit);
  const going = await goingOf(
    db,
    companyId,
    rows.map((r) => r.a.id),
  );
  return rows.map(({ a: { companyId: _, kind, ...row }, ...named }) => ({
    ...row,
    ...named,
    kind: kind as AccountRow['kind'],
    going: going.get(row.id) ?? [],
  }));
}

/** One page of the cost centres by code, closed ones too. */
export async function listCostCentres(db: Executor, companyId: string, q: string, after: After, limit: number): Promise<CostCentreRow[]> {
  const parent = alias(costCentre, 'parent');
  const rows = await db
    .select({ c: costCentre, parent: sql<string | null>`parent.code || ' ' || parent.name`, owner: person.name })
    .from(costCentre)
    .leftJoin(parent, eq(parent.id, costCentre.parentId))
    .leftJoin(person, eq(person.id, costCentre.ownerId))
    .where(
      and(
        eq(costCentre.companyId, companyId),
        q ? or(sql`${costCentre.code} ilike ${like(q).slice(1)}`, sql`${costCentre.name} ilike ${like(q)}`) : undefined,
        after ? sql`(${costCentre.code}, ${costCentre.id}) > (${after[0]}, ${after[1]}::uuid)` : undefined,
      ),
    )
    .orderBy(asc(costCentre.code), asc(costCentre.id))
    .limit(limit);
  const going = await goingOf(
    db,
    companyId,
    rows.map((r) => r.c.id),
  );
  return rows.map(({ c: { companyId: _, ...row }, ...named }) => ({ ...row, ...named, going: going.get(row.id) ?? [] }));
}

/** The company's tax codes by code, with the names of their accounts. */
export async function listTaxCodes(db: Executor, companyId: string): Promise<TaxCodeRow[]> {
  const output = alias(ledgerAccount, 'output_account'),
    held = alias(ledgerAccount, 'held_account');
  const rows = await db
    .select({
      t: taxCode,
      account: sql<string>`${col(ledgerAccount.code)} || ' ' || ${col(ledgerAccount.name)}`,
      output: sql<string | null>`output_account.code || ' ' || output_account.name`,
      held: sql<string | null>`held_account.code || ' ' || held_account.name`,
    })
    .from(taxCode)
    .innerJoin(ledgerAccount, eq(ledgerAccount.id, taxCode.accountId))
    .leftJoin(output, eq(output.id, taxCode.outputAccountId))
    .leftJoin(held, eq(held.id, taxCode.withheldAccountId))
    .where(eq(taxCode.companyId, companyId))
    .orderBy(asc(taxCode.code));
  return rows.map(({ t: { companyId: _, ...row }, account, output: owed, held: withheldAccount }) => ({
    ...row,
    account,
    outputAccount: owed,
    withheldAccount,
  }));
}

/** One page of exchange rates, the newest day first. */
export async function listRates(
  db: Executor,
  companyId: string,
  after: { day: string; currency: string } | null,
  limit: number,
): Promise<PutRate[]> {
  return db
    .select({ currency: exchangeRate.currency, day: exchangeRate.day, rate: exchangeRate.rate })
    .from(exchangeRate)
    .where(
      and(
        eq(exchangeRate.companyId, companyId),
        after
          ? sql`(${exchangeRate.day} < ${after.day}::date or (${exchangeRate.day} = ${after.day}::date and ${exchangeRate.currency} > ${after.currency}))`
          : undefined,
      ),
    )
    .orderBy(sql`${exchangeRate.day} desc`, asc(exchangeRate.currency))
    .limit(limit);
}
