import { useState } from 'react';
import { PutTaxCode, type Choice, type TaxCodeRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { ChoiceField } from '../ui/choice-field';
import type { Column } from '../ui/data-table';
import { Dialog } from '../ui/dialog';
import { FormEnd, FormField, FormTick, Problem, useSchemaForm } from '../ui/form';
import { settingsApi } from './api';
import { Active, ListArea } from './list-area';

const columns: Column<TaxCodeRow>[] = [
  { id: 'code', head: 'Code', width: 76, cell: (t) => <span className="code">{t.code}</span> },
  { id: 'name', head: 'Name', cell: (t) => t.name },
  { id: 'rate', head: 'Rate', width: 72, num: true, cell: (t) => `${Number(t.rate)}%` },
  { id: 'recoverable', head: 'Reclaimed', width: 92, num: true, cell: (t) => `${Number(t.recoverable)}%` },
  { id: 'account', head: 'Account', width: 210, minor: true, cell: (t) => t.account },
  { id: 'reverse', head: 'Reverse charge owed on', width: 190, minor: true, cell: (t) => (t.reverseCharge ? t.outputAccount : '') },
  { id: 'active', head: '', width: 72, cell: (t) => <Active active={t.active} /> },
];

export function TaxCodesArea() {
  const { company } = usePlace();
  const { currentData, error } = settingsApi.useTaxCodesQuery({ company: company.id });
  return (
    <ListArea
      title="Tax codes"
      detail="A rate, how much of the tax can be reclaimed, and the accounts it goes to"
      what="tax code"
      rows={{ rows: currentData?.taxCodes ?? [], loading: !currentData && !error, error }}
      columns={columns}
      rowId={(t) => t.id}
      form={(row, close) => <TaxCodeForm row={row} close={close} />}
    />
  );
}

const asChoice = (id: string | null | undefined, shown: string | null | undefined): Choice | null => {
  const [code = '', ...name] = (shown ?? '').split(' ');
  return id && shown ? { id, code, name: name.join(' '), detail: null } : null;
};

function TaxCodeForm({ row, close }: { row: TaxCodeRow | null; close(): void }) {
  const { company } = usePlace();
  const [put, { isLoading }] = settingsApi.usePutTaxCodeMutation();
  const { form, submit, trouble } = useSchemaForm(PutTaxCode, {
    code: row?.code ?? '',
    name: row?.name ?? '',
    rate: row?.rate ?? '20',
    recoverable: row?.recoverable ?? '100',
    reverseCharge: row?.reverseCharge ?? false,
    accountId: row?.accountId ?? '',
    outputAccountId: row?.outputAccountId ?? null,
    active: row?.active ?? true,
  });
  const [accounts, setAccounts] = useState({
    accountId: asChoice(row?.accountId, row?.account),
    outputAccountId: asChoice(row?.outputAccountId, row?.outputAccount),
  });
  const pick = (field: keyof typeof accounts, label: string) => (
    <div className="text-[13px]">
      <span className="quiet">{label}</span>
      <ChoiceField
        company={company.id}
        of="all-accounts"
        label={label}
        show="both"
        value={accounts[field]?.id ?? null}
        chosen={accounts[field]}
        onPick={(choice) => {
          setAccounts({ ...accounts, [field]: choice });
          if (field === 'accountId') form.setValue('accountId', choice?.id ?? '');
          else form.setValue('outputAccountId', choice?.id ?? null);
        }}
      />
      {form.formState.errors[field] && <span className="text-[12px] text-error">Choose an account.</span>}
    </div>
  );
  return (
    <Dialog title={row ? `Tax code ${row.code}` : 'New tax code'} close={close}>
      <form
        className="space-y-2"
        onSubmit={submit((body) =>
          put({ company: company.id, id: row?.id ?? null, body })
            .unwrap()
            .then(close),
        )}
      >
        <Problem sentence={trouble} />
        <div className="grid grid-cols-2 gap-x-3 gap-y-2">
          <FormField form={form} name="code" label="Code" autoFocus />
          <FormField form={form} name="name" label="Name" />
          <FormField form={form} name="rate" label="Rate, %" />
          <FormField form={form} name="recoverable" label="Reclaimed, %" hint="What cannot be reclaimed stays with the cost" />
          {pick('accountId', 'Account for tax that is reclaimed')}
          {pick('outputAccountId', 'Account for reverse charge tax owed')}
        </div>
        <FormTick form={form} name="reverseCharge" label="Reverse charge: we owe the tax ourselves" />
        <FormTick form={form} name="active" label="Open: new lines can use it" />
        <FormEnd close={close} action={row ? 'Save' : 'Make tax code'} busy={isLoading} />
      </form>
    </Dialog>
  );
}
