import { and, asc, eq, or, sql } from 'drizzle-orm';
import type { ItemRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { col, like } from '../db/column.ts';
import { item, ledgerAccount, taxCode } from '../db/schema/index.ts';

/** One page of the company's items by code, closed ones too. */
export async function listItems(
  db: Executor,
  companyId: string,
  q: string,
  after: [code: string, id: string] | null,
  limit: number,
): Promise<ItemRow[]> {
  const rows = await db
    .select({
      i: item,
      account: sql<string | null>`${col(ledgerAccount.code)} || ' ' || ${col(ledgerAccount.name)}`,
      taxCode: taxCode.code,
      bought: sql<
        string | null
      >`case when ${col(item.stocked)} then coalesce((select sum(r.quantity) from item_receipt r where r.item_id = ${col(item.id)}), 0)::text end`,
    })
    .from(item)
    .leftJoin(ledgerAccount, eq(ledgerAccount.id, item.accountId))
    .leftJoin(taxCode, eq(taxCode.id, item.taxCodeId))
    .where(
      and(
        eq(item.companyId, companyId),
        q
          ? or(sql`${item.code} ilike ${like(q).slice(1)}`, sql`${item.name} || ' ' || coalesce(${item.alsoCalled}, '') ilike ${like(q)}`)
          : undefined,
        after ? sql`(${item.code}, ${item.id}) > (${after[0]}, ${after[1]}::uuid)` : undefined,
      ),
    )
    .orderBy(asc(item.code), asc(item.id))
    .limit(limit);
  return rows.map(({ i: { companyId: _, ...row }, ...named }) => ({ ...row, ...named }));
}
