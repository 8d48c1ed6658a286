import type { Static } from '@sinclair/typebox';
import { ChangeSupplier, NewSupplier, type Choice, type SupplierAccount } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { FormField, FormTick } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { FormDialog } from '../ui/form-dialog';
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
            <FormField form={form} name="terms" label="Payment terms" empty="null" hint="net 30, 30 eom, 2/10 n30" />
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
  const { usual } = supplier;
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
        accountId: supplier.accountId,
        costCentreId: supplier.costCentreId,
        taxCodeId: supplier.taxCodeId,
        suggests: supplier.suggests,
        blocked: supplier.blocked,
        rowVersion: supplier.rowVersion,
      }}
      action="Save"
      evenSo="Save even so"
      send={(body) => change({ company: company.id, id: supplier.id, body }).unwrap().then(close)}
      close={close}
    >
      {(form) => (
        <>
          <FormField form={form} name="name" label="Name" autoFocus />
          <div className="grid grid-cols-2 gap-x-3 gap-y-2">
            <FormField form={form} name="taxId" label="Tax number" empty="null" />
            <FormField form={form} name="email" label="Mail address" empty="null" />
            <FormField form={form} name="phone" label="Telephone" empty="null" />
            <FormField form={form} name="currency" label="Currency" />
            <FormField form={form} name="terms" label="Payment terms" empty="null" />
            <FormChoice form={form} name="accountId" label="Usual account" of="accounts" shown={usual.account} />
            <FormChoice form={form} name="costCentreId" label="Usual cost centre" of="cost-centres" shown={usual.costCentre} />
            <FormChoice form={form} name="taxCodeId" label="Usual tax code" of="tax-codes" shown={usual.taxCode} />
          </div>
          <FormField form={form} name="address" label="Address" empty="null" />
          <FormField
            form={form}
            name="blocked"
            label="Blocked because"
            empty="null"
            hint="While a reason stands here, none of its bills can go on"
          />
          <FormTick form={form} name="suggests" label="Code its bills as its posted ones were; without this only by what is usual above" />
        </>
      )}
    </FormDialog>
  );
}
