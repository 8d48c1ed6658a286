import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, Search } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { BillList, BillRow, BillsQuery } from '@ledgerline/contract';
import { api, sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { money, showDay, showTime } from '../ui/format';
import { StageWord } from '../ui/stage';
import { Empty, Head, Trouble, Waiting } from '../ui/states';
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
const sorts: [NonNullable<BillsQuery['sort']>, string, string, boolean][] = [
  ['dated', 'Dated', 'w-28', false],
  ['due', 'Due', 'w-28', false],
  ['total', 'Total', 'w-36', true],
  ['arrived', 'Arrived', 'w-32', true],
];

/** All pages of the list that were asked for so far, one after another. */
function usePages(company: string, query: BillsQuery): { rows: BillRow[]; more: boolean; loading: boolean; error: unknown; load(): void } {
  const [fetchPage] = api.useLazyBillsQuery();
  const first = api.useBillsQuery({ company, ...query });
  const key = JSON.stringify([company, query]);
  const [rest, setRest] = useState<{ key: string; head: BillList | undefined; pages: BillList[] }>({ key, head: undefined, pages: [] });
  const pages = useMemo(() => (rest.key === key && rest.head === first.data ? rest.pages : []), [rest, key, first.data]);
  const last = pages[pages.length - 1] ?? first.data;
  const busy = useRef(false);
  return {
    rows: useMemo(() => [...(first.data?.bills ?? []), ...pages.flatMap((p) => p.bills)], [first.data, pages]),
    more: Boolean(last?.next),
    loading: first.isLoading,
    error: first.error,
    load() {
      if (busy.current || !last?.next) return;
      busy.current = true;
      void fetchPage({ company, ...query, cursor: last.next })
        .unwrap()
        .then(
          (page) => setRest({ key, head: first.data, pages: [...pages, page] }),
          () => undefined,
        )
        .finally(() => {
          busy.current = false;
        });
    },
  };
}

export function BillsPage() {
  const { company, can } = usePlace();
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const q = params.get('q') ?? '',
    sort = (params.get('sort') ?? 'arrived') as NonNullable<BillsQuery['sort']>,
    order = (params.get('order') ?? 'desc') as 'asc' | 'desc';
  const [typed, setTyped] = useState(q);
  const list = usePages(company.id, { q, sort, order });
  const [at, setAt] = useState(() => Number(sessionStorage.getItem('bill-row') ?? 0));
  const [picked, setPicked] = useState<Set<string>>(new Set());
  const [posting, setPosting] = useState(false);
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: list.rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 32,
    overscan: 12,
  });
  const set = (change: Record<string, string>) =>
    setParams(
      (old) => {
        const next = new URLSearchParams(old);
        for (const [k, v] of Object.entries(change))
          if (v) next.set(k, v);
          else next.delete(k);
        return next;
      },
      { replace: true },
    );
  useEffect(() => setTyped(q), [q]);
  useEffect(() => {
    const timer = setTimeout(() => {
      if (typed !== q) set({ q: typed });
    }, 250);
    return () => clearTimeout(timer);
  }); // waits for the typing to pause
  useEffect(() => setPicked(new Set()), [q, company.id]);
  const items = virtual.getVirtualItems();
  useEffect(() => {
    if (list.more && (items[items.length - 1]?.index ?? 0) > list.rows.length - 30) list.load();
  });
  const open = (row: BillRow | undefined) => {
    if (row) {
      sessionStorage.setItem('bill-row', String(list.rows.indexOf(row)));
      void navigate(`/bills/${row.id}`);
    }
  };
  const toggle = (id: string) =>
    setPicked((old) => {
      const next = new Set(old);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const approved = list.rows.filter((r) => r.stage === 'approved');
  const chosen = approved.filter((r) => picked.has(r.id));
  useEffect(() => {
    const listen = (e: KeyboardEvent) => {
      if (
        (/INPUT|SELECT|BUTTON/.test((e.target as HTMLElement).tagName) && !(e.target as HTMLElement).matches('[type=checkbox]')) ||
        document.querySelector('dialog[open]')
      )
        return;
      const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15 }[e.key];
      if (step) {
        e.preventDefault();
        const next = Math.max(0, Math.min(list.rows.length - 1, at + step));
        setAt(next);
        virtual.scrollToIndex(next);
      } else if (e.key === 'Enter') open(list.rows[at]);
      else if (e.key === ' ' && list.rows[at]?.stage === 'approved') {
        e.preventDefault();
        toggle(list.rows[at].id);
      }
    };
    addEventListener('keydown', listen);
    return () => removeEventListener('keydown', listen);
  });
  return (
    <div className="flex h-full flex-col">
      <Head title="Bills">
        <label className="flex w-[420px] items-center gap-2 border-b-2 border-base-300 focus-within:border-primary">
          <Search size={15} aria-hidden />
          <input
            type="search"
            aria-label="Search bills"
            placeholder="supplier:quillhaven over:500 due:this-week"
            className="h-9 grow bg-transparent outline-none"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Enter' || e.key === 'ArrowDown') e.currentTarget.blur();
            }}
          />
        </label>
        {can('bills:post') && approved.length > 0 && (
          <button className="btn btn-primary btn-sm" disabled={chosen.length === 0} onClick={() => setPosting(true)}>
            Post {chosen.length || ''}
          </button>
        )}
      </Head>
      <div className="flex gap-1 border-b hair px-5 py-1.5 text-[13px]">
        {facets.map(([label, words]) => {
          const on = q.includes(words);
          return (
            <button
              key={words}
              aria-pressed={on}
              className={`rounded px-2 py-0.5 ${on ? 'bg-primary text-primary-content' : 'hover:bg-base-200'}`}
              onClick={() => {
                set({
                  q: on
                    ? q.replace(words, '').trim()
                    : words.startsWith('stage:')
                      ? [q.replace(/stage:\S+/, '').trim(), words].filter(Boolean).join(' ')
                      : `${q} ${words}`.trim(),
                });
                setAt(0);
              }}
            >
              {label}
            </button>
          );
        })}
        {approved.length > 1 && can('bills:post') && (
          <button
            className="ml-auto text-accent hover:underline"
            onClick={() => setPicked(chosen.length === approved.length ? new Set() : new Set(approved.map((r) => r.id)))}
          >
            {chosen.length === approved.length ? 'Clear' : `Mark all ${approved.length} ready`}
          </button>
        )}
      </div>
      <div className="flex h-7 shrink-0 items-center bg-base-200 px-6 text-[13px]">
        <span className="w-7" />
        <span className="w-32">Stage</span>
        <span className="min-w-0 grow">Supplier</span>
        <span className="w-36">Number</span>
        {sorts.map(([key, label, width, num]) => (
          <button
            key={key}
            className={`${width} flex items-center gap-1 ${num ? 'justify-end' : ''} ${sort === key ? 'font-semibold' : ''}`}
            onClick={() => set({ sort: key, order: sort === key && order === 'desc' ? 'asc' : 'desc' })}
          >
            {label}
            {sort === key &&
              (order === 'desc' ? <ArrowDown size={12} aria-label="descending" /> : <ArrowUp size={12} aria-label="ascending" />)}
          </button>
        ))}
      </div>
      <div ref={scroller} className="min-h-0 grow overflow-auto" tabIndex={0}>
        {list.error ? (
          <Trouble sentence={sentenceOf(list.error)} />
        ) : list.loading ? (
          <Waiting />
        ) : list.rows.length === 0 ? (
          <Empty>No bill fits these words.</Empty>
        ) : (
          <div role="grid" aria-label="Bills" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
            {items.map((item) => {
              const row = list.rows[item.index]!;
              return (
                <div
                  key={row.id}
                  role="row"
                  aria-selected={item.index === at}
                  className={`absolute flex h-8 w-full cursor-pointer items-center border-t hair px-6 ${item.index === at ? 'bg-primary/10' : 'hover:bg-base-200'}`}
                  style={{ top: item.start }}
                  onClick={() => {
                    setAt(item.index);
                    open(row);
                  }}
                >
                  <span role="gridcell" className="flex w-7 items-center" onClick={(e) => e.stopPropagation()}>
                    {row.stage === 'approved' && can('bills:post') && (
                      <input
                        type="checkbox"
                        className="checkbox checkbox-xs"
                        aria-label={`Mark ${row.invoiceNumber} for posting`}
                        checked={picked.has(row.id)}
                        onChange={() => toggle(row.id)}
                      />
                    )}
                  </span>
                  <span role="gridcell" className="w-32 text-[13px]">
                    <StageWord stage={row.stage} />
                  </span>
                  <span role="gridcell" className="min-w-0 grow truncate pr-3">
                    {row.supplier ?? 'Unknown supplier'}
                    {row.kind === 'credit-note' && <span className="ml-2 text-[12px] text-accent">credit note</span>}
                    {row.unsure > 0 && row.stage === 'read' && <span className="ml-2 text-[12px] quiet">{row.unsure} to look at</span>}
                  </span>
                  <span role="gridcell" className="w-36 truncate">
                    {row.invoiceNumber}
                  </span>
                  <span role="gridcell" className="w-28">
                    {showDay(row.issueDate)}
                  </span>
                  <span role="gridcell" className="w-28">
                    {showDay(row.dueDate)}
                  </span>
                  <span role="gridcell" className="w-36 text-right">
                    <span className="mr-1 text-[12px] quiet">{row.currency}</span>
                    {row.kind === 'credit-note' ? '−' : ''}
                    {money(row.gross, row.currency)}
                  </span>
                  <span role="gridcell" className="w-32 text-right text-[13px] quiet">
                    {showTime(row.arrivedAt)}
                  </span>
                </div>
              );
            })}
          </div>
        )}
      </div>
      {posting && (
        <PostDialog
          company={company.id}
          base={company.baseCurrency}
          bills={chosen}
          close={() => setPosting(false)}
          done={(n) => {
            setPosting(false);
            setPicked(new Set());
            toast.success(`${n} ${n === 1 ? 'bill' : 'bills'} posted`);
          }}
        />
      )}
    </div>
  );
}
