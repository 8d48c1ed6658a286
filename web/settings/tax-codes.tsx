import { X } from 'lucide-react';
import { useFieldArray, type UseFormReturn } from 'react-hook-form';
import { PutTaxCode, type TaxCodeRow } from '@ledgerline/contract';
import { rateOnDay } from '@ledgerline/core/tax';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField, FormTick } from '../ui/form';
import { FormDay } from '../ui/form-day';
import { FormChoice } from '../ui/form-choice';
import { todayIso } from '../ui/format';
import { settingsApi } from './api';
import { ListArea, RowDialog } from './list-area';
import { FormValidity, Validity, validityOf } from './validity';

const columns: Column<TaxCodeRow>[] = [
  { id: 'code', head: 'Code', width: 76, cell: (t) => <span className="code">{t.code}</span> },
  { id: 'name', head: 'Name', cell: (t) => t.name },
  { id: 'rate', head: 'Rate', width: 72, num: true, cell: (t) => `${Number(rateOnDay(t.rate, t.laterRates, todayIso()))}%` },
  { id: 'recoverable', head: 'Reclaimed', width: 92, num: true, cell: (t) => `${Number(t.recoverable)}%` },
  { id: 'account', head: 'Account', width: 210, minor: true, cell: (t) => t.account },
  { id: 'reverse', head: 'Owed by us on', width: 190, minor: true, cell: (t) => (t.reverseCharge ? t.outputAccount : '') },
  { id: 'active', head: '', width: 130, cell: (t) => <Validity of={t} /> },
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
      files="tax-codes"
      form={(row, close) => <TaxCodeForm row={row} close={close} />}
    />
  );
}

function TaxCodeForm({ row, close }: { row: TaxCodeRow | null; close(): void }) {
  return (
    <RowDialog
      what="tax code"
      row={row}
      schema={PutTaxCode}
      values={{
        code: row?.code ?? '',
        name: row?.name ?? '',
        rate: row?.rate ?? '20',
        recoverable: row?.recoverable ?? '100',
        reverseCharge: row?.reverseCharge ?? false,
        accountId: row?.accountId ?? '',
        outputAccountId: row?.outputAccountId ?? null,
        withheld: row?.withheld ?? '0',
        withheldAccountId: row?.withheldAccountId ?? null,
        laterRates: row?.laterRates ?? [],
        ...validityOf(row),
      }}
      path="/tax-codes"
      close={close}
    >
      {(form) => (
        <>
          <div className="grid grid-cols-2 gap-x-3 gap-y-2">
            <FormField form={form} name="code" label="Code" autoFocus />
            <FormField form={form} name="name" label="Name" />
            <FormField form={form} name="rate" label="Rate, %" />
            <FormField form={form} name="recoverable" label="Reclaimed, %" hint="What cannot be reclaimed stays with the cost" />
            <FormChoice
              form={form}
              name="accountId"
              label="Account for tax that is reclaimed"
              of="all-accounts"
              shown={row?.account ?? null}
              none=""
            />
            <FormChoice
              form={form}
              name="outputAccountId"
              label="Account for tax that we owe"
              of="all-accounts"
              shown={row?.outputAccount ?? null}
            />
          </div>
          <FormTick form={form} name="reverseCharge" label="We owe the tax ourselves: reverse charge, import, use tax" />
          <div className="grid grid-cols-2 gap-x-3">
            <FormField form={form} name="withheld" label="Withheld of the net, %" hint="Held back from the supplier" />
            <FormChoice
              form={form}
              name="withheldAccountId"
              label="Account for what is withheld"
              of="all-accounts"
              shown={row?.withheldAccount ?? null}
            />
          </div>
          <LaterRates form={form as unknown as UseFormReturn<PutTaxCode>} />
          <FormValidity form={form} />
        </>
      )}
    </RowDialog>
  );
}

/** Rates that hold from a day on: the bill's day decides. */
function LaterRates({ form }: { form: UseFormReturn<PutTaxCode> }) {
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'laterRates' });
  return (
    <fieldset>
      <legend className="sr-only">Later rates</legend>
      {fields.map((field, i) => (
        <div key={field.id} className="mb-1 grid grid-cols-[1fr_1fr_28px] items-end gap-x-3">
          <FormDay form={form} name={`laterRates.${i}.from`} label="From bills of this day on" />
          <FormField form={form} name={`laterRates.${i}.rate`} label="the rate is, %" />
          <button type="button" className="btn btn-ghost btn-sm px-1" aria-label={`Remove later rate ${i + 1}`} onClick={() => remove(i)}>
            <X size={14} aria-hidden />
          </button>
        </div>
      ))}
      <button
        type="button"
        className="btn btn-ghost btn-sm -ml-2"
        disabled={fields.length >= 20}
        onClick={() => append({ from: '', rate: '' })}
      >
        The rate changes on a day …
      </button>
    </fieldset>
  );
}
