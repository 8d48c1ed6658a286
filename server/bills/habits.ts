import { eq, sql } from 'drizzle-orm';
import { isGoods } from '@ledgerline/core/bills';
import type { Facts, SupplierKnown } from '@ledgerline/core/checks';
import type { Executor } from '../db/client.ts';
import { arrival, document, supplierContact, type supplier } from '../db/schema/index.ts';
import type { BillRecord, linesOf } from './store.ts';

type SupplierRecord = typeof supplier.$inferSelect;
/** So many of a supplier's last bills tell its habit, and this many at least. */
const last = 24,
  least = 6;
const domainOf = (address: string | null): string | null => /@([^\s@>]+)>?\s*$/.exec(address ?? '')?.[1]?.toLowerCase() ?? null;

/** What is usual with a bill's supplier. */
export async function supplierKnown(
  db: Executor,
  one: BillRecord,
  own: SupplierRecord,
  lines: Awaited<ReturnType<typeof linesOf>>,
): Promise<SupplierKnown> {
  const codes = lines.flatMap((l) => (isGoods(l.kind) && l.code && l.unitPrice !== null ? [l.code] : []));
  // By the index of a supplier's bills by date: its last ones alone are looked at.
  const recent = sql`select b.id, b.gross, b.issue_date, b.invoice_number from bill b
    where b.company_id = ${one.companyId} and b.supplier_id = ${own.id} and b.issue_date is not null and b.id <> ${one.id}
      and b.stage in ('coded', 'approved', 'posted', 'paid') and b.kind = 'invoice' and b.currency = ${one.currency}
    order by b.issue_date desc limit ${last}`;
  const { rows } = await db.execute<{
    bills: number;
    least: string | null;
    most: string | null;
    numbers: string[] | null;
    totals: string[] | null;
  }>(
    sql`select count(*)::int as bills, min(r.gross)::text as least, max(r.gross)::text as most,
          array_agg(r.invoice_number order by r.issue_date desc, r.invoice_number desc) filter (where r.invoice_number is not null) as numbers,
          array_agg(r.gross::text order by r.issue_date, r.id) filter (where r.gross is not null) as totals from (${recent}) r`,
  );
  const habit = rows[0]!;
  const prices = codes.length
    ? (
        await db.execute<{ code: string; price: string; day: string }>(
          sql`select distinct on (l.code) l.code, (l.unit_price / l.price_quantity)::text as price, r.issue_date::text as day
              from (${recent}) r join bill_line l on l.bill_id = r.id
              where l.code = any(${sql.param(codes)}) and l.unit_price is not null and l.price_quantity > 0
              order by l.code, r.issue_date desc`,
        )
      ).rows
    : [];
  const byCode = new Map(prices.map((p) => [p.code, { price: p.price, on: p.day }]));
  return {
    name: own.name,
    currency: own.currency,
    numbers: habit.numbers ?? [],
    taxIds: [...(own.taxId ? [own.taxId] : []), ...own.otherTaxIds],
    habit:
      habit.bills >= least && habit.least && habit.most
        ? { bills: habit.bills, least: habit.least, most: habit.most, totals: habit.totals ?? [] }
        : null,
    lastPrices: new Map(lines.flatMap((l) => (l.code && byCode.has(l.code) ? [[l.id, byCode.get(l.code)!] as const] : []))),
  };
}

/** Where a bill came from by mail, and whether that is known of its supplier: by its addresses, or by what came before. */
export async function senderOf(db: Executor, one: BillRecord, own: SupplierRecord): Promise<Facts['sender']> {
  if (!one.documentId) return null;
  const [came] = await db
    .select({ id: arrival.id, sender: arrival.sender, channel: arrival.channel, at: arrival.receivedAt })
    .from(document)
    .innerJoin(arrival, eq(arrival.id, document.arrivalId))
    .where(eq(document.id, one.documentId));
  const domain = came?.channel === 'email' ? domainOf(came.sender) : null;
  if (!came || !domain) return null;
  const contacts = await db.select({ email: supplierContact.email }).from(supplierContact).where(eq(supplierContact.supplierId, own.id));
  const addresses = [own.email, ...contacts.map((c) => c.email)].map(domainOf).filter((d) => d !== null);
  // Of a supplier without any address nothing can be said.
  if (addresses.length === 0 || addresses.includes(domain)) return { domain, known: true };
  const { rows } = await db.execute(
    sql`select 1 from bill b join document d on d.id = b.document_id join arrival a on a.id = d.arrival_id
        where b.company_id = ${one.companyId} and b.supplier_id = ${own.id} and b.id <> ${one.id} and b.stage in ('posted', 'paid')
          and a.channel = 'email' and lower(a.sender) like ${`%@${domain.replace(/[%_\\]/g, '\\$&')}%`} limit 1`,
  );
  return { domain, known: rows.length > 0 };
}
