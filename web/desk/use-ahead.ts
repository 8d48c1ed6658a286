import { useEffect } from 'react';
import { usePlace } from '../app/company';
import { arrivalsApi } from '../arrivals/api';
import { billsApi } from '../bills/api';
import { borrow, pdfAt, pictureAt } from '../ui/page-view';

/** Fetches a bill with its page before it is asked for, and holds it ready as long as it may be next. */
function useReady(id: string | null): void {
  const { company } = usePlace();
  const { currentData: bill } = billsApi.useBillQuery({ company: company.id, id: id ?? '' }, { skip: !id });
  const documentId = bill?.documentId ?? null;
  const { currentData: pages } = arrivalsApi.usePagesQuery({ company: company.id, id: documentId ?? '' }, { skip: !documentId });
  const first = pages?.pages[0];
  const base = `/api/companies/${company.id}/documents/${documentId}`;
  const pdf = first?.image === 'pdf' ? pdfAt(base, first) : null;
  const picture = first?.image === 'picture' ? pictureAt(base, first) : null;
  useEffect(() => {
    if (picture) new Image().src = picture;
    if (!pdf) return;
    const held = borrow(pdf);
    return () => held.give();
  }, [pdf, picture]);
}

/** The next two bills of the queue, ready before the one in hand is done. Gives their ids, and how many wait. */
export function useAhead(id: string): { ahead: string[]; left: number | null } {
  const { company, can } = usePlace();
  const { data: queue } = billsApi.useNextBillQuery({ company: company.id, after: id });
  const next = queue?.id && queue.id !== id ? queue.id : null;
  const { data: then } = billsApi.useNextBillQuery({ company: company.id, after: next ?? '' }, { skip: !next });
  const after = then?.id && then.id !== id && then.id !== next ? then.id : null;
  // Who only looks has no next bill to be ready for.
  const edits = can('bills:edit');
  useReady(edits ? next : null);
  useReady(edits ? after : null);
  return { ahead: [next, after].filter((one) => one !== null), left: queue?.left ?? null };
}
