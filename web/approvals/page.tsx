import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { useKeys } from '../app/keys/registry';
import { arrivalsApi } from '../arrivals/api';
import { billsApi } from '../bills/api';
import { History } from '../desk/history';
import { marksOf } from '../desk/marks';
import { Sheet } from '../desk/sheet';
import { AskNote } from '../ui/dialog';
import { money, showDay } from '../ui/format';
import { useRows } from '../ui/infinite';
import { Empty, Head, Trouble, Waiting } from '../ui/states';
import { Coding } from './coding';

/** Bills to decide, one after another: the page, the lines with their coding, what came before from this supplier. */
export function ApprovalsPage() {
  const { company, me } = usePlace();
  const [params, setParams] = useSearchParams();
  const list = useRows(
    billsApi.useBillsInfiniteQuery({ company: company.id, q: 'stage:coded', sort: 'due', order: 'asc', limit: 200 }),
    (page) => page.bills,
  );
  const queue = list.rows.filter((b) => b.sentBy !== me.id);
  const asked = params.get('bill');
  const id = queue.find((b) => b.id === asked)?.id ?? queue[0]?.id ?? '';
  const { currentData: bill } = billsApi.useBillQuery({ company: company.id, id }, { skip: !id });
  const { currentData: pages } = arrivalsApi.usePagesQuery(
    { company: company.id, id: bill?.documentId ?? '' },
    { skip: !bill?.documentId },
  );
  const [move, { isLoading }] = billsApi.useMoveBillMutation();
  const [active, setActive] = useState<string | null>(null);
  const [returning, setReturning] = useState(false);
  // What is approved has been on the screen: lines and page of this very bill.
  const [drawn, setDrawn] = useState<string | null>(null);
  useEffect(() => setActive(null), [id]);
  const seen = bill !== undefined && bill.id === id && (bill.documentId === null || drawn === bill.documentId);
  const mayApprove = seen && !isLoading && !bill.workedOn.includes(me.id);
  const decide = (what: 'approve' | 'return', note?: string) => {
    if (!bill || isLoading || (what === 'approve' && !mayApprove)) return;
    setParams({}, { replace: true });
    move({ company: company.id, id: bill.id, move: what, rowVersion: bill.rowVersion, ...(note ? { note } : {}) })
      .unwrap()
      .then(
        () => toast(`${bill.invoiceNumber} ${what === 'approve' ? 'approved' : 'returned'}`),
        (e) => toast.error(sentenceOf(e)),
      );
  };
  useKeys('Approvals', [
    { key: 'A', what: 'Approve, once the page is shown', when: () => mayApprove, run: () => decide('approve') },
    { key: 'R', what: 'Return with a note', when: () => Boolean(bill), run: () => setReturning(true) },
  ]);
  if (list.error) return <Trouble sentence={sentenceOf(list.error)} />;
  if (list.loading) return <Waiting />;
  if (!id)
    return (
      <>
        <Head title="Approvals" />
        <Empty>Nothing waits for your decision.</Empty>
      </>
    );
  if (!bill) return <Waiting />;
  const supplier = bill.named.find((c) => c.id === bill.supplierId)?.name ?? bill.supplierName;
  return (
    <div className="flex h-full flex-col">
      <Head
        title={`${supplier} · ${bill.currency} ${money(bill.gross, bill.currency)}`}
        detail={`${queue.length}${list.more ? ' or more' : ''} to decide · ${bill.kind === 'credit-note' ? 'credit note' : 'invoice'} ${bill.invoiceNumber} of ${showDay(bill.issueDate)}, due ${showDay(bill.dueDate)}`}
      >
        <button className="btn btn-sm" title="R" onClick={() => setReturning(true)}>
          Return <kbd className="key max-md:hidden">R</kbd>
        </button>
        <button
          className="btn btn-primary btn-sm"
          title={bill.workedOn.includes(me.id) ? 'You worked on this bill yourself: somebody else has to approve it' : 'A'}
          disabled={!mayApprove}
          onClick={() => decide('approve')}
        >
          Approve <kbd className="key max-md:hidden">A</kbd>
        </button>
      </Head>
      <div className="flex min-h-0 grow max-md:flex-col max-md:overflow-auto">
        <section aria-label="Bill" className="order-2 min-w-0 grow overflow-auto max-md:order-1 max-md:grow-0 max-md:overflow-visible">
          <Coding bill={bill} look={setActive} />
          <History bill={bill} />
        </section>
        <section aria-label="Page" className="w-[46%] shrink-0 border-r hair max-md:order-2 max-md:h-[70vh] max-md:w-full">
          {bill.documentId && pages ? (
            <Sheet
              base={`/api/companies/${company.id}/documents/${bill.documentId}`}
              pages={pages.pages}
              marks={marksOf(bill)}
              active={active}
              onDrawn={() => setDrawn(bill.documentId)}
            />
          ) : (
            <Empty>{bill.documentId ? 'The page is being loaded.' : 'No page.'}</Empty>
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
