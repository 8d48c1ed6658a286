import { useState } from 'react';
import { accountKinds, PutAccount, type AccountRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField, FormTick } from '../ui/form';
import { useRows } from '../ui/infinite';
import { settingsApi } from './api';
import { Active, ListArea, RowDialog } from './list-area';

const columns: Column<AccountRow>[] = [
  { id: 'code', head: 'Code', width: 96, cell: (a) => <span className="code">{a.code}</span> },
  { id: 'name', head: 'Name', cell: (a) => a.name },
  { id: 'group', head: 'Group', width: 180, minor: true, cell: (a) => a.group },
  { id: 'kind', head: 'Kind', width: 96, cell: (a) => a.kind },
  { id: 'centre', head: 'Cost centre', width: 104, minor: true, cell: (a) => (a.needsCostCentre ? 'needed' : '') },
  { id: 'active', head: '', width: 72, cell: (a) => <Active active={a.active} /> },
];

export function AccountsArea() {
  const { company } = usePlace();
  const [q, setQ] = useState('');
  const rows = useRows(settingsApi.useAccountsInfiniteQuery({ company: company.id, ...(q ? { q } : {}) }), (p) => p.accounts);
  return (
    <ListArea
      title="Accounts"
      detail="The chart of accounts. Bills are coded to expense and asset accounts"
      what="account"
      rows={rows}
      columns={columns}
      rowId={(a) => a.id}
      search={{ value: q, change: setQ }}
      form={(row, close) => <AccountForm row={row} close={close} />}
    />
  );
}

function AccountForm({ row, close }: { row: AccountRow | null; close(): void }) {
  const [put] = settingsApi.usePutAccountMutation();
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
        active: row?.active ?? true,
      }}
      put={put}
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
          <FormTick form={form} name="needsCostCentre" label="Lines on it need a cost centre" />
          <FormTick form={form} name="active" label="Open: new lines can use it" />
        </>
      )}
    </RowDialog>
  );
}
