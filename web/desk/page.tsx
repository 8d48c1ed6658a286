import { ArrowLeft, TriangleAlert } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { prove, type Repair } from '@ledgerline/core/proof';
import type { BillLine, Mark } from '@ledgerline/contract';
import { api, sentenceOf } from '../app/api';
import { channelWord } from '../arrivals/channel';
import { usePlace } from '../app/company';
import { AskNote } from '../ui/dialog';
import { StageLine } from '../ui/stage';
import type { ShownPage } from '../ui/page-view';
import { Empty, Trouble, Waiting } from '../ui/states';
import { useDraft } from './draft';
import { History } from './history';
import { HeaderFields } from './header';
import { LineGrid } from './lines';
import { fillFrom, marksOf, typedOver, wantsDigits } from './marks';
import { NewSupplierDialog } from './new-supplier';
import { wordsIn } from './place';
import { Sheet } from './sheet';
import { PutRight } from './put-right';
import { ProofStrip } from './strip';

const emptyLine = (): BillLine => ({
  id: crypto.randomUUID(),
  kind: 'line',
  code: null,
  description: '',
  quantity: null,
  unit: null,
  unitPrice: null,
  priceQuantity: '1',
  discountPercent: null,
  taxRate: null,
  amount: null,
  accountId: null,
  costCentreId: null,
  taxCodeId: null,
  marks: {},
});
const focusField = (path: string) => document.querySelector<HTMLElement>(`[data-field="${CSS.escape(path)}"] :is(input, select)`)?.focus();

/** The desk: the page on the left, the bill on the right, the proof at the foot. */
export function DeskPage() {
  const { id = '' } = useParams();
  const { company, can } = usePlace();
  const navigate = useNavigate();
  const { data: loaded, error } = api.useBillQuery({ company: company.id, id });
  const { data: choices } = api.useChoicesQuery({ company: company.id });
  const { data: pages } = api.usePagesQuery({ company: company.id, id: loaded?.documentId ?? '' }, { skip: !loaded?.documentId });
  const { data: queue } = api.useNextBillQuery({ company: company.id, after: id });
  const { draft, state, setHeader, setLines, flush } = useDraft(company.id, loaded);
  const [move] = api.useMoveBillMutation();
  const [readSpot] = api.useReadSpotMutation();
  const [active, setActive] = useState<string | null>(null);
  const [asking, ask] = useState<'set-aside' | 'discard' | null>(null);
  const [newName, setNewName] = useState<string | null>(null);
  const acting = useRef(false);
  const bill = draft?.id === id ? draft : null;
  const locked = !bill || !can('bills:edit') || !['read', 'returned'].includes(bill.stage);
  const marks = useMemo(() => (bill ? marksOf(bill) : []), [bill]);
  const proof = useMemo(() => (bill ? prove(bill) : null), [bill]);

  const setLine = (index: number, change: Partial<BillLine>, field: string) =>
    setLines((lines) => lines.map((l, i) => (i === index ? { ...l, ...typedOver(l, change) } : l)), `lines[${index}].${field}`);
  const go = useCallback(
    (to: string | null | undefined) => void navigate(to ? `/bills/${to}` : '/bills?q=stage:read,returned'),
    [navigate],
  );
  const act = async (what: 'send' | 'set-aside' | 'discard' | 'restore' | 'take-back', note?: string) => {
    if (!bill || acting.current) return;
    acting.current = true;
    (document.activeElement as HTMLElement | null)?.blur();
    try {
      // What was on the desk when it was asked for is what moves, whatever is typed meanwhile.
      const now = await flush();
      if (!now) return;
      const done = await move({ company: company.id, id, move: what, rowVersion: now.rowVersion, ...(note ? { note } : {}) }).unwrap();
      if (what === 'send' || what === 'set-aside' || what === 'discard') {
        const undo = what === 'send' ? 'take-back' : 'restore';
        toast(
          `${bill.invoiceNumber ?? 'The bill'} ${{ send: 'went to approval', 'set-aside': 'is set aside', discard: 'is discarded' }[what]}`,
          {
            action: {
              label: 'Undo',
              onClick: () =>
                void move({ company: company.id, id, move: undo, rowVersion: done.rowVersion })
                  .unwrap()
                  .then(
                    () => go(id),
                    (e) => toast.error(sentenceOf(e)),
                  ),
            },
          },
        );
        go(queue?.id === id ? null : queue?.id);
      }
    } catch (e) {
      toast.error(sentenceOf(e));
      const path = (e as { data?: { errors?: { path: string }[] } }).data?.errors?.[0]?.path;
      if (path && document.activeElement === document.body) focusField(path);
    } finally {
      acting.current = false;
    }
  };
  const repair = (r: Repair) => {
    if (r.target === 'line' && r.index !== null) setLine(r.index, { [r.field]: r.value }, r.field);
    else if (r.target === 'header') setHeader({ [r.field]: r.value });
    else
      setLines((lines) => [
        ...lines,
        {
          ...emptyLine(),
          kind: 'charge',
          description: r.sentence.includes('rounding') ? 'Rounding difference' : 'Charge',
          amount: r.value,
          accountId: lines[0]?.accountId ?? null,
          costCentreId: lines[0]?.costCentreId ?? null,
          taxCodeId: lines[0]?.taxCodeId ?? null,
        },
      ]);
  };
  const nextDoubt = () => {
    if (!bill) return;
    const paths = [...bill.exceptions.filter((e) => e.blocking).map((e) => e.path), ...bill.unsure].filter(
      (p) => p !== 'proof' && p !== 'lines',
    );
    const next = paths[(paths.indexOf(active ?? '') + 1) % Math.max(1, paths.length)];
    if (next) focusField(next);
  };
  const word = (text: string, mark: Mark, spot = false) => {
    if (!bill || locked || !active) return;
    const fill = fillFrom(bill, active, text, mark, spot);
    if (!fill) {
      toast(`“${text}” does not fit this field`);
      return;
    }
    (document.activeElement as HTMLElement | null)?.blur();
    if (fill.header) setHeader(fill.header);
    if (fill.line) setLine(fill.line.index, fill.line.change, fill.line.field);
  };
  /** What stands in a drawn box goes into the field in hand: ink is read anew, text is taken as it is. */
  const box = async (page: ShownPage, mark: Mark) => {
    if (!bill?.documentId || locked) return;
    if (!active) return void toast('Choose the field first, then draw the box');
    try {
      const text = page.scan
        ? (await readSpot({ company: company.id, id: bill.documentId, body: { ...mark, digits: wantsDigits(active) } }).unwrap()).text
        : wordsIn(page, mark);
      const seen = text || wordsIn(page, mark);
      if (seen) word(seen, mark, true);
      else toast('Nothing could be read in that box');
    } catch (e) {
      toast.error(sentenceOf(e));
    }
  };
  useEffect(() => {
    const listen = (e: KeyboardEvent) => {
      if (document.querySelector('dialog[open]')) return;
      const row = Number(/^lines\[(\d+)\]/.exec(active ?? '')?.[1] ?? -1);
      if (e.key === 'Enter' && e.ctrlKey && !locked) {
        e.preventDefault();
        void act('send');
      } else if (e.key === 'Enter' && !e.ctrlKey && (e.target as HTMLElement).closest('[data-field]')) {
        const all = [...document.querySelectorAll<HTMLElement>('[data-field] :is(input, select)')];
        all[all.indexOf(e.target as HTMLElement) + 1]?.focus();
      } else if (e.altKey && e.key === 'ArrowDown') {
        e.preventDefault();
        nextDoubt();
      } else if (e.altKey && e.key.toLowerCase() === 's' && !locked) {
        e.preventDefault();
        ask('set-aside');
      } else if (e.altKey && e.key.toLowerCase() === 'n' && !locked) {
        e.preventDefault();
        setLines((lines) => [...lines, emptyLine()]);
      } else if (e.altKey && e.key === 'Delete' && row >= 0 && !locked) {
        e.preventDefault();
        setLines((lines) => lines.filter((_, i) => i !== row));
      } else if (e.ctrlKey && e.key.toLowerCase() === 'd' && row >= 0 && !locked) {
        e.preventDefault();
        setLines((lines) =>
          lines.map((l, i) =>
            i > row
              ? { ...l, accountId: lines[row]!.accountId, costCentreId: lines[row]!.costCentreId, taxCodeId: lines[row]!.taxCodeId }
              : l,
          ),
        );
      } else if (e.key === 'Escape' && !(e.target instanceof HTMLInputElement)) void flush().then(() => navigate(-1));
      else if (e.key === 'Escape') (e.target as HTMLElement).blur();
    };
    addEventListener('keydown', listen);
    return () => removeEventListener('keydown', listen);
  });
  useEffect(() => {
    setActive(null);
  }, [id]);
  const first = bill && !locked ? (bill.exceptions.find((e) => e.blocking)?.path ?? bill.unsure[0] ?? null) : null;
  useEffect(() => {
    if (first && pages && choices && document.activeElement === document.body) focusField(first);
  }, [id, Boolean(pages), Boolean(choices)]); // eslint-disable-line react-hooks/exhaustive-deps -- once a bill

  if (error) return <Trouble sentence={sentenceOf(error)} />;
  if (!bill || !choices || !proof) return <Waiting />;
  const open = bill.exceptions.filter((e) => e.code !== 'unsure' && e.code !== 'proof-off');
  const told = [
    !locked && queue ? `${queue.left} to review` : '',
    bill.arrival ? channelWord(bill.arrival.channel) : '',
    bill.entry ? `entry ${bill.entry.number}` : '',
  ]
    .filter((part) => part !== '')
    .join(' · ');
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-[56px] shrink-0 items-center gap-3 border-b hair px-4">
        <button
          className="btn btn-ghost btn-sm btn-square"
          aria-label="Back"
          title="Esc"
          onClick={() => void flush().then(() => navigate(-1))}
        >
          <ArrowLeft size={16} />
        </button>
        <div className="min-w-0">
          <h1 className="truncate font-semibold leading-5">
            {choices.suppliers.find((s) => s.id === bill.supplierId)?.name ?? bill.supplierName ?? 'Unknown supplier'}
          </h1>
          <p className="truncate text-[12px] quiet">
            {told}
            {told && state.word ? ' · ' : ''}
            <span className={state.bad ? 'text-error' : ''} role="status" aria-label="Saving">
              {state.word}
            </span>
          </p>
        </div>
        <div className="mx-auto">
          <StageLine stage={bill.stage} events={bill.events} />
        </div>
        {!locked && (
          <>
            <button className="btn btn-sm" title="Alt+S" onClick={() => ask('set-aside')}>
              Set aside
            </button>
            <button className="btn btn-primary btn-sm" title="Ctrl+Enter" onClick={() => void act('send')}>
              Done, next <kbd className="key">Ctrl ⏎</kbd>
            </button>
          </>
        )}
        {locked && can('bills:edit') && bill.stage === 'coded' && (
          <button className="btn btn-sm" onClick={() => void act('take-back')}>
            Take back
          </button>
        )}
        {locked && can('bills:edit') && ['set-aside', 'discarded'].includes(bill.stage) && (
          <>
            <button className="btn btn-sm" onClick={() => void act('restore')}>
              Take up again
            </button>
            {bill.stage === 'set-aside' && (
              <button className="btn btn-sm" onClick={() => ask('discard')}>
                Discard
              </button>
            )}
          </>
        )}
      </header>
      <div className="flex min-h-0 grow">
        <section aria-label="Page" className="w-[34%] shrink-0 border-r hair">
          {bill.documentId && pages ? (
            <Sheet
              base={`/api/companies/${company.id}/documents/${bill.documentId}`}
              pages={pages.pages}
              marks={marks}
              active={active}
              onMark={(path) => {
                setActive(path);
                focusField(path);
              }}
              onWord={word}
              onBox={(page, mark) => void box(page, mark)}
            />
          ) : (
            <Empty>{bill.documentId ? 'The page is being loaded.' : 'This bill has no document.'}</Empty>
          )}
        </section>
        <section aria-label="Bill" className="min-w-0 grow overflow-auto">
          {bill.stage === 'returned' && bill.note && (
            <p className="border-l-4 border-error bg-error/10 px-5 py-2">
              <b>Returned:</b> {bill.note}
            </p>
          )}
          {open.length > 0 && (
            <ul aria-label="Exceptions" className="max-h-[104px] overflow-auto border-b hair bg-warning/10 px-5 py-1.5 text-[14px]">
              {open.map((e) => (
                <li key={e.code + e.path} className="flex items-center gap-2">
                  <TriangleAlert size={14} className="shrink-0 text-error" aria-hidden />
                  <button className="text-left hover:underline" onClick={() => focusField(e.path)}>
                    {e.sentence}
                  </button>
                  {!locked && e.choices && (
                    <span className="ml-auto flex shrink-0 gap-1">
                      {e.choices.map((c) => (
                        <button key={c.label} className="btn btn-xs btn-outline" onClick={() => setHeader({ [e.path]: c.value })}>
                          {c.label}
                        </button>
                      ))}
                    </span>
                  )}
                  {e.code === 'supplier-missing' && (
                    <button className="btn btn-xs btn-outline ml-auto" onClick={() => setNewName(bill.supplierName ?? '')}>
                      New supplier
                    </button>
                  )}
                </li>
              ))}
            </ul>
          )}
          <HeaderFields bill={bill} choices={choices} locked={locked} set={setHeader} focus={setActive} newSupplier={setNewName} />
          <LineGrid
            bill={bill}
            choices={choices}
            locked={locked}
            rows={proof.rows}
            setLine={setLine}
            remove={(i) => setLines((lines) => lines.filter((_, k) => k !== i))}
            add={() => setLines((lines) => [...lines, emptyLine()])}
            focus={setActive}
          />
          <PutRight bill={bill} />
          {bill.lines.find((l) => l.marks['coding']) && (
            <p className="px-5 py-2 text-[13px] text-accent">
              Coding:{' '}
              {[...new Set(bill.lines.flatMap((l) => (l.marks['coding']?.proof ? [l.marks['coding'].proof] : [])))].slice(0, 3).join(' · ')}
            </p>
          )}
          <History bill={bill} />
        </section>
      </div>
      <ProofStrip bill={bill} proof={proof} locked={locked} repair={repair} />
      {asking && (
        <AskNote
          title={asking === 'discard' ? 'Discard this bill' : 'Set this bill aside'}
          action={asking === 'discard' ? 'Discard' : 'Set aside'}
          close={() => ask(null)}
          done={(note) => {
            const what = asking;
            ask(null);
            void act(what, note);
          }}
        />
      )}
      {newName !== null && (
        <NewSupplierDialog
          company={company.id}
          name={newName}
          bill={bill}
          close={() => setNewName(null)}
          done={(supplierId) => {
            setNewName(null);
            setHeader({ supplierId });
          }}
        />
      )}
    </div>
  );
}
