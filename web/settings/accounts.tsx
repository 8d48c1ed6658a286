import { inSentence } from '@ledgerline/core/checks';
import { useState } from 'react';
import { accountKinds, PutAccount, type AccountRow, type DimensionRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField, FormTick } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { useRows } from '../ui/infinite';
import { settingsApi } from './api';
import { FormGoing, goingFrom, useDimensions } from './going';
import { ListArea, RowDialog } from './list-area';
import { FormValidity, Validity, validityOf } from './validity';

/** "cost centre, project": what rows on an account need. */
const needsOf = (a: AccountRow, dimensions: readonly DimensionRow[]): string =>
  [
    ...(a.needsCostCentre ? ['cost centre'] : []),
    ...dimensions.filter((d) => a.needsDimensions.includes(d.field)).map((d) => inSentence(d.name)),
  ].join(', ');

const columnsOf = (dimensions: readonly DimensionRow[]): Column<AccountRow>[] => [
  { id: 'code', head: 'Code', width: 80, cell: (a) => <span className="code">{a.code}</span> },
  { id: 'name', head: 'Name', cell: (a) => a.name },
  { id: 'parent', head: 'Under', width: 90, minor: true, cell: (a) => a.parent },
  { id: 'group', head: 'Group', width: 150, minor: true, cell: (a) => a.group },
  { id: 'kind', head: 'Kind', width: 72, cell: (a) => a.kind },
  { id: 'tax', head: 'Usual tax', width: 80, minor: true, cell: (a) => <span className="code">{a.taxCode}</span> },
  { id: 'needs', head: 'Needs', width: 120, minor: true, cell: (a) => needsOf(a, dimensions) },
  {
    id: 'active',
    head: '',
    width: 112,
    cell: (a) => (a.postable || !a.active ? <Validity of={a} /> : <span className="quiet">gathers</span>),
  },
];

export function AccountsArea() {
  const { company } = usePlace();
  const [q, setQ] = useState('');
  const dimensions = useDimensions();
  const rows = useRows(settingsApi.useAccountsInfiniteQuery({ company: company.id, ...(q ? { q } : {}) }), (p) => p.accounts);
  return (
    <ListArea
      title="Accounts"
      detail="The chart of accounts. Bills are coded to expense and asset accounts"
      what="account"
      rows={rows}
      columns={columnsOf(dimensions)}
      files="accounts"
      rowId={(a) => a.id}
      search={{ value: q, change: setQ }}
      form={(row, close) => <AccountForm row={row} close={close} />}
    />
  );
}

function AccountForm({ row, close }: { row: AccountRow | null; close(): void }) {
  const dimensions = useDimensions();
  return (
    <RowDialog
      what="account"
      row={row}
      schema={PutAccount}
      values={{
        code: row?.code ?? '',
        name: row?.name ?? '',
        group: row?.group ?? '',
        kind: row?.kind ?? 'expense',
        needsCostCentre: row?.needsCostCentre ?? false,
        parentId: row?.parentId ?? null,
        postable: row?.postable ?? true,
        taxCodeId: row?.taxCodeId ?? null,
        needsDimensions: row?.needsDimensions ?? [],
        going: goingFrom(row),
        ...validityOf(row),
      }}
      path="/accounts"
      close={close}
    >
      {(form) => (
        <>
          <div className="grid grid-cols-[120px_1fr] gap-x-3 gap-y-2">
            <FormField form={form} name="code" label="Code" autoFocus />
            <FormField form={form} name="name" label="Name" />
            <FormField form={form} name="kind" label="Kind" options={accountKinds.map((k) => [k, k])} />
            <FormField form={form} name="group" label="Group" hint="Where it stands in lists: Premises, Office …" />
          </div>
          <div className="grid grid-cols-2 gap-x-3">
            <FormChoice form={form} name="parentId" label="Sub-account of" of="all-accounts" shown={row?.parent ?? null} />
            <FormChoice
              form={form}
              name="taxCodeId"
              label="Usual tax code"
              of="tax-codes"
              shown={row?.taxCode ? `${row.taxCode} ` : null}
            />
          </div>
          <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-1">
            <legend className="sr-only">What rows on it need</legend>
            <span className="text-[14px]">Rows on it need a</span>
            <FormTick form={form} name="needsCostCentre" label="cost centre" />
            {dimensions.map((d) => (
              <label key={d.field} className="flex items-center gap-2 text-[14px]">
                <input type="checkbox" className="checkbox checkbox-sm" value={d.field} {...form.register('needsDimensions')} />
                {inSentence(d.name)}
              </label>
            ))}
          </fieldset>
          <FormTick form={form} name="postable" label="Takes rows itself; without this it only gathers the accounts under it" />
          <FormGoing form={form} shown={row?.going ?? []} />
          <FormValidity form={form} />
        </>
      )}
    </RowDialog>
  );
}
