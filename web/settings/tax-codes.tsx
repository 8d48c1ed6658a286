import { PutTaxCode, type TaxCodeRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField, FormTick } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { settingsApi } from './api';
import { ListArea, RowDialog } from './list-area';
import { FormValidity, Validity, validityOf } from './validity';

const columns: Column<TaxCodeRow>[] = [
  { id: 'code', head: 'Code', width: 76, cell: (t) => <span className="code">{t.code}</span> },
  { id: 'name', head: 'Name', cell: (t) => t.name },
  { id: 'rate', head: 'Rate', width: 72, num: true, cell: (t) => `${Number(t.rate)}%` },
  { id: 'recoverable', head: 'Reclaimed', width: 92, num: true, cell: (t) => `${Number(t.recoverable)}%` },
  { id: 'account', head: 'Account', width: 210, minor: true, cell: (t) => t.account },
  { id: 'reverse', head: 'Reverse charge owed on', width: 190, minor: true, cell: (t) => (t.reverseCharge ? t.outputAccount : '') },
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
  const [put] = settingsApi.usePutTaxCodeMutation();
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
        ...validityOf(row),
      }}
      put={put}
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
              label="Account for reverse charge tax owed"
              of="all-accounts"
              shown={row?.outputAccount ?? null}
            />
          </div>
          <FormTick form={form} name="reverseCharge" label="Reverse charge: we owe the tax ourselves" />
          <FormValidity form={form} />
        </>
      )}
    </RowDialog>
  );
}
