import { useId, useState } from 'react';
import { useController, type FieldValues, type Path, type UseFormReturn } from 'react-hook-form';

/** A list of short texts in a form, one a line. */
export function FormLines<T extends FieldValues>({
  form,
  name,
  label,
  hint,
}: {
  form: UseFormReturn<T>;
  name: Path<T>;
  label: string;
  hint: string;
}) {
  const id = useId();
  const { field, fieldState } = useController({ control: form.control, name });
  const [typed, setTyped] = useState(() => ((field.value as string[] | undefined) ?? []).join('\n'));
  return (
    <div className="text-[13px]">
      <label htmlFor={id} className="quiet">
        {label}
      </label>
      <textarea
        id={id}
        rows={2}
        className="textarea textarea-sm mt-0.5 min-h-0 w-full"
        aria-describedby={`${id}-said`}
        value={typed}
        onChange={(e) => {
          setTyped(e.target.value);
          field.onChange(e.target.value.split('\n').map((line) => line.trim()).filter((line) => line !== '')); // prettier-ignore
        }}
      />
      <span id={`${id}-said`} className={`mt-0.5 block text-[12px] ${fieldState.error ? 'text-error' : 'quiet'}`}>
        {fieldState.error ? 'One of these is too short, or too long.' : hint}
      </span>
    </div>
  );
}
