import { Link } from 'react-router';
import type { Order } from '@ledgerline/contract';
import { dec } from '@ledgerline/core/money';
import { amountOf } from '../matching/said';
import { money, showDay } from '../ui/format';
import { StageWord } from '../ui/stage';

/** How much of a quantity is done: all of it in green, more than it in red. */
export function Done({ of, is }: { of: string; is: string }) {
  const n = dec(is);
  if (n.isZero()) return null;
  return <span className={n.eq(of) ? 'text-success' : n.gt(of) ? 'text-error' : ''}>{n.toFixed()}</span>;
}

/** What came of an order, delivery by delivery. */
export function Receipts({ order }: { order: Order }) {
  if (order.receipts.length === 0) return null;
  return (
    <section aria-label="Receipts" className="px-6 py-3 text-[14px]">
      <h2 className="mb-1 font-semibold">What came</h2>
      <ul>
        {order.receipts.map((r) => (
          <li key={r.id} className="border-t hair py-1">
            <b className="font-medium">{r.number}</b>{' '}
            <span className="quiet">
              {showDay(r.receivedOn)}
              {r.person && `, booked by ${r.person}`}
              {r.note && `, ${r.note}`}
            </span>
            <br />
            {r.lines
              .map((l) => {
                const at = order.lines.findIndex((o) => o.id === l.orderLineId);
                return `${amountOf(l.quantity, order.lines[at]?.unit ?? null)} ${order.lines[at]?.description ?? ''}`;
              })
              .join(' · ')}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The bills of an order. */
export function Bills({ order }: { order: Order }) {
  if (order.bills.length === 0) return null;
  return (
    <section aria-label="Bills" className="px-6 py-3 text-[14px]">
      <h2 className="mb-1 font-semibold">Bills of it</h2>
      <ul>
        {order.bills.map((b) => (
          <li key={b.id} className="flex items-center gap-4 border-t hair py-1">
            <Link className="w-44 truncate text-accent hover:underline" to={`/bills/${b.id}`}>
              {b.invoiceNumber ?? 'No number'}
            </Link>
            <span className="w-28 quiet">{showDay(b.issueDate)}</span>
            <StageWord stage={b.stage} />
            <span className="ml-auto" title="At the order’s prices, without tax">
              {order.currency} {money(b.net, order.currency)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
