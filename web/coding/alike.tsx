import { useRef, useState, type KeyboardEvent } from 'react';
import { toast } from 'sonner';
import { dec, sum } from '@ledgerline/core/money';
import { codingOf, type CodingField } from '@ledgerline/core/bills';
import type { AlikeRows, Choice } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { ChoiceField } from '../ui/choice-field';
import { codedWith } from '../desk/coded-with';
import { DataTable, type Column } from '../ui/data-table';
import { money } from '../ui/format';
import { Head } from '../ui/states';
import { codingApi } from './api';
import { wordsFrom } from './from-row';
import { RuleDialog, useCodingFields, type RuleDraft } from './rule-dialog';

type Group = AlikeRows['groups'][number];
type Chosen = Partial<Record<CodingField, Choice>>;
/** So many rows are coded in one go. */
const most = 500;

function totalOf(rows: Group['rows']): string {
  const currencies = [...new Set(rows.map((r) => r.currency))];
  return currencies
    .map((c) => `${c} ${money(sum(rows.filter((r) => r.currency === c).map((r) => dec(r.amount ?? '0'))).toFixed(), c)}`)
    .join(' · ');
}
const billsOf = (g: Group): string => {
  const numbers = [...new Set(g.rows.map((r) => r.invoiceNumber ?? 'no number'))];
  return numbers.length > 3 ? `${numbers.slice(0, 2).join(', ')} and ${numbers.length - 2} more` : numbers.join(', ');
};
const columns: Column<Group>[] = [
  { id: 'what', head: 'Row', cell: (g) => g.description || 'No description' },
  { id: 'supplier', head: 'Supplier', width: 230, cell: (g) => g.supplier ?? <span className="quiet">unknown</span> },
  { id: 'bills', head: 'On', width: 230, minor: true, cell: billsOf },
  { id: 'rows', head: 'Rows', width: 64, num: true, cell: (g) => g.rows.length },
  { id: 'amount', head: 'Amount', width: 150, num: true, cell: (g) => totalOf(g.rows) },
];

/** Uncoded rows of many bills, by kinds that say alike; the marked ones are coded in one go. */
export function AlikePage() {
  const { company, can } = usePlace();
  const asked = codingApi.useAlikeQuery({ company: company.id }, { refetchOnMountOrArgChange: true });
  const groups = asked.data?.groups ?? [];
  const [marked, mark] = useState<ReadonlySet<string>>(new Set());
  const chosen = groups.filter((g) => marked.has(g.key));
  const bar = useRef<HTMLFormElement>(null);
  const rows = groups.reduce((n, g) => n + g.rows.length, 0);
  const toggle = (key: string) => {
    const next = new Set(marked);
    if (!next.delete(key)) next.add(key);
    mark(next);
  };
  return (
    <div className="flex h-full flex-col">
      <Head
        title="Code alike"
        detail={`${rows === 1 ? 'One row' : `${rows} rows`} in hand without an account${asked.data?.more ? ', and more behind them' : ''}. Mark kinds of rows by Space, or take one by Enter`}
      />
      {can('bills:edit') && groups.length > 0 && <CodingBar groups={chosen} form={bar} done={() => mark(new Set())} />}
      <DataTable<Group>
        label="Kinds of rows"
        remember={`Kinds of rows ${company.id}`}
        rows={groups}
        loading={asked.isLoading}
        error={asked.error}
        columns={columns}
        rowId={(g) => g.key}
        {...(can('bills:edit')
          ? {
              open: (g: Group) => {
                if (!marked.has(g.key)) toggle(g.key);
                bar.current?.querySelector('input')?.focus();
              },
              marking: { able: () => true, marked, toggle, what: (g: Group) => g.description },
            }
          : {})}
        empty="Every row in hand has an account."
      />
    </div>
  );
}

/** Enter takes what is in hand; only the next one codes. */
function takes(e: KeyboardEvent): void {
  if (e.key === 'Enter' && (e.target as HTMLElement).getAttribute('aria-expanded') === 'true') e.preventDefault();
}

/** What the marked rows are coded with. */
function CodingBar({ groups, form, done }: { groups: Group[]; form: React.RefObject<HTMLFormElement | null>; done(): void }) {
  const { company, can } = usePlace();
  const fields = useCodingFields();
  const [code, { isLoading }] = codingApi.useCodeAlikeMutation();
  const [chosen, choose] = useState<Chosen>({});
  const [drafting, draft] = useState<RuleDraft | null>(null);
  const rows = groups.flatMap((g) => g.rows),
    coding = Object.fromEntries(Object.entries(chosen).map(([field, c]) => [field, c.id]));
  const [first] = groups;
  const offers = (field: CodingField) => {
    const all = groups.flatMap((g) => g.offers).filter((o) => o.field === field);
    return [...new Map(all.map((o) => [o.id, o])).values()].map((o) => ({
      choice: { id: o.id, code: o.code, name: o.name, detail: null },
      why: o.why,
    }));
  };
  // As a row of the desk: what goes with a choice is seen before anything is coded.
  const pick = (field: CodingField, c: Choice | null) => {
    const all = [...Object.values(chosen), ...(c ? [c, ...(c.going ?? []).map((g): Choice => ({ ...g, detail: null }))] : [])];
    const known = new Map(all.map((one) => [one.id, one]));
    const next: Chosen = { ...chosen };
    for (const op of codedWith({ id: '', ...codingOf(coding) }, field, c, (id) => (id ? (known.get(id) ?? null) : null)))
      if (op.do === 'set-cell') {
        delete next[op.field as CodingField];
        if (op.value !== null) next[op.field as CodingField] = known.get(op.value)!;
      }
    choose(next);
  };
  const send = () =>
    code({ company: company.id, body: { rows: rows.slice(0, most).map(({ billId, lineId }) => ({ billId, lineId })), coding } })
      .unwrap()
      .then(
        ({ coded, bills, left }) => {
          toast.success(
            `${coded === 1 ? 'One row' : `${coded} rows`} on ${bills === 1 ? 'one bill' : `${bills} bills`} coded.${left.length > 0 ? ` ${left.join(', ')} moved on meanwhile and stayed as they were.` : ''}`,
          );
          choose({});
          done();
          // The list's keys again.
          (document.activeElement as HTMLElement | null)?.blur();
        },
        (error: unknown) => toast.error(sentenceOf(error)),
      );
  const ready = rows.length > 0 && Object.keys(coding).length > 0 && !isLoading;
  return (
    <form
      ref={form}
      aria-label="Code the marked rows"
      className="flex flex-wrap items-end gap-x-3 gap-y-1 border-b hair bg-base-200/60 px-6 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (ready) void send();
      }}
    >
      {fields.map(([field, of, label]) => (
        <div key={field} className="w-40 min-w-0" onKeyDown={takes}>
          <span className="text-[12px] quiet">{label}</span>
          <ChoiceField
            company={company.id}
            of={of}
            label={label}
            show={field === 'taxCodeId' ? 'code' : 'both'}
            value={chosen[field]?.id ?? null}
            chosen={chosen[field] ?? null}
            first={offers(field)}
            beside={coding}
            onPick={(c) => pick(field, c)}
          />
        </div>
      ))}
      <button type="submit" className="btn btn-primary btn-sm" disabled={!ready}>
        {rows.length === 0 ? 'Code' : rows.length === 1 ? 'Code one row' : `Code ${Math.min(rows.length, most)} rows`}
      </button>
      {can('rules:edit') && groups.length === 1 && first && (
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          onClick={() =>
            draft({
              id: null,
              supplierId: first.supplierId,
              words: wordsFrom(first.description) || null,
              coding,
              active: true,
              named(id) {
                if (id && id === first.supplierId) return ` ${first.supplier}`;
                const one = Object.values(chosen).find((c) => c.id === id);
                return one ? `${one.code} ${one.name}` : null;
              },
            })
          }
        >
          Make a rule …
        </button>
      )}
      {drafting && <RuleDialog draft={drafting} close={() => draft(null)} />}
    </form>
  );
}
