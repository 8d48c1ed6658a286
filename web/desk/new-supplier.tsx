import { NewSupplier, type Bill, type Choice } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { suppliersApi } from '../suppliers/api';
import { Dialog } from '../ui/dialog';
import { FormEnd, FormField, Problem, useSchemaForm } from '../ui/form';

/** A supplier made in place, filled with what the page says. */
export function NewSupplierDialog({ name, bill, done, close }: { name: string; bill: Bill; done(made: Choice): void; close(): void }) {
  const { company } = usePlace();
  const [make, { isLoading }] = suppliersApi.useNewSupplierMutation();
  const { form, submit, trouble, asks } = useSchemaForm(NewSupplier, {
    name,
    taxId: bill.supplierTaxId,
    iban: bill.supplierIban,
    email: null,
    phone: null,
    address: null,
    currency: bill.currency,
    terms: bill.terms,
  });
  return (
    <Dialog title="New supplier" close={close}>
      <form
        className="space-y-2"
        onSubmit={submit((body) =>
          make({ company: company.id, body: asks ? { ...body, evenSo: true } : body })
            .unwrap()
            .then(done),
        )}
      >
        <Problem sentence={trouble} />
        <FormField form={form} name="name" label="Name" autoFocus />
        <div className="grid grid-cols-2 gap-x-3 gap-y-2">
          <FormField form={form} name="taxId" label="Tax number" empty="null" />
          <FormField form={form} name="iban" label="IBAN" empty="null" hint="Counts once a second person has verified it" />
          <FormField form={form} name="email" label="Mail address" empty="null" />
          <FormField form={form} name="currency" label="Currency" />
          <FormField form={form} name="terms" label="Payment terms" empty="null" />
          <FormField form={form} name="address" label="Address" empty="null" />
        </div>
        <FormEnd close={close} action={asks ? 'Make it even so' : 'Make supplier'} busy={isLoading} />
      </form>
    </Dialog>
  );
}
