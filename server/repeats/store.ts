import { asc, eq, sql } from 'drizzle-orm';
import type { RepeatRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { repeat, supplier } from '../db/schema/index.ts';

/** The bills of a company that repeat: what comes next first, what has ended last. */
export async function listRepeats(db: Executor, companyId: string): Promise<RepeatRow[]> {
  const open = (code: string) => sql<number>`(select count(*)::int from bill b join bill_exception x on x.bill_id = b.id
    where b.repeat_id = ${col(repeat.id)} and x.state = 'open' and x.code = ${code})`;
  const rows = await db
    .select({ repeat, supplier: supplier.name, waiting: open('document-awaited'), missed: open('document-missed') })
    .from(repeat)
    .innerJoin(supplier, eq(supplier.id, repeat.supplierId))
    .where(eq(repeat.companyId, companyId))
    .orderBy(sql`${repeat.nextOn} asc nulls last`, asc(repeat.name))
    .limit(500);
  return rows.map(({ repeat: r, ...of }) => ({
    id: r.id,
    name: r.name,
    every: r.every as RepeatRow['every'],
    weeks: r.weeks,
    begins: r.begins,
    until: r.until,
    fixed: r.fixed,
    documentWithin: r.documentWithin,
    currency: r.template.head.currency,
    gross: r.fixed ? r.template.head.gross : null,
    nextOn: r.nextOn,
    rowVersion: r.rowVersion,
    ...of,
  }));
}
