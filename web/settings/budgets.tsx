import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import { allocate, calculate, dec } from '@ledgerline/core/money';
import { PutBudget, type BudgetRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { FormDialog } from '../ui/form-dialog';
import { money, todayIso } from '../ui/format';
import { useRows } from '../ui/infinite';
import { settingsApi } from './api';
import { ListArea } from './list-area';

const left = (b: BudgetRow) => dec(b.year).minus(b.posted).minus(b.waiting);

/** How much of a budget is used: what was posted, and what waits beside it. */
function Used({ of }: { of: BudgetRow }) {
  const whole = dec(of.year);
  const share = (amount: string) => (whole.lte(0) ? 0 : Math.min(100, Math.max(0, dec(amount).div(whole).times(100).toNumber())));
  const posted = share(of.posted),
    waiting = Math.min(100 - posted, share(of.waiting));
  return (
    <span className="flex h-2 w-full overflow-hidden rounded-sm bg-base-300" aria-hidden>
      <span className={left(of).lt(0) ? 'bg-error' : 'bg-primary'} style={{ width: `${posted}%` }} />
      <span className={left(of).lt(0) ? 'bg-error/50' : 'bg-primary/40'} style={{ width: `${waiting}%` }} />
    </span>
  );
}

const columnsOf = (base: string): Column<BudgetRow>[] => [
  { id: 'account', head: 'Account', cell: (b) => b.account },
  { id: 'centre', head: 'Cost centre', width: 180, cell: (b) => b.costCentre ?? <span className="quiet">all together</span> },
  { id: 'year', head: 'Year', width: 110, num: true, cell: (b) => money(b.year, base) },
  { id: 'posted', head: 'Posted', width: 110, num: true, cell: (b) => money(b.posted, base) },
  { id: 'waiting', head: 'Not posted yet', width: 116, num: true, minor: true, cell: (b) => money(b.waiting, base) },
  {
    id: 'left',
    head: 'Left',
    width: 110,
    num: true,
    cell: (b) => <span className={left(b).lt(0) ? 'text-error' : ''}>{money(left(b).toFixed(2), base)}</span>,
  },
  { id: 'used', head: '', width: 90, minor: true, cell: (b) => <Used of={b} /> },
];

/** A year's budgets, with what is used of them. */
export function BudgetsArea() {
  const { company } = usePlace();
  const [q, setQ] = useState('');
  const [year, setYear] = useState(() => Number(todayIso().slice(0, 4)));
  const rows = useRows(settingsApi.useBudgetsInfiniteQuery({ company: company.id, year, ...(q ? { q } : {}) }), (p) => p.budgets);
  return (
    <ListArea
      title="Budgets"
      detail={`Without tax, in ${company.baseCurrency}`}
      what="budget"
      rows={rows}
      columns={columnsOf(company.baseCurrency)}
      files="budgets"
      rowId={(b) => `${b.accountId} ${b.costCentreId}`}
      search={{ value: q, change: setQ }}
      aside={
        <span className="flex items-center">
          <button className="btn btn-ghost btn-sm px-1" aria-label="The year before" onClick={() => setYear(year - 1)}>
            <ChevronLeft size={16} aria-hidden />
          </button>
          <span className="w-11 text-center tabular-nums">{year}</span>
          <button className="btn btn-ghost btn-sm px-1" aria-label="The year after" onClick={() => setYear(year + 1)}>
            <ChevronRight size={16} aria-hidden />
          </button>
        </span>
      }
      form={(row, close) => <BudgetForm row={row} year={year} close={close} />}
    />
  );
}

const names = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December'];
const none: PutBudget['months'] = names.map(() => null);

function BudgetForm({ row, year, close }: { row: BudgetRow | null; year: number; close(): void }) {
  const { company } = usePlace();
  const [put] = settingsApi.usePutBudgetMutation();
  return (
    <FormDialog
      title={row ? `Budget ${year}: ${row.account}` : `New budget for ${year}`}
      schema={PutBudget}
      values={{ accountId: row?.accountId ?? '', costCentreId: row?.costCentreId ?? null, year, months: row?.months ?? none }}
      action={row ? 'Save' : 'Make budget'}
      send={(body) => put({ company: company.id, body }).unwrap().then(close)}
      close={close}
    >
      {(form) => (
        <>
          {row ? (
            <p className="quiet">{row.costCentre ?? 'All cost centres together'}</p>
          ) : (
            <div className="grid grid-cols-2 gap-x-3">
              <FormChoice form={form} name="accountId" label="Account" of="all-accounts" shown={null} none="" />
              <FormChoice form={form} name="costCentreId" label="Cost centre; none: all together" of="cost-centres" shown={null} />
            </div>
          )}
          <Spread form={form as unknown as UseFormReturn<PutBudget>} base={company.baseCurrency} />
          <div className="grid grid-cols-4 gap-x-3 gap-y-1">
            {names.map((name, i) => (
              <FormField key={name} form={form} name={`months.${i}` as never} label={name} empty="null" />
            ))}
          </div>
          <Sum form={form as unknown as UseFormReturn<PutBudget>} base={company.baseCurrency} />
        </>
      )}
    </FormDialog>
  );
}

/** An amount for the whole year, in twelve parts that add up to it. */
function Spread({ form, base }: { form: UseFormReturn<PutBudget>; base: string }) {
  const [typed, setTyped] = useState('');
  const whole = calculate(typed);
  return (
    <div className="flex items-end gap-2 text-[13px]">
      <label>
        <span className="block quiet">For the whole year</span>
        <input
          className="input input-sm mt-0.5 w-36 text-right"
          inputMode="decimal"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
      </label>
      <button
        type="button"
        className="btn btn-sm"
        disabled={!whole}
        onClick={() => {
          const parts = allocate(whole!, names.map(() => dec(1)), base); // prettier-ignore
          form.setValue('months', parts.map((p) => p.toFixed()), { shouldDirty: true }); // prettier-ignore
        }}
      >
        Spread over the months
      </button>
    </div>
  );
}

function Sum({ form, base }: { form: UseFormReturn<PutBudget>; base: string }) {
  const months = form.watch('months').map((m) => (m ? calculate(m) : dec(0)));
  const sum = months.every((m) => m !== null) ? months.reduce((all, m) => all!.plus(m!), dec(0)) : null;
  return <p className="text-right text-[14px]">{sum ? `${money(sum.toFixed(2), base)} ${base} in the year` : ''}</p>;
}
