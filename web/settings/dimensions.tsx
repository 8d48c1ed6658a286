import { inSentence } from '@ledgerline/core/checks';
import { Plus, Settings2 } from 'lucide-react';
import { useState } from 'react';
import { PutDimension, PutDimensionValue, type Asset, type DimensionRow, type DimensionValueRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { sentenceOf } from '../app/api';
import type { Column } from '../ui/data-table';
import { FormField, FormTick } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { FormDay } from '../ui/form-day';
import { FormDialog } from '../ui/form-dialog';
import { showDay } from '../ui/format';
import { useRows } from '../ui/infinite';
import { Head, Trouble, Waiting } from '../ui/states';
import { settingsApi } from './api';
import { FormEffect } from './effect';
import { FormGoing, goingFrom, goingSaid } from './going';
import { ListArea, RowDialog } from './list-area';
import { FormValidity, Validity, validityOf } from './validity';

const most = 6;
const columns: Column<DimensionValueRow>[] = [
  { id: 'code', head: 'Code', width: 130, cell: (v) => <span className="code">{v.code}</span> },
  { id: 'name', head: 'Name', cell: (v) => v.name },
  { id: 'going', head: 'Filled in with it', width: 280, minor: true, cell: goingSaid },
  { id: 'active', head: '', width: 130, cell: (v) => <Validity of={v} /> },
];

const assetColumns: Column<DimensionValueRow>[] = [
  columns[0]!,
  columns[1]!,
  { id: 'account', head: 'Account', width: 170, cell: (v) => v.account },
  { id: 'serial', head: 'Serial number', width: 120, minor: true, cell: (v) => v.asset.serial },
  { id: 'location', head: 'Location', width: 130, minor: true, cell: (v) => v.asset.location },
  { id: 'since', head: 'In use from', width: 104, minor: true, cell: (v) => showDay(v.asset.inUseFrom) },
  columns[3]!,
];
const noAsset: Asset = { accountId: null, inUseFrom: null, serial: null, location: null };

/** What the company codes by beside account and cost centre, each dimension with its list. */
export function DimensionsArea() {
  const { company, can } = usePlace();
  const { currentData, error } = settingsApi.useDimensionsQuery({ company: company.id });
  const [chosen, choose] = useState<DimensionRow['field'] | null>(null);
  const [editing, edit] = useState<DimensionRow | null | undefined>(undefined);
  if (error) return <Trouble sentence={sentenceOf(error)} />;
  if (!currentData) return <Waiting />;
  const { dimensions } = currentData,
    own = dimensions.find((d) => d.field === chosen) ?? dimensions[0];
  const form = editing !== undefined && <DimensionForm row={editing} close={() => edit(undefined)} made={(field) => choose(field)} />;
  const another = can('settings:edit') && dimensions.length < most && (
    <button className="btn btn-ghost btn-sm" onClick={() => edit(null)}>
      <Plus size={14} aria-hidden />
      New dimension
    </button>
  );
  if (!own)
    return (
      <>
        <Head title="Dimensions" detail="What lines are coded with beside account and cost centre" />
        <div className="max-w-xl px-6 py-4">
          <p>
            Projects, branches, funds: give a name to what you code by, fill its list, and say on which accounts a row needs one. Up to six.
          </p>
          <div className="mt-2 -ml-2">{another}</div>
        </div>
        {form}
      </>
    );
  return (
    <>
      <div role="tablist" aria-label="Dimensions" className="flex items-center gap-1 border-b hair px-4 pt-2">
        {dimensions.map((d) => (
          <button
            key={d.field}
            role="tab"
            aria-selected={d.field === own.field}
            className={`rounded-t px-3 py-1.5 text-[14px] ${d.field === own.field ? 'border border-b-0 hair bg-base-100 font-medium' : 'quiet hover:bg-base-200'}`}
            onClick={() => choose(d.field)}
          >
            {d.name} <span className="quiet text-[12px] tabular-nums">{d.active ? d.values : 'closed'}</span>
          </button>
        ))}
        {another}
      </div>
      <Values key={own.field} of={own} edit={() => edit(own)} />
      {form}
    </>
  );
}

function Values({ of, edit }: { of: DimensionRow; edit(): void }) {
  const { company, can } = usePlace();
  const [q, setQ] = useState('');
  const rows = useRows(
    settingsApi.useDimensionValuesInfiniteQuery({ company: company.id, field: of.field, ...(q ? { q } : {}) }),
    (p) => p.values,
  );
  const what = inSentence(of.name);
  return (
    <ListArea
      title={of.name}
      detail={of.always ? 'Every row needs one' : 'Rows need one where their account says so'}
      what={what}
      rows={rows}
      columns={of.assets ? assetColumns : columns}
      rowId={(v) => v.id}
      files="dimension-values"
      dimension={of.name}
      search={{ value: q, change: setQ }}
      aside={
        can('settings:edit') && (
          <button className="btn btn-sm" onClick={edit}>
            <Settings2 size={14} aria-hidden />
            Edit dimension
          </button>
        )
      }
      form={(row, close) => <ValueForm of={of} what={what} row={row} close={close} />}
    />
  );
}

function DimensionForm({ row, close, made }: { row: DimensionRow | null; close(): void; made(field: DimensionRow['field']): void }) {
  const { company } = usePlace();
  const [put] = settingsApi.usePutDimensionMutation();
  return (
    <FormDialog
      title={row ? `Dimension ${row.name}` : 'New dimension'}
      schema={PutDimension}
      values={{ name: row?.name ?? '', always: row?.always ?? false, active: row?.active ?? true, assets: row?.assets ?? false }}
      action={row ? 'Save' : 'Make dimension'}
      send={(body) =>
        put({ company: company.id, id: row?.field ?? null, body })
          .unwrap()
          .then(({ field }) => {
            made(field);
            close();
          })
      }
      close={close}
    >
      {(form) => (
        <>
          <FormField form={form} name="name" label="Name" hint="What one of them is: Project, Branch, Fund" autoFocus />
          <FormTick form={form} name="always" label="Every row needs one, whatever its account" />
          <FormTick form={form} name="assets" label="Its values are the fixed assets, each with its account, serial number and place" />
          <FormTick form={form} name="active" label="Open: rows are coded with it" />
          <FormEffect form={form} path="/dimensions" id={row?.field ?? null} />
        </>
      )}
    </FormDialog>
  );
}

function ValueForm({ of, what, row, close }: { of: DimensionRow; what: string; row: DimensionValueRow | null; close(): void }) {
  return (
    <RowDialog
      what={what}
      row={row}
      schema={PutDimensionValue}
      values={{
        field: of.field,
        code: row?.code ?? '',
        name: row?.name ?? '',
        going: goingFrom(row),
        ...(of.assets ? { asset: row?.asset ?? noAsset } : {}),
        ...validityOf(row),
      }}
      path="/dimension-values"
      close={close}
    >
      {(form) => (
        <>
          <div className="grid grid-cols-[140px_1fr] gap-x-3">
            <FormField form={form} name="code" label="Code" autoFocus />
            <FormField form={form} name="name" label="Name" />
          </div>
          {of.assets && (
            <div className="grid grid-cols-2 gap-x-3 gap-y-2">
              <FormChoice
                form={form}
                name={'asset.accountId' as never}
                label="Account it stands on"
                of="accounts"
                shown={row?.account ?? null}
              />
              <FormDay form={form} name={'asset.inUseFrom' as never} label="In use from" />
              <FormField form={form} name={'asset.serial' as never} label="Serial number" empty="null" />
              <FormField form={form} name={'asset.location' as never} label="Location" empty="null" />
            </div>
          )}
          <FormGoing form={form} shown={row?.going ?? []} own={of.field} />
          <FormValidity form={form} />
        </>
      )}
    </RowDialog>
  );
}
