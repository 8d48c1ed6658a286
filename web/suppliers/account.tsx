import { useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { money, showDay } from '../ui/format';
import { suppliersApi } from './api';
import { BankAccounts } from './bank';
import { EditSupplier } from './edit';
import { Empty, Head, Trouble, Waiting } from '../ui/states';

/** A supplier's account: what is open, what is settled, and the master data beside it. */
export function SupplierPage() {
  const { id = '' } = useParams();
  const [params] = useSearchParams();
  const { company, can } = usePlace();
  const { currentData: data, error } = suppliersApi.useSupplierQuery({ company: company.id, id });
  const [editing, edit] = useState(false);
  const [show, setShow] = useState<'open' | 'settled' | 'all'>('open');
  if (error) return <Trouble sentence={sentenceOf(error)} />;
  if (!data) return <Waiting />;
  const items = data.items.filter((i) => show === 'all' || (Number(i.open) === 0) === (show === 'settled'));
  const facts: [string, string | null][] = [
    ['Tax number', data.taxId],
    ['Mail', data.email],
    ['Telephone', data.phone],
    ['Address', data.address],
    ['Terms', data.terms],
    ['Usual account', data.usual.account],
    ['Usual cost centre', data.usual.costCentre],
    ['Usual tax code', data.usual.taxCode],
  ];
  return (
    <div className="flex h-full flex-col">
      <Head title={data.name} detail={data.code}>
        <span>
          Open:{' '}
          <b>
            {data.open
              .filter((o) => Number(o.amount) !== 0)
              .map((o) => `${o.currency} ${money(o.amount, o.currency)}`)
              .join(' · ') || 'nothing'}
          </b>
        </span>
        {can('suppliers:edit') && (
          <button className="btn btn-sm" onClick={() => edit(true)}>
            Change
          </button>
        )}
      </Head>
      <div className="flex gap-1 border-b hair px-5 py-1.5 text-[13px]">
        {(['open', 'settled', 'all'] as const).map((s) => (
          <button
            key={s}
            aria-pressed={show === s}
            className={`rounded px-2 py-0.5 ${show === s ? 'bg-primary text-primary-content' : 'hover:bg-base-200'}`}
            onClick={() => setShow(s)}
          >
            {s[0]!.toUpperCase() + s.slice(1)}
          </button>
        ))}
      </div>
      <div className="flex min-h-0 grow">
        <div className="min-w-0 grow overflow-auto">
          {items.length === 0 ? (
            <Empty>No items here.</Empty>
          ) : (
            <table className="w-full">
              <thead className="sticky top-0 bg-base-200">
                <tr>
                  <th className="plain !pl-6">Number</th>
                  <th className="plain">Dated</th>
                  <th className="plain">Due</th>
                  <th className="plain">Entry</th>
                  <th className="plain num">Amount</th>
                  <th className="plain num !pr-6">Open</th>
                </tr>
              </thead>
              <tbody>
                {items.map((i) => (
                  <tr key={i.entryId} className="hover:bg-base-200">
                    <td className="plain !pl-6">
                      {i.sourceType === 'bill' ? (
                        <Link className="text-primary hover:underline" to={`/bills/${i.sourceId}`}>
                          {i.invoiceNumber}
                        </Link>
                      ) : (
                        <span className="quiet">{i.kind}</span>
                      )}
                      {i.kind === 'credit-note' && <span className="ml-2 text-[12px] text-accent">credit note</span>}
                    </td>
                    <td className="plain">{showDay(i.issueDate)}</td>
                    <td className="plain">{showDay(i.dueDate)}</td>
                    <td className="plain">
                      <Link className="code hover:underline" to={`/ledger/${i.entryId}`}>
                        {i.entry}
                      </Link>
                    </td>
                    <td className="plain num">
                      {i.currency} {money(i.amount, i.currency)}
                    </td>
                    <td className="plain num !pr-6">{money(i.open, i.currency)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {data.more && (show !== 'open' || items.length === data.items.length) && (
            <p className="px-6 py-2 text-[13px] quiet">Older items are not listed.</p>
          )}
        </div>
        <aside className="w-64 shrink-0 overflow-auto border-l hair px-5 py-3">
          <BankAccounts supplier={data} asked={params.get('iban')} />
          <dl className="mt-3 space-y-2 text-[14px]">
            {facts.map(([label, value]) => (
              <div key={label}>
                <dt className="text-[12px] quiet">{label}</dt>
                <dd className="break-words">{value ?? '—'}</dd>
              </div>
            ))}
          </dl>
        </aside>
      </div>
      {editing && <EditSupplier supplier={data} close={() => edit(false)} />}
    </div>
  );
}
