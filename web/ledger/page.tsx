import { Search } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { money, showDay } from '../ui/format';
import { Empty, Head, Trouble, Waiting } from '../ui/states';

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

function Periods() {
  const { company, can } = usePlace();
  const { data } = api.usePeriodsQuery({ company: company.id });
  const [set] = api.useSetPeriodMutation();
  const years = [...new Set(data?.periods.map((p) => p.year))].sort((a, b) => b - a);
  return (
    <aside aria-label="Periods" className="w-56 shrink-0 overflow-auto border-l hair px-4 py-3 text-[13px]">
      <h2 className="font-semibold">Periods</h2>
      <p className="mb-2 quiet">{can('periods:set') ? 'Click to open or close.' : 'Struck out: closed.'}</p>
      {years.map((year) => (
        <div key={year} className="mb-2">
          <div className="quiet">{year}</div>
          <div className="grid grid-cols-4 gap-0.5">
            {data!.periods
              .filter((p) => p.year === year)
              .map((p) => (
                <button
                  key={p.month}
                  disabled={!can('periods:set')}
                  title={`${p.open ? 'Open' : 'Closed'}, ${p.entries} entries`}
                  aria-label={`${months[p.month - 1]} ${year}, ${p.open ? 'open' : 'closed'}`}
                  className={`rounded px-1 py-0.5 ${p.open ? 'hover:bg-base-200' : 'bg-base-300 line-through'} ${p.entries ? 'font-semibold' : ''}`}
                  onClick={() =>
                    void set({ company: company.id, year, month: p.month, open: !p.open })
                      .unwrap()
                      .catch((e) => toast.error(sentenceOf(e)))
                  }
                >
                  {months[p.month - 1]}
                </button>
              ))}
          </div>
        </div>
      ))}
    </aside>
  );
}

export function LedgerPage() {
  const { company } = usePlace();
  const [q, setQ] = useState('');
  const [cursors, setCursors] = useState<string[]>([]);
  const { data, error } = api.useEntriesQuery({
    company: company.id,
    ...(q ? { q } : {}),
    ...(cursors.length ? { cursor: cursors[cursors.length - 1]! } : {}),
  });
  return (
    <div className="flex h-full flex-col">
      <Head title="Ledger" detail={`Journal entries of ${company.name}, ${company.baseCurrency}`}>
        <label className="flex w-72 items-center gap-2 border-b-2 border-base-300 focus-within:border-primary">
          <Search size={15} aria-hidden />
          <input
            type="search"
            aria-label="Search entries"
            placeholder="Number, supplier, invoice"
            className="h-9 grow bg-transparent outline-none"
            value={q}
            onChange={(e) => {
              setQ(e.target.value);
              setCursors([]);
            }}
          />
        </label>
      </Head>
      <div className="flex min-h-0 grow">
        <div className="min-w-0 grow overflow-auto">
          {error ? (
            <Trouble sentence={sentenceOf(error)} />
          ) : !data ? (
            <Waiting />
          ) : data.entries.length === 0 ? (
            <Empty>No entry fits.</Empty>
          ) : (
            <table className="w-full">
              <thead className="sticky top-0 bg-base-200">
                <tr>
                  <th className="plain !pl-6">Entry</th>
                  <th className="plain">Date</th>
                  <th className="plain">Text</th>
                  <th className="plain">Posted by</th>
                  <th className="plain num !pr-6">Amount</th>
                </tr>
              </thead>
              <tbody>
                {data.entries.map((e) => (
                  <tr key={e.id} className="hover:bg-base-200">
                    <td className="plain !pl-6">
                      <Link className="code text-primary hover:underline" to={`/ledger/${e.id}`}>
                        {e.number}
                      </Link>
                    </td>
                    <td className="plain">{showDay(e.entryDate)}</td>
                    <td className="plain max-w-96 truncate">{e.description}</td>
                    <td className="plain text-[13px]">{e.postedBy}</td>
                    <td className="plain num !pr-6">
                      <Link className="hover:underline" to={`/ledger/${e.id}`}>
                        {money(e.total, company.baseCurrency)}
                      </Link>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {data && (
            <div className="flex gap-2 px-6 py-3">
              {cursors.length > 0 && (
                <button className="btn btn-sm" onClick={() => setCursors(cursors.slice(0, -1))}>
                  Newer
                </button>
              )}
              {data.next && (
                <button className="btn btn-sm" onClick={() => setCursors([...cursors, data.next!])}>
                  Older
                </button>
              )}
            </div>
          )}
        </div>
        <Periods />
      </div>
    </div>
  );
}
