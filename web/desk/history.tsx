import { Link } from 'react-router';
import type { Bill } from '@ledgerline/contract';
import { api } from '../app/api';
import { usePlace } from '../app/company';
import { money, showDay, showTime } from '../ui/format';
import { StageWord } from '../ui/stage';

/** What happened to the bill, and the last ones from the same supplier. */
export function History({ bill }: { bill: Bill }) {
  const { company } = usePlace();
  const { data } = api.useSameSupplierQuery({ company: company.id, id: bill.id }, { skip: !bill.supplierId });
  return (
    <div className="grid grid-cols-2 gap-6 px-5 py-4 text-[13px]">
      <div>
        <h2 className="mb-1 font-semibold">So far</h2>
        <ul>
          {bill.events.map((e) => (
            <li key={e.what + e.at} className="leading-6">
              <span className="quiet">{showTime(e.at)}</span> {e.what}
              {e.person ? ` by ${e.person}` : ''}
              {e.note ? `: “${e.note}”` : ''}
            </li>
          ))}
        </ul>
      </div>
      {data && data.bills.length > 0 && (
        <div>
          <h2 className="mb-1 font-semibold">Last from this supplier</h2>
          <table className="w-full">
            <tbody>
              {data.bills.map((b) => (
                <tr key={b.id}>
                  <td className="leading-6">
                    <Link className="text-accent hover:underline" to={`/bills/${b.id}`}>
                      {b.invoiceNumber ?? 'no number'}
                    </Link>
                  </td>
                  <td>{showDay(b.issueDate)}</td>
                  <td className="text-right">{money(b.gross, b.currency)}</td>
                  <td className="pl-3">
                    <StageWord stage={b.stage} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}
