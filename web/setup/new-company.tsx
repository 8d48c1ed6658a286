import { countries, NewCompany } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { FormField } from '../ui/form';
import { FormDialog } from '../ui/form-dialog';
import { countryNames } from './countries';
import { setupApi } from './api';

/** One company more: with this one's chart, or the small one to begin with. */
export function NewCompanyDialog({ close }: { close(): void }) {
  const { company, choose } = usePlace();
  const [make] = setupApi.useNewCompanyMutation();
  return (
    <FormDialog
      title="New company"
      schema={NewCompany}
      values={{ name: '', country: 'GB', taxId: null, mailAddress: '', chart: 'copy' }}
      action="Make company"
      send={(body) =>
        make({ company: company.id, body })
          .unwrap()
          .then(({ id }) => {
            close();
            choose(id);
          })
      }
      close={close}
    >
      {(form) => (
        <>
          <FormField form={form} name="name" label="Name" hint="As suppliers write it on their invoices" autoFocus />
          <div className="grid grid-cols-2 gap-x-3 gap-y-2">
            <FormField
              form={form}
              name="country"
              label="Country"
              options={countries.map((c) => [c, countryNames[c]])}
              hint="Its tax codes are made; its currency is that of the books"
            />
            <FormField form={form} name="taxId" label="Tax number" empty="null" />
          </div>
          <FormField
            form={form}
            name="mailAddress"
            label="Mail address for invoices"
            hint="What is sent here is taken in for this company"
          />
          <FormField
            form={form}
            name="chart"
            label="Chart of accounts"
            options={[
              ['copy', `That of ${company.name}, with its cost centres`],
              ['small', 'A small one to begin with'],
            ]}
          />
          <p className="text-[13px] quiet">You have the same roles there as here. Others are added under People.</p>
        </>
      )}
    </FormDialog>
  );
}
