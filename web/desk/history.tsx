import { Link } from 'react-router';
import type { Bill } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { billsApi } from '../bills/api';
import { pathName } from './marks';
import { money, showDay, showTime } from '../ui/format';
import { StageWord } from '../ui/stage';

/** What happened, with the fields that were changed; one person's changes in a row are told as one. */
function told(bill: Bill): { id: string; at: string; verb: string; person: string | null; note: string | null; fields: string[] }[] {
  const out: ReturnType<typeof told> = [];
  for (const e of bill.events) {
    const fields = e.verb === 'changed' ? e.changes.filter((c) => !c.field.endsWith('.position')).map((c) => pathName(bill, c.field)) : [];
    const last = out[out.length - 1];
    if (e.verb === 'changed' && last?.verb === 'changed' && last.person === e.person) {
      last.at = e.at;
      last.fields = [...new Set([...last.fields, ...fields])];
    } else out.push({ id: e.id, at: e.at, verb: e.verb, person: e.person, note: e.note, fields: [...new Set(fields)] });
  }
  return out;
}

/** What happened to the bill, and the last ones from the same supplier. */
export function History({ bill }: { bill: Bill }) {
  const { company } = usePlace();
  const { data } = billsApi.useSameSupplierQuery({ company: company.id, id: bill.id }, { skip: !bill.supplierId });
  return (
    <div className="@container">
      <div className="grid grid-cols-1 gap-6 px-5 py-4 text-[13px] max-md:px-4 @min-[560px]:grid-cols-[minmax(0,1fr)_auto]">
        <div>
          <h2 className="mb-1 font-semibold">So far</h2>
          <ul>
            {told(bill).map((e) => (
              <li key={e.id} className="leading-6">
                <span className="quiet">{showTime(e.at)}</span> {e.verb}
                {e.person ? ` by ${e.person}` : ''}
                {e.note ? `: “${e.note}”` : ''}
                {e.fields.length > 0 && <span className="quiet"> ({e.fields.join(', ')})</span>}
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
                    <td className="max-w-28 truncate leading-6" title={b.invoiceNumber ?? undefined}>
                      <Link className="text-accent hover:underline" to={`/bills/${b.id}`}>
                        {b.invoiceNumber ?? 'no number'}
                      </Link>
                    </td>
                    <td className="whitespace-nowrap pl-3">{showDay(b.issueDate)}</td>
                    <td className="whitespace-nowrap pl-3 text-right">{money(b.gross, b.currency)}</td>
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
    </div>
  );
}
