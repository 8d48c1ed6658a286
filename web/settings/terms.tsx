import { useState } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import { dueOf } from '@ledgerline/core/terms';
import { PutTerms, type TermsRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField, FormTick } from '../ui/form';
import { showDay, todayIso } from '../ui/format';
import { settingsApi } from './api';
import { ListArea, RowDialog } from './list-area';

/** Payment terms that the company names itself, and what they make of a bill of today. */
export function TermsArea() {
  const { company } = usePlace();
  const [q, setQ] = useState('');
  const { currentData, isLoading, error } = settingsApi.useTermsQuery({ company: company.id });
  const asked = q.trim().toLowerCase(),
    rows = (currentData?.terms ?? []).filter((t) => `${t.code} ${t.name} ${t.alsoCalled ?? ''} ${t.terms}`.toLowerCase().includes(asked));
  const due = (terms: string) => showDay(dueOf(todayIso(), terms, company));
  const columns: Column<TermsRow>[] = [
    { id: 'code', head: 'Code', width: 104, cell: (t) => <span className="code">{t.code}</span> },
    { id: 'name', head: 'Name', cell: (t) => t.name },
    { id: 'terms', head: 'Terms', width: 200, cell: (t) => t.terms },
    { id: 'also', head: 'Also called', minor: true, cell: (t) => t.alsoCalled },
    { id: 'due', head: 'Due, from today', width: 120, minor: true, cell: (t) => due(t.terms) },
    { id: 'active', head: '', width: 56, cell: (t) => (t.active ? '' : <span className="quiet">closed</span>) },
  ];
  return (
    <ListArea
      title="Payment terms"
      detail="Wherever terms are typed, a name means its terms"
      what="terms"
      rows={{ rows, loading: isLoading, error }}
      columns={columns}
      files="terms"
      rowId={(t) => t.id}
      search={{ value: q, change: setQ }}
      form={(row, close) => (
        <RowDialog
          what="terms"
          row={row}
          schema={PutTerms}
          values={{
            code: row?.code ?? '',
            name: row?.name ?? '',
            terms: row?.terms ?? '',
            alsoCalled: row?.alsoCalled ?? null,
            active: row?.active ?? true,
          }}
          path="/terms"
          plain
          close={close}
        >
          {(form) => (
            <>
              <div className="grid grid-cols-[120px_1fr] gap-x-3 gap-y-2">
                <FormField form={form} name="code" label="Code" autoFocus />
                <FormField form={form} name="name" label="Name" />
              </div>
              <FormField form={form} name="terms" label="Terms" hint={<Due form={form} due={due} />} />
              <FormField
                form={form}
                name="alsoCalled"
                label="Also called"
                empty="null"
                hint="What suppliers write for it, with commas between: monthly, strictly monthly"
              />
              <FormTick form={form} name="active" label="In use; without this they are not offered any more" />
            </>
          )}
        </RowDialog>
      )}
    />
  );
}

/** What the terms make of a bill of today, as they are typed. */
function Due({ form, due }: { form: UseFormReturn<PutTerms>; due(terms: string): string }) {
  const typed = form.watch('terms');
  const day = typed ? due(typed) : '';
  return <>{day ? `A bill of today falls due on ${day}` : 'net 30, 30 eom, 2/10 n30, 30% on receipt and 70% 30 days'}</>;
}
