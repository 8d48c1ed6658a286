import { Link } from 'react-router';
import type { BillRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { arrivalsApi } from '../arrivals/api';
import { marksOf } from '../desk/marks';
import { Sheet } from '../desk/sheet';
import { money, showDay } from '../ui/format';
import { Empty, Waiting } from '../ui/states';
import { useSettled } from '../ui/settled';
import { billsApi } from './api';

/** The bill in hand beside the list: its page, its rows and what is to settle. */
export function Preview({ row }: { row: BillRow | null }) {
  const { company } = usePlace();
  // Arrows go through the list faster than pages can be fetched: the one that is stayed at.
  const id = useSettled(row?.id ?? '');
  const { currentData: bill } = billsApi.useBillQuery({ company: company.id, id }, { skip: !id });
  const documentId = bill?.documentId ?? null;
  const { currentData: pages } = arrivalsApi.usePagesQuery({ company: company.id, id: documentId ?? '' }, { skip: !documentId });
  return (
    <aside aria-label="Preview" className="flex w-[min(440px,32vw)] shrink-0 flex-col border-l-2 border-double hair">
      {!row ? (
        <Empty>No bill in hand.</Empty>
      ) : !bill ? (
        <Waiting />
      ) : (
        <>
          <div className="min-h-0 grow">
            {documentId && pages ? (
              <Sheet
                base={`/api/companies/${company.id}/documents/${documentId}`}
                pages={pages.pages}
                marks={marksOf(bill)}
                active={null}
              />
            ) : (
              <Empty>{documentId ? 'The page is being loaded.' : 'This bill has no document.'}</Empty>
            )}
          </div>
          <div className="max-h-[38%] shrink-0 overflow-auto border-t hair px-4 py-2 text-[13px]">
            <p className="flex justify-between gap-3">
              <Link className="truncate font-semibold text-primary hover:underline" to={`/bills/${bill.id}`}>
                {row.supplier ?? 'Unknown supplier'} {bill.invoiceNumber}
              </Link>
              <b className="shrink-0 tabular-nums">
                {bill.currency} {money(bill.gross, bill.currency)}
              </b>
            </p>
            <p className="quiet">
              {[bill.issueDate && `dated ${showDay(bill.issueDate)}`, bill.dueDate && `due ${showDay(bill.dueDate)}`, bill.terms]
                .filter(Boolean)
                .join(' · ')}
            </p>
            {bill.exceptions.slice(0, 3).map((e) => (
              <p key={`${e.code} ${e.path} ${e.key}`} className={e.severity === 'stops' ? 'text-error' : ''}>
                {e.sentence}
              </p>
            ))}
            <table className="mt-1 w-full">
              <tbody>
                {bill.lines.map((l) => (
                  <tr key={l.id} className="border-t hair">
                    <td className="max-w-0 w-full truncate py-0.5">{l.description}</td>
                    <td className="pl-2 text-right tabular-nums whitespace-nowrap">{money(l.amount, bill.currency)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      )}
    </aside>
  );
}
