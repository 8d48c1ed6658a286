import { PutRate } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField } from '../ui/form';
import { FormDay } from '../ui/form-day';
import { FormDialog } from '../ui/form-dialog';
import { showDay, todayIso } from '../ui/format';
import { useRows } from '../ui/infinite';
import { settingsApi } from './api';
import { FormEffect } from './effect';
import { ListArea } from './list-area';

type Rate = { currency: string; day: string; rate: string };

export function RatesArea() {
  const { company } = usePlace();
  const rows = useRows(settingsApi.useRatesInfiniteQuery({ company: company.id }), (p) => p.rates);
  const columns: Column<Rate>[] = [
    { id: 'day', head: 'From', width: 128, cell: (r) => showDay(r.day) },
    { id: 'currency', head: 'Currency', width: 96, cell: (r) => r.currency },
    { id: 'rate', head: `1 unit is, in ${company.baseCurrency}`, cell: (r) => Number(r.rate) },
  ];
  return (
    <ListArea
      title="Exchange rates"
      detail="A bill takes the last rate on or before its date"
      what="rate"
      rows={rows}
      columns={columns}
      files="rates"
      rowId={(r) => r.currency + r.day}
      form={(row, close) => <RateForm row={row} close={close} />}
    />
  );
}

function RateForm({ row, close }: { row: Rate | null; close(): void }) {
  const { company } = usePlace();
  const [put] = settingsApi.usePutRateMutation();
  return (
    <FormDialog
      title={row ? `${row.currency} from ${showDay(row.day)}` : 'New exchange rate'}
      schema={PutRate}
      values={{ currency: row?.currency ?? '', day: row?.day ?? todayIso(), rate: row?.rate ?? '' }}
      action="Save"
      send={(body) => put({ company: company.id, body }).unwrap().then(close)}
      close={close}
    >
      {(form) => (
        <>
          <div className="grid grid-cols-3 gap-x-3">
            <FormField form={form} name="currency" label="Currency" hint="EUR, USD …" autoFocus />
            <FormDay form={form} name="day" label="From" none="" />
            <FormField form={form} name="rate" label={`1 unit in ${company.baseCurrency}`} />
          </div>
          <FormEffect form={form} path="/rates" id={null} />
        </>
      )}
    </FormDialog>
  );
}
