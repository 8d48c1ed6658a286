import { useCallback, useEffect, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { BillRow, BillsQuery } from '@ledgerline/contract';
import { useKeys } from '../app/keys/registry';
import { usePlace } from '../app/company';
import { DataTable } from '../ui/data-table';
import { useRows } from '../ui/infinite';
import { SearchField } from '../ui/search';
import { Head } from '../ui/states';
import { billsApi } from './api';
import { billColumns } from './columns';
import { withFacet } from './facets';
import { NewBillDialog } from './new-bill';
import { PostDialog } from './post';

const facets: [string, string][] = [
  ['To review', 'stage:read,returned'],
  ['With approvers', 'stage:coded'],
  ['Ready to post', 'stage:approved'],
  ['Posted', 'stage:posted'],
  ['Late', 'due:late'],
  ['Due this week', 'due:this-week'],
  ['Set aside', 'stage:set-aside'],
  ['Credit notes', 'kind:credit'],
];

export function BillsPage() {
  const { company, can } = usePlace();
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const q = params.get('q') ?? '',
    sort = (params.get('sort') ?? 'arrived') as NonNullable<BillsQuery['sort']>,
    order = (params.get('order') ?? 'desc') as 'asc' | 'desc';
  const list = useRows(billsApi.useBillsInfiniteQuery({ company: company.id, q, sort, order }), (page) => page.bills);
  const [marked, mark] = useState<ReadonlySet<string>>(new Set());
  const [posting, setPosting] = useState(false);
  const [making, make] = useState(false);
  useKeys('Bills', [{ key: 'N', what: 'A bill by hand', when: () => can('bills:edit'), run: () => make(true) }]);
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
  const chosen = approved.filter((r) => marked.has(r.id));
  const toggle = (id: string) => {
    const next = new Set(marked);
    if (!next.delete(id)) next.add(id);
    mark(next);
  };
  return (
    <div className="flex h-full flex-col">
      <Head title="Bills">
        <SearchField label="Search bills" placeholder="supplier:quillhaven over:500 due:this-week" value={q} change={search} wide />
        <Link className="btn btn-sm btn-ghost" to="/bills/repeating">
          Repeating
        </Link>
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
        {approved.length > 1 && posts && (
          <button
            className="ml-auto text-accent hover:underline"
            onClick={() => mark(chosen.length === approved.length ? new Set() : new Set(approved.map((r) => r.id)))}
          >
            {chosen.length === approved.length ? 'Clear' : `Mark all ${approved.length} ready`}
          </button>
        )}
      </div>
      <DataTable<BillRow>
        label="Bills"
        remember={`bills ${company.id}`}
        {...list}
        columns={billColumns}
        rowId={(row) => row.id}
        open={(row) => void navigate(`/bills/${row.id}`)}
        empty="No bill fits these words."
        sorted={{ by: sort, order, set: (by, to) => set({ sort: by, order: to }) }}
        {...(posts
          ? {
              marking: {
                able: (row) => row.stage === 'approved',
                marked,
                toggle,
                what: (row) => `Mark ${row.invoiceNumber} for posting`,
              },
            }
          : {})}
      />
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
