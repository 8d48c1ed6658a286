import { X } from 'lucide-react';
import { useFieldArray, type Path, type UseFormReturn } from 'react-hook-form';
import { inSentence } from '@ledgerline/core/checks';
import type { Static } from '@sinclair/typebox';
import { ChangeSupplier, NewSupplier, type Choice, type SupplierAccount } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { useCodingFields } from '../coding/rule-dialog';
import { FormField, FormTick } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { FormDialog } from '../ui/form-dialog';
import { FormLines } from '../ui/form-lines';
import { FormEffect } from '../settings/effect';
import { OwnTerms } from '../settings/own-terms';
import { suppliersApi } from './api';

/** A new supplier: by hand, or begun with what a page says. */
export function SupplierDialog({
  begun,
  close,
  done,
}: {
  begun?: Partial<Static<typeof NewSupplier>>;
  close(): void;
  done(made: Choice): void;
}) {
  const { company } = usePlace();
  const [make] = suppliersApi.useNewSupplierMutation();
  return (
    <FormDialog
      title="New supplier"
      schema={NewSupplier}
      values={{
        name: '',
        taxId: null,
        iban: null,
        email: null,
        phone: null,
        address: null,
        currency: company.baseCurrency,
        terms: null,
        ...begun,
      }}
      action="Make supplier"
      evenSo="Make it even so"
      send={(body) => make({ company: company.id, body }).unwrap().then(done)}
      close={close}
    >
      {(form) => (
        <>
          <FormField form={form} name="name" label="Name" autoFocus />
          <div className="grid grid-cols-2 gap-x-3 gap-y-2">
            <FormField form={form} name="taxId" label="Tax number" empty="null" />
            <FormField form={form} name="iban" label="IBAN" empty="null" hint="Counts once a second person has verified it" />
            <FormField form={form} name="email" label="Mail address" empty="null" />
            <FormField form={form} name="phone" label="Telephone" empty="null" />
            <FormField form={form} name="currency" label="Currency" />
            <FormField form={form} name="terms" label="Payment terms" empty="null" list="supplier-terms" hint="net 30, 30 eom, 2/10 n30" />
            <OwnTerms id="supplier-terms" />
          </div>
          <FormField form={form} name="address" label="Address" empty="null" />
        </>
      )}
    </FormDialog>
  );
}

/** A supplier's master data and usual coding. Bank details are a matter of their own. */
export function EditSupplier({ supplier, close }: { supplier: SupplierAccount; close(): void }) {
  const { company } = usePlace();
  const [change] = suppliersApi.useChangeSupplierMutation();
  const fields = useCodingFields();
  return (
    <FormDialog
      title={`Change ${supplier.name}`}
      schema={ChangeSupplier}
      values={{
        name: supplier.name,
        taxId: supplier.taxId,
        email: supplier.email,
        phone: supplier.phone,
        address: supplier.address,
        currency: supplier.currency,
        terms: supplier.terms,
        coding: Object.fromEntries(fields.map(([field]) => [field, supplier.coding[field] ?? null])),
        suggests: supplier.suggests,
        blocked: supplier.blocked,
        paymentsHeld: supplier.paymentsHeld,
        contacts: supplier.contacts,
        otherTaxIds: supplier.otherTaxIds,
        otherAddresses: supplier.otherAddresses,
        rowVersion: supplier.rowVersion,
      }}
      action="Save"
      evenSo="Save even so"
      send={(body) => change({ company: company.id, id: supplier.id, body }).unwrap().then(close)}
      close={close}
      wide
    >
      {(form) => (
        <>
          <div className="grid grid-cols-[1fr_1.4fr] gap-x-3">
            <FormField form={form} name="name" label="Name" autoFocus />
            <FormField form={form} name="address" label="Address" empty="null" />
          </div>
          <div className="grid grid-cols-3 gap-x-3 gap-y-1 max-md:grid-cols-2">
            <FormField form={form} name="taxId" label="Tax number" empty="null" />
            <FormField form={form} name="email" label="Mail address" empty="null" />
            <FormField form={form} name="phone" label="Telephone" empty="null" />
            <FormField form={form} name="currency" label="Currency" />
            <FormField form={form} name="terms" label="Payment terms" empty="null" list="supplier-terms" />
            <OwnTerms id="supplier-terms" />
            {fields.map(([field, of, label]) => {
              const one = supplier.usual.find((u) => u.field === field);
              return (
                <FormChoice
                  key={field}
                  form={form}
                  name={`coding.${field}` as Path<ChangeSupplier & Record<string, unknown>>}
                  label={`Usual ${inSentence(label)}`}
                  of={of}
                  shown={one ? `${one.code} ${one.name}` : null}
                />
              );
            })}
          </div>
          <div className="grid grid-cols-2 gap-x-3">
            <FormField
              form={form}
              name="blocked"
              label="Blocked because"
              empty="null"
              hint="While a reason stands here, none of its bills can go on"
            />
            <FormField
              form={form}
              name="paymentsHeld"
              label="Payments held because"
              empty="null"
              hint="Its bills go on; nothing is paid to it while a reason stands here"
            />
          </div>
          <div className="grid grid-cols-[1fr_1.4fr] gap-x-3">
            <FormLines form={form} name="otherTaxIds" label="Other tax numbers, one a line" hint="In other countries" />
            <FormLines form={form} name="otherAddresses" label="Other addresses, one a line" hint="A branch, or where returns go" />
          </div>
          <Contacts form={form as unknown as UseFormReturn<ChangeSupplier>} />
          <FormTick form={form} name="suggests" label="Code its bills as its posted ones were; without this only by what is usual above" />
          <FormEffect form={form} path="/suppliers" id={supplier.id} />
        </>
      )}
    </FormDialog>
  );
}

/** Whom one reaches there, and what about. */
function Contacts({ form }: { form: UseFormReturn<ChangeSupplier> }) {
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'contacts' });
  return (
    <fieldset>
      <legend className="sr-only">Contacts</legend>
      {fields.map((field, i) => (
        <div key={field.id} className="mb-1 grid grid-cols-[1fr_1fr_1.3fr_1fr_28px] items-end gap-x-2">
          <FormField form={form} name={`contacts.${i}.name`} label="Contact" />
          <FormField form={form} name={`contacts.${i}.about`} label="About" empty="null" />
          <FormField form={form} name={`contacts.${i}.email`} label="Mail address" empty="null" />
          <FormField form={form} name={`contacts.${i}.phone`} label="Telephone" empty="null" />
          <button type="button" className="btn btn-ghost btn-sm px-1" aria-label={`Remove contact ${i + 1}`} onClick={() => remove(i)}>
            <X size={14} aria-hidden />
          </button>
        </div>
      ))}
      <button
        type="button"
        className="btn btn-ghost btn-sm -ml-2"
        disabled={fields.length >= 20}
        onClick={() => append({ name: '', about: null, email: null, phone: null })}
      >
        Another contact …
      </button>
    </fieldset>
  );
}
