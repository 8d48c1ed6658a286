import { useState } from 'react';
import { Link } from 'react-router';
import type { BillOrders } from '@ledgerline/contract';
import { dec } from '@ledgerline/core/money';
import type { Desk } from '../desk/use-desk';
import { Dialog, DialogEnd } from '../ui/dialog';
import { money, price } from '../ui/format';
import { AskBuyer } from './ask-buyer';
import { amountOf, differencesOf } from './said';
import { goodsOf, useBillOrders } from './strip';
import { useMatchStep } from './use-step';

/** A bill beside its orders, line by line, and what settles what is not as ordered. */
export function OrderDialog({ desk, close }: { desk: Desk; close(): void }) {
  const orders = useBillOrders(desk);
  const step = useMatchStep(desk.bill.id);
  const [asking, ask] = useState(false);
  const { locked } = desk;
  if (!orders) return null;
  const off = orders.lines.filter((l) => differencesOf(l, orders.currency).length > 0),
    missing = orders.lines.some((l) => l.overReceived !== null);
  const done = async (what: Parameters<typeof step>[0], body?: object) => {
    if (await step(what, body)) close();
  };
  const small = 'btn btn-sm btn-outline';
  return (
    <Dialog title="Beside the order" wide="whole" close={close}>
      {orders.lines.length > 0 && <Lines orders={orders} desk={desk} />}
      {!orders.withoutOrder && <Rows orders={orders} desk={desk} />}
      {orders.withoutOrder && <p className="quiet">This bill is of no order: its rows are coded and approved as an expense.</p>}
      {asking && <AskBuyer desk={desk} lines={off} currency={orders.currency} close={() => ask(false)} />}
      <DialogEnd close={close}>
        {!locked && missing && (
          <button className={small} title="Aside, and back by itself with the receipt" onClick={() => void done('await-receipt')}>
            Wait for the goods
          </button>
        )}
        {off.length > 0 && !asking && (
          <button className={small} onClick={() => ask(true)}>
            Ask about it
          </button>
        )}
        {!locked && orders.debit !== null && off.length > 0 && (
          <button className={small} title="The bill is paid short by it" onClick={() => void done('debit-note')}>
            Debit note for {money(orders.debit, orders.currency)}
          </button>
        )}
        {!locked && (
          <button className={small} onClick={() => void step('without-order', { without: !orders.withoutOrder })}>
            {orders.withoutOrder ? 'It has an order' : 'It is of no order'}
          </button>
        )}
      </DialogEnd>
    </Dialog>
  );
}

const rowNames = (desk: Desk, ids: readonly string[]) => ids.map((id) => desk.bill.lines.findIndex((l) => l.id === id) + 1).join(', ');

function Lines({ orders, desk }: { orders: BillOrders; desk: Desk }) {
  const { currency } = orders;
  return (
    <div className="max-h-[46vh] overflow-auto">
      <table aria-label="Lines of the order" className="w-full text-[14px]">
        <thead className="sticky top-0 bg-base-200">
          <tr>
            <th className="plain text-left">Order, line</th>
            <th className="plain text-left">Row</th>
            <th className="plain num">Ordered</th>
            <th className="plain num">Received</th>
            <th className="plain num">Billed before</th>
            <th className="plain num">On this bill</th>
            <th className="plain num">Price ordered</th>
            <th className="plain num">Here</th>
            <th className="plain text-left">Difference</th>
          </tr>
        </thead>
        <tbody>
          {orders.lines.map((l) => {
            const said = differencesOf(l, currency),
              lower = l.price !== null && dec(l.price).toDecimalPlaces(6).lt(l.unitPrice) && l.overPrice.length === 0;
            return (
              <tr key={l.id} className="border-b hair align-top">
                <td className="plain max-w-56">
                  <Link className="hover:underline" to={`/orders/${l.orderId}`}>
                    <span className="code">{l.order}</span>, {l.place}
                  </Link>
                  <div className="truncate text-[12px] quiet" title={l.description}>
                    {l.description}
                  </div>
                </td>
                <td className="plain">{rowNames(desk, l.rows)}</td>
                <td className="plain num">{amountOf(l.ordered, l.unit)}</td>
                <td className="plain num">{l.received === null ? <span className="quiet">not asked</span> : amountOf(l.received, null)}</td>
                <td className="plain num">{dec(l.billed).isZero() ? '' : amountOf(l.billed, null)}</td>
                <td className="plain num font-semibold">{amountOf(l.onBill, null)}</td>
                <td className="plain num">{price(l.unitPrice, currency)}</td>
                <td className="plain num">{l.price === null ? '' : price(dec(l.price).toDecimalPlaces(4).toFixed(), currency)}</td>
                <td className={`plain ${said.length > 0 ? 'text-error' : 'text-success'}`}>
                  {said.length > 0 ? said.map((s) => <div key={s}>{s}</div>) : lower ? 'cheaper than ordered' : 'as ordered'}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** Rows that are in no line, and rows that somebody placed: which line they are of. */
function Rows({ orders, desk }: { orders: BillOrders; desk: Desk }) {
  const step = useMatchStep(desk.bill.id);
  const rows = goodsOf(desk).flatMap((id) => {
    const own = orders.rows.filter((r) => r.row === id);
    return own.length === 0 || own.some((r) => r.byHand) || orders.lines.length === 0 ? [{ id, own: own[0] ?? null }] : [];
  });
  if (rows.length === 0 || orders.choices.length === 0) return null;
  return (
    <section aria-label="Rows" className="mt-3">
      <h3 className="mb-1 font-semibold">Which line a row is of</h3>
      <ul className="max-h-[26vh] overflow-auto">
        {rows.map(({ id, own }) => {
          const line = desk.bill.lines.find((l) => l.id === id)!;
          return (
            <li key={id} className="flex items-center gap-3 border-t hair py-1 text-[14px]">
              <span className="min-w-0 grow truncate">
                {rowNames(desk, [id])}: {line.description || 'no description'}
              </span>
              <select
                aria-label={`Line of row ${rowNames(desk, [id])}`}
                className="select select-sm w-80"
                disabled={desk.locked}
                value={own?.byHand ? (own.orderLineId ?? 'none') : 'found'}
                onChange={(e) => {
                  const { value } = e.target;
                  void step('match', { row: id, ...(value === 'found' ? {} : { orderLineId: value === 'none' ? null : value }) });
                }}
              >
                <option value="found">{own ? 'As it was found' : 'Nothing found'}</option>
                <option value="none">Of no order</option>
                {orders.choices.map((c) => (
                  <option key={c.id} value={c.id}>
                    {c.order}, {c.place}: {c.description} ({amountOf(dec(c.ordered).minus(c.billed).toFixed(), c.unit)} open)
                  </option>
                ))}
              </select>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
