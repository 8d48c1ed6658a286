import { useState } from 'react';
import { toast } from 'sonner';
import type { DocumentPages, Mark } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { arrivalsApi } from '../arrivals/api';
import { useUpload } from '../arrivals/upload';
import { billsApi } from '../bills/api';
import { showDay } from '../ui/format';
import { Empty } from '../ui/states';
import { Sheet, type ShownMark } from './sheet';
import type { Desk } from './use-desk';
import { sides, type DeskView } from './view';

interface Props {
  desk: Desk;
  pages: DocumentPages | undefined;
  marks: ShownMark[];
  view: DeskView;
  change(view: Partial<DeskView>): void;
  onMark(path: string): void;
  onWord(text: string, mark: Mark): void;
  onBox(mark: Mark): void;
  /** The bill's own document is on the screen. */ onDrawn(): void;
}

/** The bill's document with its marks, and those kept beside it; where it has none yet, the ways to give it one. */
export function PageSide({ desk, pages, marks, view, change, onMark, onWord, onBox, onDrawn }: Props) {
  const { company } = usePlace();
  const { bill, active } = desk;
  const { currentData: documents } = billsApi.useDocumentsQuery({ company: company.id, id: bill.id });
  const further = documents?.further ?? [];
  const [chosen, choose] = useState<{ of: string; id: string } | null>(null);
  const beside = chosen?.of === bill.id ? (further.find((d) => d.id === chosen.id) ?? null) : null;
  const reading = beside !== null && ['waiting', 'reading'].includes(beside.state);
  const { currentData: besidePages } = arrivalsApi.usePagesQuery(
    { company: company.id, id: beside?.id ?? '' },
    { skip: !beside || reading },
  );
  const base = (id: string) => `/api/companies/${company.id}/documents/${id}`;
  const kept = {
    zoom: view.zoom,
    setZoom: (zoom: number) => change({ zoom }),
    apart: () => void window.open('/page', 'ledgerline-page', 'popup,width=900,height=1100'),
    move: () => change({ side: sides[(sides.indexOf(view.side) + 1) % sides.length]! }),
  };
  const tab = (id: string | null, name: string) => (
    <button
      key={id ?? 'own'}
      role="tab"
      aria-selected={(beside?.id ?? null) === id}
      className={`max-w-44 truncate border-b-2 px-2 py-1 ${(beside?.id ?? null) === id ? 'border-primary font-semibold' : 'border-transparent hover:bg-base-200'}`}
      title={name}
      onClick={() => choose(id ? { of: bill.id, id } : null)}
    >
      {name}
    </button>
  );
  return (
    <section aria-label="Page" className="flex h-full flex-col">
      {further.length > 0 && (
        <div role="tablist" aria-label="Documents" className="flex shrink-0 gap-1 overflow-x-auto border-b hair px-2 text-[13px]">
          {tab(null, bill.documentId ? 'The bill itself' : 'No document yet')}
          {further.map((d) => tab(d.id, d.name))}
        </div>
      )}
      <div className="min-h-0 grow">
        {beside?.state === 'unreadable' ? (
          <Empty>{beside.note ?? 'This document cannot be shown.'} It is kept as it came: see Arrivals.</Empty>
        ) : beside ? (
          besidePages ? (
            <Sheet base={base(beside.id)} pages={besidePages.pages} marks={[]} active={null} kept={kept} />
          ) : (
            <Empty>{reading ? 'This document is being read.' : 'The page is being loaded.'}</Empty>
          )
        ) : bill.documentId && pages ? (
          <Sheet
            base={base(bill.documentId)}
            pages={pages.pages}
            marks={marks}
            active={active}
            kept={kept}
            onMark={onMark}
            onWord={onWord}
            onBox={onBox}
            onDrawn={onDrawn}
          />
        ) : bill.documentId ? (
          <Empty>The page is being loaded.</Empty>
        ) : (
          <WithoutDocument desk={desk} />
        )}
      </div>
    </section>
  );
}

/** A bill without a document: drop it, choose the file, or take one of those that came. */
function WithoutDocument({ desk }: { desk: Desk }) {
  const { company } = usePlace();
  const upload = useUpload(company.id);
  const { bill, locked } = desk;
  if (locked) return <Empty>This bill has no document.</Empty>;
  return (
    <div className="h-full overflow-auto px-8 py-10">
      <h2 className="font-semibold">No document yet</h2>
      <p className="mt-1 mb-3 quiet">Drop it here, or let it come by mail or scan: with this supplier and number it joins by itself.</p>
      <label className="btn btn-sm">
        Choose the file …
        <input
          type="file"
          className="sr-only"
          onChange={(e) => {
            const files = [...(e.target.files ?? [])];
            if (files.length) void upload(files.slice(0, 1), `/bills/${bill.id}/own-file`);
          }}
        />
      </label>
      <Candidates billId={bill.id} own />
    </div>
  );
}

/** Documents that came lately and that nobody works on, each with what it can become. */
export function Candidates({ billId, own }: { billId: string; own: boolean }) {
  const { company } = usePlace();
  const { currentData } = billsApi.useDocumentsQuery({ company: company.id, id: billId });
  const [join, { isLoading }] = billsApi.useJoinDocumentMutation();
  const put = (documentId: string, as: 'own' | 'further') =>
    void join({ company: company.id, id: billId, body: { documentId, as } })
      .unwrap()
      .catch((e: unknown) => toast.error(sentenceOf(e)));
  const rows = currentData?.candidates ?? [];
  if (rows.length === 0) return null;
  return (
    <>
      <h3 className="mt-6 mb-1 text-[13px] font-semibold">Came lately, and nobody works on it</h3>
      <ul className="text-[13px]">
        {rows.map((d) => (
          <li key={d.id} className="flex items-center gap-3 border-t hair py-1">
            <span className="min-w-0 grow truncate" title={d.note ?? undefined}>
              {d.name}
            </span>
            <span className="shrink-0 quiet">{showDay(d.receivedAt.slice(0, 10))}</span>
            {own && (
              <button className="btn btn-xs btn-outline" disabled={isLoading} onClick={() => put(d.id, 'own')}>
                It is this bill’s
              </button>
            )}
            <button className="btn btn-xs" disabled={isLoading} onClick={() => put(d.id, 'further')}>
              Keep beside it
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
