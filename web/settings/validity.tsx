import type { FieldValues, Path, UseFormReturn } from 'react-hook-form';
import { FormTick } from '../ui/form';
import { FormDay } from '../ui/form-day';
import { showDay, todayIso } from '../ui/format';

interface Valid {
  active: boolean;
  validFrom: string | null;
  validTo: string | null;
}
/** When a row of a list may be used, as a form begins with it. */
export const validityOf = (row: Valid | null): Valid => ({
  active: row?.active ?? true,
  validFrom: row?.validFrom ?? null,
  validTo: row?.validTo ?? null,
});

/** Whether a row of a list is in use: open, closed, or from or until a day. */
export function Validity({ of: { active, validFrom, validTo } }: { of: Valid }) {
  const today = todayIso();
  const said = !active
    ? 'closed'
    : validTo && validTo < today
      ? `until ${showDay(validTo)}`
      : validFrom && validFrom > today
        ? `from ${showDay(validFrom)}`
        : validTo
          ? `to ${showDay(validTo)}`
          : 'open';
  return <span className={!active || (validTo && validTo < today) ? 'quiet' : ''}>{said}</span>;
}

/** The fields of a form for when a row may be used. */
export function FormValidity<T extends FieldValues & Valid>({ form }: { form: UseFormReturn<T> }) {
  return (
    <>
      <div className="grid grid-cols-2 gap-x-3">
        <FormDay form={form} name={'validFrom' as Path<T>} label="For bills dated from" />
        <FormDay form={form} name={'validTo' as Path<T>} label="to" />
      </div>
      <FormTick form={form} name={'active' as Path<T>} label="Open: new lines can use it" />
    </>
  );
}
