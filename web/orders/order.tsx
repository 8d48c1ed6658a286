import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { dec } from '@ledgerline/core/money';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { money, price, showDay } from '../ui/format';
import { Head, Trouble, Waiting } from '../ui/states';
import { ordersApi } from './api';
import { OrderDialog } from './edit';
import { Bills, Done, Receipts } from './order-parts';
import { ReceiveDialog } from './receive';

/** An order with its lines, and what bills of them are coded with. */
export function OrderPage() {
  const { id = '' } = useParams();
  const { company, can } = usePlace();
  const { currentData: order, error } = ordersApi.useOrderQuery({ company: company.id, id });
  const [editing, edit] = useState(false);
  const [receiving, receive] = useState(false);
  if (error) return <Trouble sentence={sentenceOf(error)} />;
  if (!order) return <Waiting />;
  return (
    <div className="flex h-full flex-col">
      <Head
        title={`Order ${order.number}`}
        detail={
          <>
            <Link className="hover:underline" to={`/suppliers/${order.supplierId}`}>
              {order.supplier}
            </Link>{' '}
            · {showDay(order.orderDate)}
            {order.active ? '' : ' · closed: no bill is expected any more'}
            {order.note && ` · ${order.note}`}
          </>
        }
      >
        <span>
          Without tax:{' '}
          <b>
            {order.currency} {money(order.net, order.currency)}
          </b>
        </span>
        {can('orders:edit') && (
          <>
            <button className="btn btn-sm" onClick={() => edit(true)}>
              Change
            </button>
            <button className="btn btn-primary btn-sm" onClick={() => receive(true)}>
              Book what came
            </button>
          </>
        )}
      </Head>
      <div className="min-h-0 grow overflow-auto">
        <table aria-label="Lines" className="w-full text-[14px]">
          <thead className="sticky top-0 bg-base-200">
            <tr>
              <th className="plain num !pl-6">Line</th>
              <th className="plain text-left">Code</th>
              <th className="plain text-left">Description</th>
              <th className="plain num">Quantity</th>
              <th className="plain text-left">Unit</th>
              <th className="plain num">Received</th>
              <th className="plain num">Billed</th>
              <th className="plain num">Price</th>
              <th className="plain num">Without tax</th>
              <th className="plain !pr-6 text-left">Coded with</th>
            </tr>
          </thead>
          <tbody>
            {order.lines.map((l, i) => (
              <tr key={l.id} className="border-b hair">
                <td className="plain num !pl-6 quiet">{i + 1}</td>
                <td className="plain code">{l.code}</td>
                <td className="plain">{l.description}</td>
                <td className="plain num">{dec(l.quantity).toFixed()}</td>
                <td className="plain">{l.unit}</td>
                <td className="plain num">
                  {l.needsReceipt ? <Done of={l.quantity} is={l.received} /> : <span className="quiet">not asked</span>}
                </td>
                <td className="plain num">
                  <Done of={l.quantity} is={l.billed} />
                </td>
                <td className="plain num">{price(l.unitPrice, order.currency)}</td>
                <td className="plain num">{money(l.net, order.currency)}</td>
                <td className="plain !pr-6">
                  <span className="code" title={l.shown.map((s) => `${s.code} ${s.name}`).join(', ')}>
                    {l.shown.map((s) => s.code).join(' · ')}
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <Receipts order={order} />
        <Bills order={order} />
      </div>
      {receiving && <ReceiveDialog order={order} close={() => receive(false)} />}
      {editing && <OrderDialog order={order} close={() => edit(false)} done={() => edit(false)} />}
    </div>
  );
}
