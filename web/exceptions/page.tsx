import { CircleAlert, CircleHelp } from 'lucide-react';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { OpenException } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { DataTable, type Column } from '../ui/data-table';
import { AskNote } from '../ui/dialog';
import { money, showDay } from '../ui/format';
import { useRows } from '../ui/infinite';
import { SearchField } from '../ui/search';
import { Head } from '../ui/states';
import { exceptionsApi } from './api';
import { Causes } from './causes';

const columns: Column<OpenException>[] = [
  {
    id: 'severity',
    head: '',
    width: 24,
    cell: (e) =>
      e.severity === 'stops' ? (
        <CircleAlert size={14} className="text-error" aria-label="Stops the bill" />
      ) : (
        <CircleHelp size={14} className="text-accent" aria-label="Asks" />
      ),
  },
  { id: 'sentence', head: 'What is in doubt', cell: (e) => <span title={e.sentence}>{e.sentence}</span> },
  { id: 'supplier', head: 'Supplier', width: 124, minor: true, sort: 'supplier', ascending: true, cell: (e) => e.supplier },
  { id: 'number', head: 'Bill', width: 98, cell: (e) => e.invoiceNumber ?? <span className="quiet">no number</span> },
  {
    id: 'gross',
    head: 'At stake',
    sort: 'stake',
    width: 108,
    num: true,
    cell: (e) => (e.gross === null ? '' : `${e.currency} ${money(e.gross, e.currency)}`),
  },
  { id: 'owner', head: 'In hands of', width: 92, minor: true, sort: 'owner', ascending: true, cell: (e) => e.owner },
  { id: 'age', head: 'Since', width: 92, minor: true, sort: 'age', ascending: true, cell: (e) => showDay(e.openedAt.slice(0, 10)) },
];
const value = (e: OpenException, text: string | null) => (
  <span className="text-[13px]" title={e.sentence}>
    {text}
  </span>
);
/** Of one cause, whose name says what is in doubt: what each bill says, and what was expected. */
const compared: Column<OpenException>[] = [
  columns[0]!,
  { id: 'found', head: 'Found', cell: (e) => value(e, e.found ?? e.sentence) },
  { id: 'expected', head: 'Expected', cell: (e) => value(e, e.expected) },
  ...columns.slice(2).filter((c) => c.id !== 'owner'),
];
const none: ReadonlySet<string> = new Set();

/** What is in doubt on all bills under review: by cause, and the same doubt settled on many in one go. */
export function ExceptionsPage() {
  const { company, me, can } = usePlace();
  const navigate = useNavigate();
  const [asked, ask] = useSearchParams();
  const code = asked.get('cause');
  const [q, setQ] = useState('');
  const [owner, of] = useState('');
  const [{ by, order }, sort] = useState<{ by: string; order: 'asc' | 'desc' }>({ by: 'age', order: 'asc' });
  const [marked, mark] = useState<ReadonlySet<string>>(none);
  const [overruling, overrule] = useState(false);
  const { currentData: causes } = exceptionsApi.useCausesQuery({ company: company.id });
  const rows = useRows(
    exceptionsApi.useOpenExceptionsInfiniteQuery({
      company: company.id,
      ...(code ? { code } : {}),
      ...(q ? { q } : {}),
      ...(owner ? { owner } : {}),
      sort: by,
      order,
    }),
    (p) => p.exceptions,
  );
  const [settle, { isLoading }] = exceptionsApi.useSettleManyMutation();
  const comparing = code !== null && rows.rows.some((r) => r.found !== null);
  const chosen = rows.rows.filter((r) => marked.has(r.id));
  const how = code ? (rows.rows[0]?.settles ?? null) : null;
  const may = how === 'confirm' ? can('bills:edit') : how === 'overrule';
  const done = (reason?: string) =>
    void settle({
      company: company.id,
      body: { code: code!, how: how!, ...(reason ? { reason } : {}), exceptions: chosen.map((c) => c.id).slice(0, 200) },
    })
      .unwrap()
      .then(({ settled, left }) => {
        mark(none);
        toast(`${settled} settled${left > 0 ? `; ${left} had ended meanwhile` : ''}`);
      })
      .catch((error: unknown) => toast.error(sentenceOf(error)));
  const choose = (next: string | null) => {
    mark(none);
    ask(next ? { cause: next } : {});
  };
  return (
    <div className="flex h-full flex-col">
      <Head title="Exceptions" detail="What is in doubt on bills under review, or holds a payment, by cause">
        {chosen.length > 0 && may && (
          <button className="btn btn-primary btn-sm" disabled={isLoading} onClick={() => (how === 'confirm' ? done() : overrule(true))}>
            {how === 'confirm' ? `It is right on ${chosen.length}` : `Overrule ${chosen.length}`}
          </button>
        )}
        <select aria-label="In whose hands" className="select select-sm w-40" value={owner} onChange={(e) => of(e.target.value)}>
          <option value="">in all hands</option>
          <option value="me">in my hands</option>
          <option value="nobody">in nobody’s hands</option>
          {causes?.owners
            .filter((o) => o.id !== me.id)
            .map((o) => (
              <option key={o.id} value={o.id}>
                {o.name} ({o.open})
              </option>
            ))}
        </select>
        <SearchField label="Search exceptions" placeholder="Supplier, number or words" value={q} change={setQ} />
      </Head>
      <div className="flex min-h-0 grow max-md:flex-col">
        {causes && <Causes of={causes} chosen={code} choose={choose} />}
        <div className="flex min-h-0 min-w-0 grow flex-col">
          <DataTable<OpenException>
            label="Exceptions"
            remember={`Exceptions ${company.id}`}
            {...rows}
            columns={comparing ? compared : columns}
            sorted={{ by, order, set: (next, to) => sort({ by: next, order: to }) }}
            rowId={(e) => e.id}
            open={(e) => void navigate(`/bills/${e.billId}`)}
            {...(may
              ? {
                  marking: {
                    able: (e: OpenException) => e.stage !== 'set-aside',
                    marked,
                    toggle: (id: string) => mark(new Set(marked.has(id) ? [...marked].filter((m) => m !== id) : [...marked, id])),
                    what: (e: OpenException) => `Mark ${e.invoiceNumber ?? 'a bill without a number'}`,
                  },
                }
              : {})}
            empty="Nothing is in doubt."
          />
        </div>
      </div>
      {overruling && (
        <AskNote
          title={`Overrule this on ${chosen.length} ${chosen.length === 1 ? 'bill' : 'bills'}`}
          action="Overrule"
          label="Reason"
          close={() => overrule(false)}
          done={(reason) => {
            overrule(false);
            done(reason);
          }}
        />
      )}
    </div>
  );
}
