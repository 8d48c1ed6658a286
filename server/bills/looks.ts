import { eq, sql } from 'drizzle-orm';
import type { Facts } from '@ledgerline/core/checks';
import { laidOutAnew, paperKeys, placesOf, samePaper } from '@ledgerline/core/matching';
import type { Page } from '@ledgerline/core/page';
import type { Executor } from '../db/client.ts';
import { documentLook, documentPage } from '../db/schema/index.ts';
import type { BillRecord } from './store.ts';

/** So many pages that share the most figures are looked at word by word, and so many of a supplier's last ones tell its layouts. */
const looked = 5,
  last = 8;

/** Keeps how a document's first page looks. */
export async function keepLook(tx: Executor, documentId: string, pages: readonly Page[]): Promise<void> {
  const [first] = pages;
  await tx.delete(documentLook).where(eq(documentLook.documentId, documentId));
  if (!first || first.words.length === 0) return;
  await tx.insert(documentLook).values({ documentId, keys: paperKeys(first.words), places: placesOf(first) });
}

const wordsOf = async (db: Executor, documentId: string) => {
  const [page] = await db
    .select({ words: documentPage.words })
    .from(documentPage)
    .where(eq(documentPage.documentId, documentId))
    .orderBy(documentPage.number)
    .limit(1);
  return page?.words ?? [];
};

/** Another live bill that came from the same paper: scanned or sent again, here or in another of our companies. */
async function sameAs(db: Executor, one: BillRecord, documentId: string, keys: number[]): Promise<Facts['samePaper']> {
  if (keys.length === 0) return null;
  // Two papers where dates or totals differ: what was misread is told once it is put right.
  const { rows } = await db.execute<{
    id: string;
    document: string;
    company_id: string;
    company: string;
    number: string | null;
    day: string | null;
  }>(
    sql`select b.id, k.document_id as document, b.company_id, c.name as company, b.invoice_number as number, b.issue_date::text as day
        from document_look k join bill b on b.document_id = k.document_id join company c on c.id = b.company_id
        where k.keys && ${sql.param(keys)}::int[] and k.document_id <> ${documentId} and b.id <> ${one.id}
          and b.stage not in ('discarded', 'reversed')
          and (b.issue_date is null or ${one.issueDate}::date is null or b.issue_date = ${one.issueDate}::date)
          and (b.gross is null or ${one.gross}::numeric is null or b.gross = ${one.gross}::numeric)
        order by (select count(*) from unnest(k.keys) x where x = any(${sql.param(keys)}::int[])) desc, b.created_at
        limit ${looked}`,
  );
  if (rows.length === 0) return null;
  const own = await wordsOf(db, documentId);
  for (const { id, document, company_id, company, number, day } of rows)
    if (samePaper(own, await wordsOf(db, document)))
      return company_id === one.companyId ? { id, company: null, number, day } : { id: null, company, number, day };
  return null;
}

/** Of how many earlier pages of its supplier a bill's page looks unlike each. */
async function unlikeEarlier(db: Executor, one: BillRecord, places: number[]): Promise<number | null> {
  if (!one.supplierId || places.length === 0) return null;
  const { rows } = await db.execute<{ places: number[] }>(
    sql`select l.places from bill b join document_look l on l.document_id = b.document_id
        where b.company_id = ${one.companyId} and b.supplier_id = ${one.supplierId} and b.issue_date is not null and b.id <> ${one.id}
          and b.stage in ('coded', 'approved', 'posted', 'paid')
        order by b.issue_date desc limit ${last}`,
  );
  return laidOutAnew(
    places,
    rows.map((r) => r.places),
  )
    ? rows.length
    : null;
}

/** What a bill's page tells by how it looks. */
export async function lookFacts(db: Executor, one: BillRecord): Promise<Pick<Facts, 'samePaper' | 'layoutNew'>> {
  const [look] = one.documentId ? await db.select().from(documentLook).where(eq(documentLook.documentId, one.documentId)) : [];
  if (!look) return { samePaper: null, layoutNew: null };
  return {
    samePaper: await sameAs(db, one, look.documentId, look.keys),
    layoutNew: await unlikeEarlier(db, one, look.places),
  };
}
