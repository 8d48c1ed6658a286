import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { Sheet } from '../desk/sheet';
import { marksOf } from '../desk/marks';
import { History } from '../desk/history';
import { AskNote } from '../ui/dialog';
import { money, showDay } from '../ui/format';
import { Empty, Head, Trouble, Waiting } from '../ui/states';

/** Bills to decide, one after another: the page, the lines with their coding, what came before from this supplier. */
export function ApprovalsPage() {
  const { company, me } = usePlace();
  const [params, setParams] = useSearchParams();
  const { data: list, error } = api.useBillsQuery({ company: company.id, q: 'stage:coded', sort: 'due', order: 'asc', limit: 200 });
  const queue = list?.bills.filter((b) => b.sentBy !== me.id) ?? [];
  const id = queue.find((b) => b.id === params.get('bill'))?.id ?? queue[0]?.id ?? '';
  const { data: bill } = api.useBillQuery({ company: company.id, id }, { skip: !id });
  const { data: choices } = api.useChoicesQuery({ company: company.id });
  const { data: pages } = api.usePagesQuery({ company: company.id, id: bill?.documentId ?? '' }, { skip: !bill?.documentId });
  const [move, { isLoading }] = api.useMoveBillMutation();
  const [active, setActive] = useState<string | null>(null);
  const [returning, setReturning] = useState(false);
  const decide = (what: 'approve' | 'return', note?: string) => {
    if (!bill || isLoading) return;
    setParams({}, { replace: true });
    move({ company: company.id, id: bill.id, move: what, rowVersion: bill.rowVersion, ...(note ? { note } : {}) })
      .unwrap()
      .then(
        () => toast(`${bill.invoiceNumber} ${what === 'approve' ? 'approved' : 'returned'}`),
        (e) => toast.error(sentenceOf(e)),
      );
  };
  useEffect(() => {
    const listen = (e: KeyboardEvent) => {
      if (
        /INPUT|TEXTAREA|SELECT/.test((e.target as HTMLElement).tagName) ||
        document.querySelector('dialog[open]') ||
        e.ctrlKey ||
        e.altKey
      )
        return;
      if (e.key.toLowerCase() === 'a') decide('approve');
      if (e.key.toLowerCase() === 'r') {
        e.preventDefault();
        setReturning(true);
      }
    };
    addEventListener('keydown', listen);
    return () => removeEventListener('keydown', listen);
  });
  if (error) return <Trouble sentence={sentenceOf(error)} />;
  if (!list || !choices) return <Waiting />;
  if (!id)
    return (
      <>
        <Head title="Approvals" />
        <Empty>Nothing waits for your decision.</Empty>
      </>
    );
  if (!bill) return <Waiting />;
  const name = (kind: 'accounts' | 'costCentres' | 'taxCodes', key: string | null) => choices[kind].find((c) => c.id === key);
  const supplier = choices.suppliers.find((s) => s.id === bill.supplierId)?.name ?? bill.supplierName;
  return (
    <div className="flex h-full flex-col">
      <Head
        title={`${supplier} · ${bill.currency} ${money(bill.gross, bill.currency)}`}
        detail={`${queue.length} to decide · ${bill.kind === 'credit-note' ? 'credit note' : 'invoice'} ${bill.invoiceNumber} of ${showDay(bill.issueDate)}, due ${showDay(bill.dueDate)}`}
      >
        <button className="btn btn-sm" title="R" onClick={() => setReturning(true)}>
          Return <kbd className="key">R</kbd>
        </button>
        <button className="btn btn-primary btn-sm" title="A" disabled={isLoading} onClick={() => decide('approve')}>
          Approve <kbd className="key">A</kbd>
        </button>
      </Head>
      <div className="flex min-h-0 grow max-md:flex-col max-md:overflow-auto">
        <section aria-label="Bill" className="order-2 min-w-0 grow overflow-auto max-md:order-1 max-md:overflow-visible">
          <div className="overflow-x-auto">
            <table className="w-full text-[14px]">
              <thead className="bg-base-200">
                <tr>
                  <th className="plain">Line</th>
                  <th className="plain">Account</th>
                  <th className="plain">Cost centre</th>
                  <th className="plain">Tax</th>
                  <th className="plain num">Amount</th>
                </tr>
              </thead>
              <tbody>
                {bill.lines.map((l, i) => (
                  <tr key={l.id} className="hover:bg-base-200" onMouseEnter={() => setActive(`lines[${i}].amount`)}>
                    <td className="plain max-w-52 truncate" title={l.description}>
                      {l.quantity && <span className="quiet">{l.quantity} × </span>}
                      {l.description}
                    </td>
                    <td className="plain max-w-44 truncate">
                      <span className="code">{name('accounts', l.accountId)?.code}</span> {name('accounts', l.accountId)?.name}
                    </td>
                    <td className="plain max-w-36 truncate">{name('costCentres', l.costCentreId)?.name}</td>
                    <td className="plain code">{name('taxCodes', l.taxCodeId)?.code}</td>
                    <td className="plain num">{money(l.amount, bill.currency)}</td>
                  </tr>
                ))}
                {[
                  ['Net', bill.net],
                  ['Tax', bill.tax],
                  ['Total', bill.gross],
                ].map(([label, v]) => (
                  <tr key={label} className={label === 'Total' ? 'font-semibold' : ''}>
                    <td className="plain" colSpan={4}>
                      {label}
                    </td>
                    <td className="plain num">{money(v ?? null, bill.currency)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <History bill={bill} />
        </section>
        <section aria-label="Page" className="w-[46%] shrink-0 border-r hair max-md:order-2 max-md:h-[520px] max-md:w-full">
          {bill.documentId && pages ? (
            <Sheet
              base={`/api/companies/${company.id}/documents/${bill.documentId}`}
              pages={pages.pages}
              marks={marksOf(bill)}
              active={active}
            />
          ) : (
            <Empty>No page.</Empty>
          )}
        </section>
      </div>
      {returning && (
        <AskNote
          title="Return to the clerk"
          action="Return"
          close={() => setReturning(false)}
          done={(note) => {
            setReturning(false);
            decide('return', note);
          }}
        />
      )}
    </div>
  );
}
