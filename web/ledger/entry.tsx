import { ArrowLeft } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { arrivalsApi } from '../arrivals/api';
import { Sheet } from '../desk/sheet';
import { Bearer } from '../ui/bearer';
import { money, showDay, showTime } from '../ui/format';
import { ledgerApi } from './api';
import { Empty, Head, Trouble, Waiting } from '../ui/states';

/** From an amount back to the ink: journal line, bill line, mark on the page. */
function TrailView({ id }: { id: string }) {
  const { company } = usePlace();
  const { currentData: data, error } = ledgerApi.useTrailQuery({ company: company.id, id });
  const { currentData: pages } = arrivalsApi.usePagesQuery(
    { company: company.id, id: data?.documentId ?? '' },
    { skip: !data?.documentId },
  );
  if (error) return <Trouble sentence={sentenceOf(error)} />;
  if (!data) return <Waiting />;
  const step = (label: string, text: React.ReactNode) => (
    <li className="border-t hair py-1.5">
      <span className="inline-block w-24 quiet text-[13px]">{label}</span>
      {text}
    </li>
  );
  return (
    <div className="flex h-full flex-col" aria-label="Trail" role="region">
      <ol className="shrink-0 px-5 pb-2">
        {step(
          'Ledger',
          <>
            {data.journal.entry} · {data.journal.account} ·{' '}
            <b>{money(data.journal.debit !== '0' ? data.journal.debit : data.journal.credit, company.baseCurrency)}</b>
          </>,
        )}
        {step(
          'Bill',
          <Link className="text-primary hover:underline" to={`/bills/${data.bill.id}`}>
            {data.bill.supplier} {data.bill.invoiceNumber}
          </Link>,
        )}
        {data.line &&
          step(
            'Line',
            <>
              Row {data.line.row}: {data.line.quantity ? `${data.line.quantity} × ${data.line.unitPrice} ` : ''}
              {data.line.description}, <b>{money(data.line.amount, data.bill.currency)}</b>
            </>,
          )}
        {step(
          'Page',
          data.mark ? (
            <>
              page {data.mark.page}
              {data.proof ? `, proven: ${data.proof}` : ''}
            </>
          ) : data.documentId ? (
            'typed by hand, no mark'
          ) : (
            'no document (from before Ledgerline)'
          ),
        )}
        {step(
          'People',
          <span className="text-[13px]">
            {data.people
              .filter((p) => p.person)
              .map((p) => `${p.what} by ${p.person}, ${showTime(p.at)}`)
              .join(' · ')}
          </span>,
        )}
      </ol>
      <div className="min-h-0 grow border-t hair">
        {data.documentId && pages ? (
          <Sheet
            base={`/api/companies/${company.id}/documents/${data.documentId}`}
            pages={pages.pages}
            marks={[]}
            active={null}
            focus={data.mark}
          />
        ) : (
          <Empty>There is no page for this bill.</Empty>
        )}
      </div>
    </div>
  );
}

export function EntryPage() {
  const { id = '' } = useParams();
  const { company } = usePlace();
  const navigate = useNavigate();
  const { currentData: data, error } = ledgerApi.useEntryQuery({ company: company.id, id });
  const [line, setLine] = useState<string | null>(null);
  if (error) return <Trouble sentence={sentenceOf(error)} />;
  if (!data) return <Waiting />;
  const base = data.baseCurrency;
  const amount = (l: (typeof data.lines)[number], v: string) =>
    Number(v) === 0 ? null : l.hasTrail ? (
      <button
        className="text-primary underline decoration-dotted underline-offset-4"
        title="Show the trail to the page"
        onClick={() => setLine(l.id)}
      >
        {money(v, base)}
      </button>
    ) : (
      money(v, base)
    );
  return (
    <div className="flex h-full flex-col">
      <Head title={`Entry ${data.number}`} detail={`${data.description} · ${showDay(data.entryDate)} · posted by ${data.postedBy}`}>
        <button className="btn btn-sm" onClick={() => void navigate(-1)}>
          <ArrowLeft size={14} aria-hidden />
          Back
        </button>
      </Head>
      <div className="flex min-h-0 grow">
        <div className="min-w-0 grow overflow-auto">
          {data.orders.length > 0 && (
            <p className="border-b hair px-6 py-2 text-[14px]">
              <span className="quiet">What came of </span>
              {data.orders.map((o, i) => (
                <span key={o.id}>
                  {i > 0 && ', '}
                  <Link className="code hover:underline" to={`/orders/${o.id}`}>
                    {o.number}
                  </Link>
                </span>
              ))}
            </p>
          )}
          <table className="w-full text-[14px]">
            <thead className="bg-base-200">
              <tr>
                <th className="plain !pl-6">Account</th>
                <th className="plain">Cost centre</th>
                <th className="plain">Text</th>
                <th className="plain num">Debit {base}</th>
                <th className="plain num !pr-5">Credit {base}</th>
              </tr>
            </thead>
            <tbody>
              {data.lines.map((l) => (
                <tr key={l.id} className={l.id === line ? 'bg-primary/10' : ''}>
                  <td className="plain !pl-6 max-w-52 truncate">
                    <span className="code">{l.account}</span> {l.accountName}
                  </td>
                  <td className="plain max-w-40 truncate">
                    <Bearer of={l} />
                  </td>
                  <td className="plain max-w-44 truncate" title={l.description}>
                    {l.description}
                  </td>
                  <td className="plain num">{amount(l, l.debit)}</td>
                  <td className="plain num !pr-5">{amount(l, l.credit)}</td>
                </tr>
              ))}
              <tr className="font-semibold">
                <td className="plain !pl-6" colSpan={3}>
                  Balanced{data.currency !== base ? `, 1 ${data.currency} = ${Number(data.rate)} ${base}` : ''}
                </td>
                <td className="plain num">{money(data.total, base)}</td>
                <td className="plain num !pr-5">{money(data.total, base)}</td>
              </tr>
            </tbody>
          </table>
          {!line && data.lines.some((l) => l.hasTrail) && (
            <p className="px-6 py-3 quiet">Click an amount to follow its trail to the page.</p>
          )}
        </div>
        {line && (
          <div className="w-[44%] shrink-0 border-l hair">
            <TrailView id={line} />
          </div>
        )}
      </div>
    </div>
  );
}
