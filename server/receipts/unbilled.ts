import { sql } from 'drizzle-orm';
import { dec, fixed, sum } from '@ledgerline/core/money';
import type { NotBilled } from '@ledgerline/contract';
import { rateOn } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import type { Sheet } from '../imports/sheet.ts';

interface Row extends Record<string, unknown> {
  id: string;
  orderId: string;
  order: string;
  supplierId: string;
  supplier: string;
  currency: string;
  place: number;
  description: string;
  unit: string | null;
  received: string;
  billed: string;
  price: string;
}

/**
 * What had come by the end of a day and was in no posted bill of that day or before, line by line, at the prices that were ordered: what
 * is to be accrued then. Lines that are billed without a receipt are not in it. In the company's currency at the day's rates; orders
 * without a rate have none.
 */
export async function receivedNotBilled(db: Executor, own: { id: string; baseCurrency: string }, on: string): Promise<NotBilled> {
  const { rows } = await db.execute<Row>(sql`
    with came as (
      select r.order_line_id as id, sum(r.quantity) as quantity from receipt_line r join goods_receipt g on g.id = r.receipt_id
      where g.company_id = ${own.id} and g.received_on <= ${on}::date group by 1),
    billed as (
      select m.order_line_id as id, sum(case when b.kind = 'credit-note' then -m.quantity else m.quantity end) as quantity
      from line_match m join bill b on b.id = m.bill_id
      where m.company_id = ${own.id} and m.order_line_id in (select id from came)
        and exists (select 1 from journal_entry e where e.source_type = 'bill' and e.source_id = b.id and e.reverses is null and e.entry_date <= ${on}::date
          and not exists (select 1 from journal_entry v where v.reverses = e.id and v.entry_date <= ${on}::date))
      group by 1)
    select l.id, o.id as "orderId", o.number as "order", s.id as "supplierId", s.name as supplier, o.currency, l.position + 1 as place, l.description, l.unit,
      c.quantity::text as received, greatest(coalesce(b.quantity, 0), 0)::text as billed, l.unit_price::text as price
    from came c join order_line l on l.id = c.id join purchase_order o on o.id = l.order_id join supplier s on s.id = o.supplier_id
      left join billed b on b.id = c.id
    where l.needs_receipt and c.quantity > greatest(coalesce(b.quantity, 0), 0)
    order by s.name, o.number, l.position`);
  const rates = new Map<string, string | null>();
  for (const currency of new Set(rows.map((r) => r.currency)))
    rates.set(currency, await rateOn(db, own.id, currency, own.baseCurrency, on));
  const lines = rows.map(({ price, ...row }) => {
    const net = dec(row.received).minus(row.billed).times(price),
      rate = rates.get(row.currency) ?? null;
    return { ...row, net: fixed(net, row.currency), base: rate === null ? null : fixed(net.times(rate), own.baseCurrency) };
  });
  const known = lines.flatMap((l) => (l.base === null ? [] : [dec(l.base)]));
  return { on, currency: own.baseCurrency, total: fixed(sum(known), own.baseCurrency), withoutRate: lines.length - known.length, lines };
}

/** The same as heads and rows of text. */
export const notBilledTable = ({ currency, lines }: NotBilled): Sheet => ({
  heads: ['Supplier', 'Order', 'Line', 'Description', 'Unit', 'Received', 'Billed', 'Not billed', 'Currency', `In ${currency}`],
  rows: lines.map((l) => [
    l.supplier,
    l.order,
    String(l.place),
    l.description,
    l.unit ?? '',
    l.received,
    l.billed,
    l.net,
    l.currency,
    l.base ?? '',
  ]),
});
