import { inSentence } from '@ledgerline/core/checks';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { UseFormReturn } from 'react-hook-form';
import { PutCombination, type CombinationRow } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField, FormTick } from '../ui/form';
import { FormDialog } from '../ui/form-dialog';
import { settingsApi } from './api';
import { useDimensions } from './going';
import { ListArea } from './list-area';

type Field = CombinationRow['whenField'];
/** What can go together, by what people call it. */
function useFields(): [Field, string][] {
  const own = useDimensions().map(({ field, name }): [Field, string] => [field, name]);
  return [['accountId', 'Account'], ['costCentreId', 'Cost centre'], ['taxCodeId', 'Tax code'], ...own];
}

/** Rules on which codings go together. */
export function CombinationsArea() {
  const { company } = usePlace();
  const { currentData, error } = settingsApi.useCombinationsQuery({ company: company.id });
  const fields = new Map(useFields());
  const named = (field: Field) => inSentence(fields.get(field) ?? 'a closed dimension');
  const columns: Column<CombinationRow>[] = [
    {
      id: 'when',
      head: 'Where',
      width: 320,
      cell: (c) => (
        <>
          the {named(c.whenField)} is <span className="code">{c.whenCodes}</span>
        </>
      ),
    },
    {
      id: 'only',
      head: 'Then',
      cell: (c) => (
        <>
          the {named(c.onlyField)} must be <span className="code">{c.onlyCodes}</span>
        </>
      ),
    },
    { id: 'active', head: '', width: 90, cell: (c) => <span className={c.active ? '' : 'quiet'}>{c.active ? 'holds' : 'off'}</span> },
  ];
  return (
    <ListArea
      title="What goes together"
      detail="Checked as a row is coded, and again at posting. What does not fit is not offered"
      what="rule"
      saves="combinations"
      rows={{ rows: currentData?.combinations ?? [], loading: !currentData && !error, error }}
      columns={columns}
      rowId={(c) => c.id}
      form={(row, close) => <CombinationForm row={row} close={close} />}
    />
  );
}

function CombinationForm({ row, close }: { row: CombinationRow | null; close(): void }) {
  const { company } = usePlace();
  const [put] = settingsApi.usePutCombinationMutation();
  const fields = useFields();
  return (
    <FormDialog
      title={row ? 'Rule on what goes together' : 'New rule on what goes together'}
      schema={PutCombination}
      values={{
        whenField: row?.whenField ?? 'accountId',
        whenCodes: row?.whenCodes ?? '',
        onlyField: row?.onlyField ?? 'taxCodeId',
        onlyCodes: row?.onlyCodes ?? '',
        active: row?.active ?? true,
      }}
      action={row ? 'Save' : 'Make rule'}
      send={(body) =>
        put({ company: company.id, id: row?.id ?? null, body })
          .unwrap()
          .then(close)
      }
      close={close}
    >
      {(form) => (
        <>
          <div className="grid grid-cols-[150px_1fr] gap-x-3 gap-y-2">
            <FormField form={form} name="whenField" label="Where the" options={fields} autoFocus />
            <FormField form={form} name="whenCodes" label="is" hint="6100 to 6199, 63*, 6500" />
            <FormField form={form} name="onlyField" label="the" options={fields} />
            <FormField form={form} name="onlyCodes" label="must be" hint="One code, several, or a range" />
          </div>
          <FormTick form={form} name="active" label="It holds" />
          <Effect form={form as unknown as UseFormReturn<PutCombination>} />
        </>
      )}
    </FormDialog>
  );
}

/** What the rule as it stands would do, before it is saved. */
function Effect({ form }: { form: UseFormReturn<PutCombination> }) {
  const { company } = usePlace();
  const [whenField, whenCodes, onlyField, onlyCodes] = form.watch(['whenField', 'whenCodes', 'onlyField', 'onlyCodes']);
  const [asked, ask] = useState({ whenField, whenCodes, onlyField, onlyCodes });
  useEffect(() => {
    const later = setTimeout(() => ask({ whenField, whenCodes, onlyField, onlyCodes }), 400);
    return () => clearTimeout(later);
  }, [whenField, whenCodes, onlyField, onlyCodes]);
  const whole = Boolean(asked.whenCodes.trim() && asked.onlyCodes.trim()) && asked.whenField !== asked.onlyField;
  const { currentData, error } = settingsApi.useCombinationEffectQuery({ company: company.id, ...asked }, { skip: !whole });
  const rows = (n: number) => (n === 1 ? 'one row' : `${n.toLocaleString('en-GB')} rows`);
  return (
    <section aria-label="What it would do" aria-live="polite" className="min-h-16 border-t hair pt-2 text-[13px]">
      {!whole ? (
        <p className="quiet">What it would do is said here, before it is saved.</p>
      ) : error ? (
        <p className="text-error">{sentenceOf(error)}</p>
      ) : currentData ? (
        <>
          <p>
            {currentData.stopped === 0 ? 'No row in hand is against it. ' : `Stops ${rows(currentData.stopped)} in hand. `}
            {currentData.posted === 0
              ? 'Nothing of the kind was posted in the last year.'
              : currentData.against === 0
                ? `All ${rows(currentData.posted)} of the kind posted in the last year fit.`
                : `Of ${rows(currentData.posted)} posted in the last year ${currentData.against.toLocaleString('en-GB')} were otherwise:`}
          </p>
          <ul className="mt-1">
            {currentData.examples.map((e, i) => (
              <li key={i} className="flex gap-2">
                <Link className="w-24 shrink-0 truncate text-accent hover:underline" to={`/bills/${e.billId}`} target="_blank">
                  {e.invoiceNumber ?? 'no number'}
                </Link>
                <span className="w-40 shrink-0 truncate quiet">{e.supplier}</span>
                <span className="grow truncate">{e.description}</span>
                <span className="code shrink-0">
                  {e.has} · {e.with}
                </span>
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p className="quiet">Looking …</p>
      )}
    </section>
  );
}
