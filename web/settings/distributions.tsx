import { X } from 'lucide-react';
import { useFieldArray, type UseFormReturn } from 'react-hook-form';
import { dec, decOrNull, sum, type Decimal } from '@ledgerline/core/money';
import { PutDistribution, type DistributionRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField, FormTick } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { FormDialog } from '../ui/form-dialog';
import { settingsApi } from './api';
import { ListArea } from './list-area';

const columns: Column<DistributionRow>[] = [
  { id: 'name', head: 'Name', width: 260, cell: (k) => k.name },
  { id: 'parts', head: 'Shares', cell: (k) => sharesOf(k) },
  { id: 'active', head: '', width: 80, cell: (k) => <span className={k.active ? '' : 'quiet'}>{k.active ? 'open' : 'closed'}</span> },
];

/** "210 Palm House 42.8% · …" */
function sharesOf({ parts }: DistributionRow): string {
  const all = sum(parts.map((p) => dec(p.weight)));
  return parts.map((p) => `${p.costCentre} ${percent(dec(p.weight), all)}`).join(' · ');
}
const percent = (weight: Decimal, all: Decimal): string => `${weight.div(all).times(100).toFixed(1)}%`;

export function DistributionsArea() {
  const { company } = usePlace();
  const { currentData, error } = settingsApi.useDistributionsQuery({ company: company.id });
  return (
    <ListArea
      title="Distribution keys"
      detail="How a row is shared out over cost centres again and again: rent by floor area"
      what="distribution key"
      saves="distributions"
      rows={{ rows: currentData?.distributions ?? [], loading: !currentData && !error, error }}
      columns={columns}
      rowId={(k) => k.id}
      form={(row, close) => <DistributionForm row={row} close={close} />}
    />
  );
}

const empty = { costCentreId: '', weight: '' };

function DistributionForm({ row, close }: { row: DistributionRow | null; close(): void }) {
  const { company } = usePlace();
  const [put] = settingsApi.usePutDistributionMutation();
  return (
    <FormDialog
      title={row ? row.name : 'New distribution key'}
      schema={PutDistribution}
      values={{
        name: row?.name ?? '',
        active: row?.active ?? true,
        parts: row?.parts.map(({ costCentreId, weight }) => ({ costCentreId, weight })) ?? [empty, empty],
      }}
      action={row ? 'Save' : 'Make distribution key'}
      send={(body) =>
        put({ company: company.id, id: row?.id ?? null, body })
          .unwrap()
          .then(close)
      }
      close={close}
    >
      {(form) => (
        <>
          <FormField form={form} name="name" label="Name" hint="As it is chosen at the desk: Site rent by floor area" autoFocus />
          <Parts form={form as unknown as UseFormReturn<PutDistribution>} shown={row?.parts.map((p) => p.costCentre) ?? []} />
          <FormTick form={form} name="active" label="Open: rows can be split by it" />
        </>
      )}
    </FormDialog>
  );
}

function Parts({ form, shown }: { form: UseFormReturn<PutDistribution>; shown: string[] }) {
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'parts' });
  const weights = form.watch('parts').map((p) => decOrNull(p.weight));
  const all = sum(weights.flatMap((w) => w ?? []));
  return (
    <div>
      <div className="max-h-72 space-y-1 overflow-auto">
        {fields.map((field, i) => (
          <div
            key={field.id}
            // One head for the column; the others are there for who does not see it.
            className={`grid grid-cols-[1fr_110px_56px_28px] items-start gap-x-3 ${i > 0 ? '[&_label]:sr-only [&_span.quiet:first-child]:sr-only' : ''}`}
          >
            <FormChoice
              form={form}
              name={`parts.${i}.costCentreId`}
              label="Cost centre"
              of="cost-centres"
              shown={shown[i] ?? null}
              none=""
            />
            <FormField form={form} name={`parts.${i}.weight`} label="Share" />
            <span className={`text-right text-[13px] quiet tabular-nums ${i === 0 ? 'mt-7' : 'mt-2'}`}>
              {weights[i] && !all.isZero() ? percent(weights[i], all) : ''}
            </span>
            <button
              type="button"
              className={`btn btn-ghost btn-sm px-1 ${i === 0 ? 'mt-5' : ''}`}
              aria-label={`Remove share ${i + 1}`}
              disabled={fields.length <= 2}
              onClick={() => remove(i)}
            >
              <X size={14} aria-hidden />
            </button>
          </div>
        ))}
      </div>
      <button type="button" className="btn btn-ghost btn-sm mt-1" disabled={fields.length >= 50} onClick={() => append(empty)}>
        Add a cost centre
      </button>
    </div>
  );
}
