import { useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import type { SupplierItems } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { money, showDay } from '../ui/format';
import { useNewBill } from '../bills/new-bill';
import { inSentence } from '@ledgerline/core/checks';
import { LearnedDialog } from '../coding/learned';
import { useCodingFields } from '../coding/rule-dialog';
import { suppliersApi } from './api';
import { BankAccounts } from './bank';
import { EditSupplier } from './edit';
import { DataTable, type Column } from '../ui/data-table';
import { useRows } from '../ui/infinite';
import { Head, Trouble, Waiting } from '../ui/states';

type Item = SupplierItems['items'][number];

const columns: Column<Item>[] = [
  {
    id: 'number',
    head: 'Number',
    cell: (i) => (
      <>
        {i.sourceType === 'bill' ? (
          <Link className="text-primary hover:underline" to={`/bills/${i.sourceId}`}>
            {i.invoiceNumber}
          </Link>
        ) : (
          <span className="quiet">{i.kind}</span>
        )}
        {i.kind === 'credit-note' && <span className="ml-2 text-[12px] text-accent">credit note</span>}
        {i.held && (
          <span className="ml-2 text-[12px] text-warning" title="A second person has to verify something on the bill first">
            payment held
          </span>
        )}
      </>
    ),
  },
  { id: 'dated', head: 'Dated', width: 104, cell: (i) => showDay(i.issueDate) },
  { id: 'due', head: 'Due', width: 104, cell: (i) => showDay(i.dueDate) },
  {
    id: 'entry',
    head: 'Entry',
    width: 116,
    minor: true,
    cell: (i) => (
      <Link className="code hover:underline" to={`/ledger/${i.entryId}`}>
        {i.entry}
      </Link>
    ),
  },
  { id: 'amount', head: 'Amount', width: 140, num: true, cell: (i) => `${i.currency} ${money(i.amount, i.currency)}` },
  { id: 'open', head: 'Open', width: 120, num: true, cell: (i) => money(i.open, i.currency) },
];

/** A supplier's account: what is open, what is settled, and the master data beside it. */
export function SupplierPage() {
  const { id = '' } = useParams();
  const [params] = useSearchParams();
  const { company, can } = usePlace();
  const { currentData: data, error } = suppliersApi.useSupplierQuery({ company: company.id, id });
  const fields = useCodingFields();
  const newBill = useNewBill();
  const [editing, edit] = useState(false);
  const [learned, showLearned] = useState(false);
  const [show, setShow] = useState<'open' | 'settled' | 'all'>('open');
  const rows = useRows(suppliersApi.useItemsInfiniteQuery({ company: company.id, id, show }), (page) => page.items);
  if (error) return <Trouble sentence={sentenceOf(error)} />;
  if (!data) return <Waiting />;
  const facts: [string, string | null][] = [
    ['Tax number', [data.taxId, ...data.otherTaxIds].filter(Boolean).join(', ') || null],
    ['Mail', data.email],
    ['Telephone', data.phone],
    ['Address', [data.address, ...data.otherAddresses].filter(Boolean).join(' · ') || null],
    ['Terms', data.terms],
    ...fields.map(([field, , label]): [string, string | null] => {
      const one = data.usual.find((u) => u.field === field);
      return [`Usual ${inSentence(label)}`, one ? `${one.code} ${one.name}` : null];
    }),
  ];
  return (
    <div className="flex h-full flex-col">
      <Head
        title={data.name}
        detail={[data.code, data.blocked && `blocked: ${data.blocked}`, data.paymentsHeld && `payments held: ${data.paymentsHeld}`]
          .filter(Boolean)
          .join(' · ')}
      >
        <span>
          Open:{' '}
          <b>
            {data.open
              .filter((o) => Number(o.amount) !== 0)
              .map((o) => `${o.currency} ${money(o.amount, o.currency)}`)
              .join(' · ') || 'nothing'}
          </b>
        </span>
        {can('bills:edit') && (
          <button className="btn btn-sm" onClick={() => void newBill({ as: 'new', supplierId: id })}>
            New bill
          </button>
        )}
        <button className="btn btn-sm" onClick={() => showLearned(true)}>
          Coding
        </button>
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
        <div className="flex min-w-0 grow flex-col">
          <DataTable<Item>
            label="Items"
            remember={`Items ${show} ${id}`}
            {...rows}
            columns={columns}
            rowId={(i) => `${i.entryId} ${i.dueDate}`}
            empty="No items here."
          />
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
          {data.contacts.length > 0 && (
            <section aria-label="Contacts" className="mt-4 border-t hair pt-3 text-[14px]">
              <h2 className="mb-1 text-[12px] quiet">Contacts</h2>
              {data.contacts.map((c, i) => (
                <p key={i} className="mb-2 break-words">
                  {c.name}
                  {c.about && <span className="quiet"> · {c.about}</span>}
                  {[c.email, c.phone].filter(Boolean).map((reach) => (
                    <span key={reach} className="block text-[13px]">
                      {reach}
                    </span>
                  ))}
                </p>
              ))}
            </section>
          )}
        </aside>
      </div>
      {learned && <LearnedDialog supplier={data} close={() => showLearned(false)} />}
      {editing && <EditSupplier supplier={data} close={() => edit(false)} />}
    </div>
  );
}
