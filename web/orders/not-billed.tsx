import { useState } from 'react';
import { Link } from 'react-router';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { SaveMenu } from '../imports/save-menu';
import { AccrualStrip } from '../ledger/accrual';
import { amountOf } from '../matching/said';
import { money, todayIso } from '../ui/format';
import { Empty, Head, Trouble, Waiting } from '../ui/states';
import { DateField } from '../ui/typed';
import { ordersApi } from './api';

/** What had come by a day and was not billed then: what is to be accrued. */
export function NotBilledPage() {
  const { company } = usePlace();
  const [on, at] = useState(todayIso());
  const { currentData, error } = ordersApi.useNotBilledQuery({ company: company.id, on });
  return (
    <div className="flex h-full flex-col">
      <Head
        title="Received, not billed"
        detail="At the prices that were ordered, without tax; what posted bills had billed by then is taken off"
      >
        {currentData && (
          <span>
            In all:{' '}
            <b>
              {currentData.currency} {money(currentData.total, currentData.currency)}
            </b>
            {currentData.withoutRate > 0 && <span className="text-error"> · {currentData.withoutRate} without a rate</span>}
          </span>
        )}
        <label className="flex items-center gap-2 text-[14px]">
          On
          <span className="w-32">
            <DateField label="On" className="input input-sm w-full" value={on} onSave={(day) => day && at(day)} />
          </span>
        </label>
        <SaveMenu path="/received-not-billed/file" asked={{ on }} what="what was not billed" />
      </Head>
      <AccrualStrip on={on} at={at} />
      <div className="min-h-0 grow overflow-auto">
        {error ? (
          <Trouble sentence={sentenceOf(error)} />
        ) : !currentData ? (
          <Waiting />
        ) : currentData.lines.length === 0 ? (
          <Empty>All that had come was billed.</Empty>
        ) : (
          <table aria-label="Received, not billed" className="w-full text-[14px]">
            <thead className="sticky top-0 bg-base-200">
              <tr>
                <th className="plain !pl-6 text-left">Supplier</th>
                <th className="plain text-left">Order, line</th>
                <th className="plain text-left">Description</th>
                <th className="plain num">Received</th>
                <th className="plain num">Billed</th>
                <th className="plain num">Not billed</th>
                <th className="plain num !pr-6">{currentData.currency}</th>
              </tr>
            </thead>
            <tbody>
              {currentData.lines.map((l) => (
                <tr key={l.id} className="border-b hair">
                  <td className="plain !pl-6 max-w-60 truncate">{l.supplier}</td>
                  <td className="plain">
                    <Link className="hover:underline" to={`/orders/${l.orderId}`}>
                      <span className="code">{l.order}</span>, {l.place}
                    </Link>
                  </td>
                  <td className="plain max-w-72 truncate">{l.description}</td>
                  <td className="plain num">{amountOf(l.received, l.unit)}</td>
                  <td className="plain num">{Number(l.billed) === 0 ? '' : amountOf(l.billed, null)}</td>
                  <td className="plain num">
                    {l.currency} {money(l.net, l.currency)}
                  </td>
                  <td className="plain num !pr-6">
                    {l.base === null ? <span className="quiet">no rate</span> : money(l.base, currentData.currency)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
    </div>
  );
}
