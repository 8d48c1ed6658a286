import { Search } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { money, showDay } from '../ui/format';
import { Empty, Head, Trouble, Waiting } from '../ui/states';

export function SuppliersPage() {
  const { company } = usePlace();
  const [q, setQ] = useState('');
  const { data, error } = api.useSuppliersQuery({ company: company.id, q });
  return (
    <div className="flex h-full flex-col">
      <Head title="Suppliers" detail={company.name}>
        <label className="flex w-72 items-center gap-2 border-b-2 border-base-300 focus-within:border-primary">
          <Search size={15} aria-hidden />
          <input
            type="search"
            aria-label="Search suppliers"
            placeholder="Name or code"
            className="h-9 grow bg-transparent outline-none"
            value={q}
            onChange={(e) => setQ(e.target.value)}
          />
        </label>
      </Head>
      <div className="min-h-0 grow overflow-auto">
        {error ? (
          <Trouble sentence={sentenceOf(error)} />
        ) : !data ? (
          <Waiting />
        ) : data.suppliers.length === 0 ? (
          <Empty>No supplier fits.</Empty>
        ) : (
          <table className="w-full">
            <thead className="sticky top-0 bg-base-200">
              <tr>
                <th className="plain !pl-6">Code</th>
                <th className="plain">Name</th>
                <th className="plain">Tax number</th>
                <th className="plain">Terms</th>
                <th className="plain num">Bills</th>
                <th className="plain">Last</th>
                <th className="plain num !pr-6">Open</th>
              </tr>
            </thead>
            <tbody>
              {data.suppliers.map((s) => (
                <tr key={s.id} className="hover:bg-base-200">
                  <td className="plain code !pl-6">{s.code}</td>
                  <td className="plain">
                    <Link className="font-medium text-primary hover:underline" to={`/suppliers/${s.id}`}>
                      {s.name}
                    </Link>
                  </td>
                  <td className="plain code">{s.taxId}</td>
                  <td className="plain">{s.terms}</td>
                  <td className="plain num">{s.bills}</td>
                  <td className="plain">{showDay(s.lastBill)}</td>
                  <td className="plain num !pr-6">{s.open.map((o) => `${o.currency} ${money(o.amount, o.currency)}`).join(' · ')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
    </div>
  );
}
