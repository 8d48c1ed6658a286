import { useState } from 'react';
import { PutCostCentre, type CostCentreRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { useRows } from '../ui/infinite';
import { settingsApi } from './api';
import { FormGoing, goingFrom } from './going';
import { ListArea, RowDialog } from './list-area';
import { FormValidity, Validity, validityOf } from './validity';

const columns: Column<CostCentreRow>[] = [
  { id: 'code', head: 'Code', width: 96, cell: (c) => <span className="code">{c.code}</span> },
  { id: 'name', head: 'Name', cell: (c) => c.name },
  { id: 'parent', head: 'Part of', width: 220, minor: true, cell: (c) => c.parent },
  { id: 'owner', head: 'Answers for it', width: 180, minor: true, cell: (c) => c.owner },
  { id: 'active', head: '', width: 130, cell: (c) => <Validity of={c} /> },
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
      files="cost-centres"
      rowId={(c) => c.id}
      search={{ value: q, change: setQ }}
      form={(row, close) => <CostCentreForm row={row} close={close} />}
    />
  );
}

function CostCentreForm({ row, close }: { row: CostCentreRow | null; close(): void }) {
  const { company } = usePlace();
  const { currentData } = settingsApi.usePeopleQuery({ company: company.id });
  if (!currentData) return null;
  return (
    <RowDialog
      what="cost centre"
      row={row}
      schema={PutCostCentre}
      values={{
        code: row?.code ?? '',
        name: row?.name ?? '',
        parentId: row?.parentId ?? null,
        ownerId: row?.ownerId ?? null,
        going: goingFrom(row),
        ...validityOf(row),
      }}
      path="/cost-centres"
      close={close}
    >
      {(form) => (
        <>
          <div className="grid grid-cols-[120px_1fr] gap-x-3">
            <FormField form={form} name="code" label="Code" autoFocus />
            <FormField form={form} name="name" label="Name" />
          </div>
          <div className="grid grid-cols-2 gap-x-3">
            <FormChoice form={form} name="parentId" label="Part of" of="cost-centres" shown={row?.parent ?? null} />
            <FormField
              form={form}
              name="ownerId"
              label="Answers for it"
              empty="null"
              options={[['', 'Nobody yet'], ...currentData.people.map((p): [string, string] => [p.id, p.name])]}
            />
          </div>
          <FormGoing form={form} shown={row?.going ?? []} />
          <FormValidity form={form} />
        </>
      )}
    </RowDialog>
  );
}
