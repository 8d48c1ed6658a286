import { useEffect, useState } from 'react';
import { usePlace } from '../app/company';
import { arrivalsApi } from '../arrivals/api';
import { billsApi } from '../bills/api';
import { pdfAt, pictureAt } from '../ui/page-view';
import { makeReady } from '../ui/pdf';

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
    const held = makeReady(pdf);
    return () => held.give();
  }, [pdf, picture]);
}

/**
 * The next two bills of the queue, ready before the one in hand is done. Gives their ids, and how many wait. Nothing is fetched ahead
 * before the bill in hand is `shown`: what is looked at comes first.
 */
export function useAhead(id: string, shown: boolean): { ahead: string[]; left: number | null } {
  const { company, can } = usePlace();
  const [of, setOf] = useState('');
  useEffect(() => {
    if (shown) setOf(id);
  }, [id, shown]);
  const { data: queue } = billsApi.useNextBillQuery({ company: company.id, after: of }, { skip: !of });
  const next = queue?.id && queue.id !== of ? queue.id : null;
  const { data: then } = billsApi.useNextBillQuery({ company: company.id, after: next ?? '' }, { skip: !next });
  const after = then?.id && then.id !== of && then.id !== next ? then.id : null;
  // Who only looks has no next bill to be ready for.
  const edits = can('bills:edit');
  useReady(edits ? next : null);
  useReady(edits ? after : null);
  return { ahead: [next, after].filter((one): one is string => one !== null && one !== id), left: queue?.left ?? null };
}
