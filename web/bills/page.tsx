import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { billColumns as columnIds, type BillRow, type BillsQuery } from '@ledgerline/contract';
import { useKeys } from '../app/keys/registry';
import { usePlace } from '../app/company';
import { SaveMenu } from '../imports/save-menu';
import { DataTable } from '../ui/data-table';
import { useRows } from '../ui/infinite';
import { SearchField } from '../ui/search';
import { Head } from '../ui/states';
import { billsApi } from './api';
import { AssignDialog } from '../desk/assign';
import { SetAsideDialog } from '../desk/set-aside';
import { useKept } from '../views/use-kept';
import { billColumns, usualColumns, type BillColumn } from './columns';
import { csvOf, download } from './export';
import { Preview } from './preview';
import { useTogether, type Together } from './together';
import { BillColumnsDialog, ViewBar } from './view-bar';
import { withFacet } from './facets';
import { NewBillDialog } from './new-bill';
import { PostDialog } from './post';

const facets: [string, string][] = [
  ['To review', 'stage:read,returned'],
  ['With approvers', 'stage:coded'],
  ['Ready to post', 'stage:approved'],
  ['Posted', 'stage:posted'],
  ['Mine', 'hands:me'],
  ['Late', 'due:late'],
  ['Due this week', 'due:this-week'],
  ['Set aside', 'stage:set-aside'],
  ['Credit notes', 'kind:credit'],
];

const besidePreview: BillColumn[] = ['stage', 'supplier', 'number', 'due', 'total'];

/** How the list was kept, whatever became of it meanwhile. */
function listFrom(kept: unknown): { columns: BillColumn[]; preview: boolean } {
  const given = (typeof kept === 'object' ? kept : null) as { columns?: unknown; preview?: unknown } | null;
  const columns = columnIds.filter((id) => Array.isArray(given?.columns) && given.columns.includes(id));
  return { columns: columns.length > 0 ? columns : usualColumns, preview: given?.preview === true };
}

export function BillsPage() {
  const { company, me, can } = usePlace();
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const q = params.get('q') ?? '',
    sort = (params.get('sort') ?? 'arrived') as NonNullable<BillsQuery['sort']>,
    order = (params.get('order') ?? 'desc') as 'asc' | 'desc';
  const list = useRows(billsApi.useBillsInfiniteQuery({ company: company.id, q, sort, order }), (page) => page.bills);
  const [marked, mark] = useState<ReadonlySet<string>>(new Set());
  const [posting, setPosting] = useState(false);
  const [making, make] = useState(false);
  const [asking, ask] = useState<'assign' | 'set-aside' | 'columns' | null>(null);
  const [inHand, hand] = useState<BillRow | null>(null);
  const [kept, keep] = useKept(me.id, 'bills', listFrom);
  // Beside the preview stands what tells bills apart; the rest is in it.
  const shownColumns = useMemo(
    () => billColumns.filter((c) => kept.columns.includes(c.id) && (!kept.preview || besidePreview.includes(c.id))),
    [kept.columns, kept.preview],
  );
  const together = useTogether();
  useKeys('Bills', [
    { key: 'V', what: 'Preview at the side', run: () => keep({ preview: !kept.preview }) },
    { key: 'Alt+C', what: 'Columns of the list', run: () => ask('columns') },
    { key: 'N', what: 'A bill by hand', when: () => can('bills:edit'), run: () => make(true) },
  ]);
  const set = useCallback(
    (change: Record<string, string>) =>
      setParams(
        (old) => {
          const next = new URLSearchParams(old);
          for (const [k, v] of Object.entries(change))
            if (v) next.set(k, v);
            else next.delete(k);
          return next;
        },
        { replace: true },
      ),
    [setParams],
  );
  const search = useCallback((typed: string) => set({ q: typed }), [set]);
  useEffect(() => mark(new Set()), [q, company.id]);
  const posts = can('bills:post');
  const approved = list.rows.filter((r) => r.stage === 'approved');
  const all = list.rows.filter((r) => marked.has(r.id));
  const chosen = all.filter((r) => r.stage === 'approved'),
    mine = all.filter((r) => ['read', 'returned'].includes(r.stage)),
    clean = mine.filter((r) => r.stops === 0);
  const toggle = (id: string) => {
    const next = new Set(marked);
    if (!next.delete(id)) next.add(id);
    mark(next);
  };
  const done = (what: Together, bills: BillRow[]) => {
    ask(null);
    mark(new Set());
    void together(what, bills);
  };
  return (
    <div className="flex h-full flex-col">
      <Head title="Bills">
        <SearchField label="Search bills" placeholder="supplier:quillhaven over:500 due:this-week" value={q} change={search} wide />
        <Link className="btn btn-sm btn-ghost" to="/bills/repeating">
          Repeating
        </Link>
        <Link className="btn btn-sm btn-ghost" to="/bills/alike" title="Rows without an account, coded alike over many bills">
          Code alike
        </Link>
        <Link className="btn btn-sm btn-ghost" to="/bills/rules">
          Rules
        </Link>
        <SaveMenu path="/bills/file" asked={{ q, sort, order }} what={q ? 'what is found' : 'all'} />
        {can('bills:edit') && (
          <button className="btn btn-sm" title="N" onClick={() => make(true)}>
            New bill
          </button>
        )}
        {posts && approved.length > 0 && (
          <button className="btn btn-primary btn-sm" disabled={chosen.length === 0} onClick={() => setPosting(true)}>
            Post {chosen.length || ''}
          </button>
        )}
      </Head>
      <div className="flex shrink-0 gap-1 overflow-x-auto border-b hair px-3 py-1.5 text-[13px] whitespace-nowrap">
        {facets.map(([label, words]) => (
          <button
            key={words}
            aria-pressed={q.includes(words)}
            className={`rounded px-2 py-0.5 ${q.includes(words) ? 'bg-primary text-primary-content' : 'hover:bg-base-200'}`}
            onClick={() => set({ q: withFacet(q, words) })}
          >
            {label}
          </button>
        ))}
        <span aria-hidden className="mx-1 border-l hair" />
        <ViewBar
          look={{ q, sort, order, columns: kept.columns }}
          show={(look) => {
            set({ q: look.q, sort: look.sort, order: look.order });
            keep({ columns: look.columns });
          }}
        />
        <span className="ml-auto flex gap-1">
          {approved.length > 1 && posts && (
            <button
              className="px-2 text-accent hover:underline"
              onClick={() => mark(chosen.length === approved.length ? new Set() : new Set(approved.map((r) => r.id)))}
            >
              {chosen.length === approved.length ? 'Clear' : `Mark all ${approved.length} ready`}
            </button>
          )}
          <button className="px-2 text-accent hover:underline" title="Alt+C" onClick={() => ask('columns')}>
            Columns
          </button>
          <button
            className="px-2 text-accent hover:underline"
            title="V"
            aria-pressed={kept.preview}
            onClick={() => keep({ preview: !kept.preview })}
          >
            Preview
          </button>
        </span>
      </div>
      {all.length > 0 && (
        <div
          role="toolbar"
          aria-label="Marked bills"
          className="flex shrink-0 items-center gap-2 border-b hair bg-base-200 px-4 py-1 text-[13px]"
        >
          <b>{all.length} marked</b>
          {mine.length > 0 && can('bills:edit') && (
            <>
              <button className="btn btn-xs" disabled={clean.length === 0} onClick={() => done({ do: 'send' }, clean)}>
                Send on {clean.length === mine.length ? clean.length : `${clean.length} clean of ${mine.length}`}
              </button>
              <button className="btn btn-xs" onClick={() => ask('assign')}>
                Into somebody’s hands …
              </button>
              <button className="btn btn-xs" onClick={() => ask('set-aside')}>
                Set aside …
              </button>
            </>
          )}
          <button className="btn btn-xs" onClick={() => download('bills.csv', csvOf(all), 'text/csv;charset=utf-8')}>
            Export as CSV
          </button>
          <button className="btn btn-xs btn-ghost ml-auto" onClick={() => mark(new Set())}>
            Clear
          </button>
        </div>
      )}
      <div className="flex min-h-0 grow">
        <DataTable<BillRow>
          label="Bills"
          remember={`bills ${company.id}`}
          {...list}
          columns={shownColumns}
          rowId={(row) => row.id}
          open={(row) => void navigate(`/bills/${row.id}`)}
          empty="No bill fits these words."
          sorted={{ by: sort, order, set: (by, to) => set({ sort: by, order: to }) }}
          onHand={hand}
          marking={{
            able: () => true,
            marked,
            toggle,
            what: (row) => `Mark ${row.invoiceNumber ?? 'the bill without a number'}`,
          }}
        />
        {kept.preview && <Preview row={inHand} />}
      </div>
      {asking === 'columns' && <BillColumnsDialog columns={kept.columns} change={(columns) => keep({ columns })} close={() => ask(null)} />}
      {asking === 'assign' && (
        <AssignDialog now={null} close={() => ask(null)} done={(personId) => done({ do: 'assign', personId }, mine)} />
      )}
      {asking === 'set-aside' && (
        <SetAsideDialog close={() => ask(null)} done={(note, until) => done({ do: 'set-aside', note, until }, mine)} />
      )}
      {making && <NewBillDialog close={() => make(false)} />}
      {posting && (
        <PostDialog
          company={company.id}
          base={company.baseCurrency}
          bills={chosen}
          close={() => setPosting(false)}
          done={(n) => {
            setPosting(false);
            mark(new Set());
            toast.success(`${n} ${n === 1 ? 'bill' : 'bills'} posted`);
          }}
        />
      )}
    </div>
  );
}
