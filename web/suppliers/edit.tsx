import { ChangeSupplier, NewSupplier, type Choice, type SupplierAccount } from '@ledgerline/contract';
import { useState } from 'react';
import { usePlace } from '../app/company';
import { ChoiceField } from '../ui/choice-field';
import { Dialog } from '../ui/dialog';
import { FormEnd, FormField, Problem, useSchemaForm } from '../ui/form';
import { suppliersApi } from './api';

/** A new supplier, by hand. */
export function SupplierDialog({ close, done }: { close(): void; done(id: string): void }) {
  const { company } = usePlace();
  const [make, { isLoading }] = suppliersApi.useNewSupplierMutation();
  const { form, submit, trouble, asks } = useSchemaForm(NewSupplier, {
    name: '',
    taxId: null,
    iban: null,
    email: null,
    phone: null,
    address: null,
    currency: company.baseCurrency,
    terms: null,
  });
  return (
    <Dialog title="New supplier" close={close}>
      <form
        className="space-y-2"
        onSubmit={submit((body) =>
          make({ company: company.id, body: asks ? { ...body, evenSo: true } : body })
            .unwrap()
            .then((made) => done(made.id)),
        )}
      >
        <Problem sentence={trouble} />
        <FormField form={form} name="name" label="Name" autoFocus />
        <div className="grid grid-cols-2 gap-x-3 gap-y-2">
          <FormField form={form} name="taxId" label="Tax number" empty="null" />
          <FormField form={form} name="iban" label="IBAN" empty="null" hint="Counts once a second person has verified it" />
          <FormField form={form} name="email" label="Mail address" empty="null" />
          <FormField form={form} name="phone" label="Telephone" empty="null" />
          <FormField form={form} name="currency" label="Currency" />
          <FormField form={form} name="terms" label="Payment terms" empty="null" hint="net 30, 30 eom, 2/10 n30" />
        </div>
        <FormField form={form} name="address" label="Address" empty="null" />
        <FormEnd close={close} action={asks ? 'Make it even so' : 'Make supplier'} busy={isLoading} />
      </form>
    </Dialog>
  );
}

/** The code and name that a list shows as "6000 Growing media", as a choice. */
const asChoice = (id: string | null, shown: string | null): Choice | null => {
  const [code = '', ...name] = (shown ?? '').split(' ');
  return id && shown ? { id, code, name: name.join(' '), detail: null } : null;
};

/** A supplier's master data and usual coding. Bank details are a matter of their own. */
export function EditSupplier({ supplier, close }: { supplier: SupplierAccount; close(): void }) {
  const { company } = usePlace();
  const [change, { isLoading }] = suppliersApi.useChangeSupplierMutation();
  const { form, submit, trouble, asks } = useSchemaForm(ChangeSupplier, {
    name: supplier.name,
    taxId: supplier.taxId,
    email: supplier.email,
    phone: supplier.phone,
    address: supplier.address,
    currency: supplier.currency,
    terms: supplier.terms,
    accountId: supplier.accountId,
    costCentreId: supplier.costCentreId,
    taxCodeId: supplier.taxCodeId,
    rowVersion: supplier.rowVersion,
  });
  const [usual, setUsual] = useState({
    accountId: asChoice(supplier.accountId, supplier.usual.account),
    costCentreId: asChoice(supplier.costCentreId, supplier.usual.costCentre),
    taxCodeId: asChoice(supplier.taxCodeId, supplier.usual.taxCode),
  });
  const pick = (field: keyof typeof usual, of: 'accounts' | 'cost-centres' | 'tax-codes', label: string) => (
    <div className="text-[13px]">
      <span className="quiet">{label}</span>
      <ChoiceField
        company={company.id}
        of={of}
        label={label}
        show={of === 'tax-codes' ? 'code' : 'both'}
        value={usual[field]?.id ?? null}
        chosen={usual[field]}
        onPick={(choice) => {
          setUsual({ ...usual, [field]: choice });
          form.setValue(field, choice?.id ?? null);
        }}
      />
    </div>
  );
  return (
    <Dialog title={`Change ${supplier.name}`} close={close}>
      <form
        className="space-y-2"
        onSubmit={submit((body) =>
          change({ company: company.id, id: supplier.id, body: asks ? { ...body, evenSo: true } : body })
            .unwrap()
            .then(close),
        )}
      >
        <Problem sentence={trouble} />
        <FormField form={form} name="name" label="Name" autoFocus />
        <div className="grid grid-cols-2 gap-x-3 gap-y-2">
          <FormField form={form} name="taxId" label="Tax number" empty="null" />
          <FormField form={form} name="email" label="Mail address" empty="null" />
          <FormField form={form} name="phone" label="Telephone" empty="null" />
          <FormField form={form} name="currency" label="Currency" />
          <FormField form={form} name="terms" label="Payment terms" empty="null" />
          {pick('accountId', 'accounts', 'Usual account')}
          {pick('costCentreId', 'cost-centres', 'Usual cost centre')}
          {pick('taxCodeId', 'tax-codes', 'Usual tax code')}
        </div>
        <FormField form={form} name="address" label="Address" empty="null" />
        <FormEnd close={close} action={asks ? 'Save even so' : 'Save'} busy={isLoading} />
      </form>
    </Dialog>
  );
}
