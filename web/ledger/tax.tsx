import { useMemo, type ReactNode } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { endOfMonth } from '@ledgerline/core/dates';
import { dec, sum } from '@ledgerline/core/money';
import type { TaxLines, TaxSummary } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { SaveMenu } from '../imports/save-menu';
import { DataTable, type Column } from '../ui/data-table';
import { money, showDay, todayIso } from '../ui/format';
import { useRows } from '../ui/infinite';
import { Head, Trouble, Waiting } from '../ui/states';
import { DateField } from '../ui/typed';
import { ledgerApi } from './api';
import { spansAt, type Span } from './spans';

type Row = TaxSummary['rows'][number];
type Line = TaxLines['lines'][number];
const amounts = ['net', 'tax', 'reclaimed', 'borne', 'owed', 'withheld'] as const;
type Amount = (typeof amounts)[number];
const heads: Record<Amount, [string, string]> = {
  net: ['Net', 'Without tax'],
  tax: ['Tax', 'Charged by the supplier, or owed by us'],
  reclaimed: ['Reclaimed', 'Of the tax: what is reclaimed'],
  borne: ['With the cost', 'Of the tax: what cannot be reclaimed'],
  owed: ['Owed by us', 'Reverse charge, import and use tax'],
  withheld: ['Withheld', 'Held back from the supplier'],
};
/** Those that anything stands in; net, tax and what is reclaimed always. */
const amountsIn = (rows: readonly Row[]): Amount[] => amounts.filter((a, i) => i < 3 || rows.some((r) => !dec(r[a]).isZero()));
const added = (rows: readonly Row[], a: Amount): string => sum(rows.map((r) => dec(r[a]))).toFixed();

/** What was posted by tax code and month, and what stands behind each figure. */
export function TaxPage() {
  const { company } = usePlace();
  const [params, setParams] = useSearchParams();
  const spans = useMemo(() => spansAt(todayIso()), []);
  const span: Span = { from: params.get('from') ?? spans[2]![1].from, to: params.get('to') ?? spans[2]![1].to };
  const taxCodeId = params.get('code'),
    month = params.get('month');
  const { currentData: data, error } = ledgerApi.useTaxSummaryQuery({ company: company.id, ...span });
  const show = (next: Span) => setParams({ ...next });
  const chosen = data?.rows.find((r) => r.taxCodeId === taxCodeId);
  return (
    <div className="flex h-full flex-col">
      <Head title="Tax summary" detail={`What was posted by tax code, in ${company.baseCurrency}`}>
        <div className="flex items-center gap-1 text-[14px]">
          <span className="quiet">from</span>
          <span className="w-28">
            <DateField label="From" value={span.from} onSave={(from) => from && show({ ...span, from })} />
          </span>
          <span className="quiet">to</span>
          <span className="w-28">
            <DateField label="To" value={span.to} onSave={(to) => to && show({ ...span, to })} />
          </span>
        </div>
        <SaveMenu path="/tax-summary/file" asked={{ ...span }} what="its entries" />
      </Head>
      <div className="flex shrink-0 gap-1 overflow-x-auto border-b hair px-5 py-1.5 text-[13px] whitespace-nowrap">
        {spans.map(([label, s]) => (
          <button
            key={label}
            aria-pressed={s.from === span.from && s.to === span.to}
            className={`rounded px-2 py-0.5 ${s.from === span.from && s.to === span.to ? 'bg-primary text-primary-content' : 'hover:bg-base-200'}`}
            onClick={() => show(s)}
          >
            {label}
          </button>
        ))}
      </div>
      {error ? (
        <Trouble sentence={sentenceOf(error)} />
      ) : !data ? (
        <Waiting />
      ) : (
        <Summary
          data={data}
          chosen={{ taxCodeId, month }}
          choose={(code, of) => setParams({ ...span, code, ...(of ? { month: of } : {}) })}
        />
      )}
      {chosen && <Behind key={`${chosen.taxCodeId} ${month} ${span.from} ${span.to}`} row={chosen} month={month} span={span} />}
    </div>
  );
}

const monthName = (month: string): string =>
  new Date(`${month}-01T00:00:00Z`).toLocaleDateString(undefined, { month: 'long', year: 'numeric', timeZone: 'UTC' });

function Summary({
  data,
  chosen,
  choose,
}: {
  data: TaxSummary;
  chosen: { taxCodeId: string | null; month: string | null };
  choose(code: string, month: string | null): void;
}) {
  const shown = amountsIn(data.rows),
    codes = [...new Set(data.rows.map((r) => r.taxCodeId))];
  const show = (v: string) => (dec(v).isZero() ? <span className="quiet">—</span> : money(v, data.currency));
  if (data.rows.length === 0) return <p className="px-6 py-4 quiet">Nothing was posted in this time.</p>;
  return (
    <div className={`shrink-0 overflow-auto ${chosen.taxCodeId ? 'max-h-[45vh] border-b hair' : 'grow'}`}>
      <table aria-label="By tax code" className="w-full text-[14px]">
        <thead className="sticky top-0 bg-base-200">
          <tr>
            <th className="plain !pl-6">Tax code</th>
            <th className="plain num">Entries</th>
            {shown.map((a) => (
              <th key={a} className="plain num last:!pr-6" title={heads[a][1]}>
                {heads[a][0]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {codes.map((code) => {
            const own = data.rows.filter((r) => r.taxCodeId === code);
            const row = (key: string, label: ReactNode, of: Row[], month: string | null) => (
              <tr
                key={key}
                className={`hover:bg-base-200 ${chosen.taxCodeId === code && chosen.month === month ? 'bg-primary/10' : ''} ${month ? '' : 'font-medium'}`}
              >
                <td className={month ? 'plain !pl-12' : 'plain !pl-6'}>
                  <button className="text-left hover:underline" onClick={() => choose(code, month)}>
                    {label}
                  </button>
                </td>
                <td className="plain num">{of.reduce((n, r) => n + r.entries, 0).toLocaleString()}</td>
                {shown.map((a) => (
                  <td key={a} className="plain num last:!pr-6">
                    {show(added(of, a))}
                  </td>
                ))}
              </tr>
            );
            return [
              row(
                code,
                <>
                  <span className="code">{own[0]!.code}</span> {own[0]!.name}
                </>,
                own,
                null,
              ),
              ...(own.length > 1 ? own.map((r) => row(`${code} ${r.month}`, monthName(r.month), [r], r.month)) : []),
            ];
          })}
          <tr className="border-t-2 hair font-semibold">
            <td className="plain !pl-6">All codes</td>
            <td className="plain" />
            {shown.map((a) => (
              <td key={a} className="plain num last:!pr-6">
                {show(added(data.rows, a))}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}

/** The entries behind a code, or behind one month of it. */
function Behind({ row, month, span }: { row: Row; month: string | null; span: Span }) {
  const { company } = usePlace();
  const navigate = useNavigate();
  // Within the span, whose first and last months may be parts.
  const from = month && `${month}-01` > span.from ? `${month}-01` : span.from,
    last = month ? endOfMonth(`${month}-01`) : span.to,
    to = last < span.to ? last : span.to;
  const rows = useRows(
    ledgerApi.useTaxLinesInfiniteQuery({ company: company.id, from, to, taxCodeId: row.taxCodeId }),
    (page) => page.lines,
  );
  const show = (v: string) => (dec(v).isZero() ? '' : money(v, company.baseCurrency));
  const columns: Column<Line>[] = [
    { id: 'date', head: 'Date', width: 110, cell: (l) => showDay(l.entryDate) },
    { id: 'entry', head: 'Entry', width: 110, cell: (l) => <span className="code text-primary">{l.entry}</span> },
    { id: 'text', head: 'Text', cell: (l) => l.description },
    {
      id: 'bill',
      head: '',
      width: 60,
      cell: (l) =>
        l.billId && (
          <Link className="text-accent hover:underline" to={`/bills/${l.billId}`} onClick={(e) => e.stopPropagation()}>
            Bill
          </Link>
        ),
    },
    { id: 'net', head: 'Net', width: 110, num: true, cell: (l) => money(l.net, company.baseCurrency) },
    { id: 'tax', head: 'Tax', width: 100, num: true, cell: (l) => show(l.tax) },
    { id: 'reclaimed', head: 'Reclaimed', width: 100, num: true, cell: (l) => show(l.reclaimed) },
    ...(dec(row.owed).isZero() ? [] : [{ id: 'owed', head: 'Owed by us', width: 100, num: true, cell: (l: Line) => show(l.owed) }]),
  ];
  return (
    <section aria-label={`Behind ${row.code}`} className="flex min-h-0 grow flex-col">
      <h2 className="px-6 pt-2 pb-1 text-[14px]">
        <b>{row.code}</b> {month ? monthName(month) : ''} <span className="quiet">Enter opens the entry; its amounts lead to the page</span>
      </h2>
      <DataTable<Line>
        label={`Entries with ${row.code}`}
        remember={`tax ${row.taxCodeId} ${from} ${to}`}
        {...rows}
        columns={columns}
        rowId={(l) => l.entryId}
        open={(l) => void navigate(`/ledger/${l.entryId}`)}
        empty="No entry."
      />
    </section>
  );
}
