import { useState } from 'react';
import { PutCostCentre, type CostCentreRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField, FormTick } from '../ui/form';
import { useRows } from '../ui/infinite';
import { settingsApi } from './api';
import { Active, ListArea, RowDialog } from './list-area';

const columns: Column<CostCentreRow>[] = [
  { id: 'code', head: 'Code', width: 96, cell: (c) => <span className="code">{c.code}</span> },
  { id: 'name', head: 'Name', cell: (c) => c.name },
  { id: 'active', head: '', width: 72, cell: (c) => <Active active={c.active} /> },
];

export function CostCentresArea() {
  const { company } = usePlace();
  const [q, setQ] = useState('');
  const rows = useRows(settingsApi.useCostCentresInfiniteQuery({ company: company.id, ...(q ? { q } : {}) }), (p) => p.costCentres);
  return (
    <ListArea
      title="Cost centres"
      detail="Who bears a cost: a garden, a house, an event"
      what="cost centre"
      rows={rows}
      columns={columns}
      rowId={(c) => c.id}
      search={{ value: q, change: setQ }}
      form={(row, close) => <CostCentreForm row={row} close={close} />}
    />
  );
}

function CostCentreForm({ row, close }: { row: CostCentreRow | null; close(): void }) {
  const [put] = settingsApi.usePutCostCentreMutation();
  return (
    <RowDialog
      what="cost centre"
      row={row}
      schema={PutCostCentre}
      values={{ code: row?.code ?? '', name: row?.name ?? '', active: row?.active ?? true }}
      put={put}
      close={close}
    >
      {(form) => (
        <>
          <div className="grid grid-cols-[120px_1fr] gap-x-3">
            <FormField form={form} name="code" label="Code" autoFocus />
            <FormField form={form} name="name" label="Name" />
          </div>
          <FormTick form={form} name="active" label="Open: new lines can use it" />
        </>
      )}
    </RowDialog>
  );
}
