import type { FieldValues, Path, PathValue, UseFormReturn } from 'react-hook-form';
import { DateField } from './typed';

/** One labelled day in a form. `none`: what stands for no day. */
export function FormDay<T extends FieldValues>({
  form,
  name,
  label,
  none = null,
}: {
  form: UseFormReturn<T>;
  name: Path<T>;
  label: string;
  none?: '' | null;
}) {
  return (
    <div className="text-[13px]">
      <span className="quiet">{label}</span>
      <DateField
        label={label}
        className="input input-sm mt-0.5 w-full"
        value={form.watch(name) as string | null}
        onSave={(day) => form.setValue(name, (day ?? none) as PathValue<T, Path<T>>, { shouldDirty: true })}
      />
    </div>
  );
}
