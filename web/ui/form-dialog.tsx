import type { Static, TObject } from '@sinclair/typebox';
import type { ReactNode } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import { Dialog, DialogEnd } from './dialog';
import { Problem, useSchemaForm } from './form';

/**
 * A dialog that asks for what a schema says and sends it: refusals at their fields or above, the button while it is sent. Where the
 * server asks whether to go on, the button says `evenSo`, and the answer goes along.
 */
export function FormDialog<S extends TObject>({
  title,
  schema,
  values,
  action,
  evenSo,
  send,
  close,
  wide = false,
  children,
}: {
  title: string;
  schema: S;
  values: Static<S>;
  action: string;
  evenSo?: string;
  send(body: Static<S>): Promise<unknown>;
  close(): void;
  wide?: boolean;
  children(form: UseFormReturn<Static<S> & Record<string, unknown>>): ReactNode;
}) {
  const { form, submit, trouble, asks } = useSchemaForm(schema, values);
  const goesOn = asks && evenSo !== undefined;
  return (
    <Dialog title={title} close={close} wide={wide}>
      <form className="space-y-2" onSubmit={submit((body) => send(goesOn ? { ...body, evenSo: true } : body))}>
        <Problem sentence={trouble} />
        {children(form)}
        <DialogEnd close={close} action={goesOn ? evenSo : action} busy={form.formState.isSubmitting} />
      </form>
    </Dialog>
  );
}
