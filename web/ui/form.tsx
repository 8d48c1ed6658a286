import { typeboxResolver } from '@hookform/resolvers/typebox';
import type { Static, TObject } from '@sinclair/typebox';
import { FormatRegistry } from '@sinclair/typebox';
import { useId, useState, type ReactNode } from 'react';
import { get, useForm, type DefaultValues, type FieldValues, type Path, type UseFormReturn } from 'react-hook-form';
import { isIsoDate } from '@ledgerline/core/dates';
import { problemOf, sentenceOf } from '../app/api';

FormatRegistry.Set('email', (text) => /^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(text));
FormatRegistry.Set('date', isIsoDate);
FormatRegistry.Set('uuid', (text) => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(text));

const plain: Record<string, string> = { email: 'This is not a mail address.', date: 'This is not a date of the calendar.' };

/** A form over the schema that the server checks, too. What the server refuses is shown at its field, or above. */
export function useSchemaForm<S extends TObject>(schema: S, values: Static<S>) {
  const form = useForm<Static<S> & FieldValues>({
    resolver: typeboxResolver(schema) as never,
    defaultValues: values as DefaultValues<Static<S> & FieldValues>,
  });
  const [trouble, setTrouble] = useState<string | null>(null);
  /** `asks`: the server asks whether to go on even so. */
  const [asks, setAsks] = useState(false);
  const submit = (send: (body: Static<S>) => Promise<unknown>) =>
    form.handleSubmit(async (body) => {
      setTrouble(null);
      try {
        await send(body as Static<S>);
      } catch (error) {
        const problem = problemOf(error).data;
        setAsks(problem?.kind === 'asks');
        setTrouble(sentenceOf(error));
        for (const { path, sentence } of problem?.errors ?? [])
          if (path.split('.')[0]! in (schema.properties as object)) form.setError(path as never, { message: sentence });
      }
    });
  return { form, submit, trouble, asks };
}

/** One labelled field with its error. Empty text of a field that may be empty is null. */
export function FormField<T extends FieldValues>({
  form,
  name,
  label,
  hint,
  type = 'text',
  empty = 'text',
  autoFocus,
  options,
  list,
}: {
  form: UseFormReturn<T>;
  name: Path<T>;
  label: string;
  hint?: ReactNode;
  type?: 'text' | 'email' | 'password';
  empty?: 'text' | 'null';
  autoFocus?: boolean;
  options?: [value: string, label: string][];
  /** The id of a list of what may be typed, among others. */
  list?: string;
}) {
  const id = useId();
  const error = get(form.formState.errors, name) as { message?: string; type?: string } | undefined;
  const said =
    error && (plain[type] && error.type !== 'custom' && /format/i.test(error.message ?? '') ? plain[type] : inWords(error.message));
  const common = {
    ...form.register(name, { setValueAs: (v: unknown) => (typeof v === 'string' && v.trim() === '' && empty === 'null' ? null : v) }),
    'aria-invalid': Boolean(error),
    'aria-describedby': error || hint ? `${id}-said` : undefined,
    id,
    autoFocus,
  };
  return (
    <div className="text-[13px]">
      <label htmlFor={id} className="quiet">
        {label}
      </label>
      {options ? (
        <select {...common} className="select select-sm mt-0.5 w-full">
          {options.map(([value, text]) => (
            <option key={value} value={value}>
              {text}
            </option>
          ))}
        </select>
      ) : (
        <input {...common} type={type} list={list} autoComplete="off" className="input input-sm mt-0.5 w-full" />
      )}
      {(said || hint) && (
        <span id={`${id}-said`} className={`mt-0.5 block text-[12px] ${said ? 'text-error' : 'quiet'}`}>
          {said ?? hint}
        </span>
      )}
    </div>
  );
}

export function FormTick<T extends FieldValues>({ form, name, label }: { form: UseFormReturn<T>; name: Path<T>; label: string }) {
  return (
    <label className="flex items-center gap-2 text-[14px]">
      <input type="checkbox" className="checkbox checkbox-sm" {...form.register(name)} />
      {label}
    </label>
  );
}

/** Above a form: what is wrong as a whole. */
export const Problem = ({ sentence }: { sentence: string | null }) =>
  sentence ? (
    <p role="alert" className="border-l-4 border-error bg-error/10 px-3 py-1.5 text-[14px]">
      {sentence}
    </p>
  ) : null;

/** The schema's own messages in a clerk's words. */
function inWords(message: string | undefined): string {
  if (!message) return 'This is not right.';
  const least = /greater or equal to (\d+)/.exec(message);
  if (/string length/i.test(message) && least) return Number(least[1]) === 1 ? 'This is needed.' : `Needs at least ${least[1]} characters.`;
  const most = /less or equal to (\d+)/.exec(message);
  if (/string length/i.test(message) && most) return `Can have ${most[1]} characters at most.`;
  if (/pattern|format|Expected/i.test(message)) return 'This does not have the right form.';
  return message;
}
