import { useState } from 'react';
import { toast } from 'sonner';
import type { RepeatRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { DataTable, type Column } from '../ui/data-table';
import { money, showDay } from '../ui/format';
import { Head } from '../ui/states';
import { repeatsApi } from './api';
import { RepeatDialog } from './dialog';
import { rhythmSaid } from './rhythm';

const columns: Column<RepeatRow>[] = [
  { id: 'name', head: 'Name', width: 200, cell: (r) => <span className="font-medium text-primary">{r.name}</span> },
  { id: 'supplier', head: 'Supplier', cell: (r) => r.supplier },
  { id: 'rhythm', head: 'How often', width: 130, minor: true, cell: rhythmSaid },
  { id: 'next', head: 'Next', width: 112, cell: (r) => (r.nextOn ? showDay(r.nextOn) : <span className="quiet">ended</span>) },
  { id: 'until', head: 'Until', width: 112, minor: true, cell: (r) => showDay(r.until) },
  {
    id: 'document',
    head: 'Its document',
    width: 170,
    minor: true,
    cell: (r) =>
      r.missed > 0 ? (
        <span className="text-error">{r.missed} did not come</span>
      ) : r.waiting > 0 ? (
        `${r.waiting} awaited`
      ) : r.documentWithin ? (
        <span className="quiet">within {r.documentWithin} days</span>
      ) : (
        <span className="quiet">none</span>
      ),
  },
  {
    id: 'total',
    head: 'Total',
    width: 140,
    num: true,
    cell: (r) => (r.gross ? `${r.currency} ${money(r.gross, r.currency)}` : <span className="quiet">filled in</span>),
  },
];

/** Bills that repeat, what comes next first. */
export function RepeatsPage() {
  const { company, can } = usePlace();
  const { currentData, error, isFetching } = repeatsApi.useRepeatsQuery({ company: company.id });
  const [changing, change] = useState<RepeatRow | null>(null);
  const [save] = repeatsApi.useChangeRepeatMutation();
  return (
    <div className="flex h-full flex-col">
      <Head title="Repeating bills" detail="Made on their day; one is begun from a bill: More, then Make it repeat" />
      <DataTable<RepeatRow>
        label="Repeating bills"
        remember={`repeats ${company.id}`}
        rows={currentData?.repeats ?? []}
        loading={isFetching && !currentData}
        error={error}
        columns={columns}
        rowId={(r) => r.id}
        {...(can('bills:edit') ? { open: change } : {})}
        empty="No bill repeats yet. Open one and choose “Make it repeat” under More."
      />
      {changing && (
        <RepeatDialog
          title={changing.name}
          action="Save"
          values={settingsOf(changing)}
          close={() => change(null)}
          send={(settings) =>
            save({ company: company.id, id: changing.id, body: { ...settings, rowVersion: changing.rowVersion } })
              .unwrap()
              .then(() => {
                change(null);
                toast('Saved: for what is still to come');
              })
          }
        />
      )}
    </div>
  );
}

const settingsOf = ({ name, every, weeks, begins, until, fixed, documentWithin }: RepeatRow) => ({
  name,
  every,
  weeks,
  begins,
  until,
  fixed,
  documentWithin,
});
