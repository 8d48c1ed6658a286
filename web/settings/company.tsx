import { toast } from 'sonner';
import { SetCompany, type CompanySettings } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { FormField, FormTick, Problem, useSchemaForm } from '../ui/form';
import { Head, Trouble, Waiting } from '../ui/states';
import { settingsApi } from './api';

export function CompanyArea() {
  const { company } = usePlace();
  const { currentData, error } = settingsApi.useCompanyQuery({ company: company.id });
  return (
    <>
      <Head title="Company" detail="How invoices name it, and where they reach it" />
      {error ? (
        <Trouble sentence={sentenceOf(error)} />
      ) : !currentData ? (
        <Waiting />
      ) : (
        <CompanyForm key={company.id} settings={currentData} />
      )}
    </>
  );
}

function CompanyForm({ settings }: { settings: CompanySettings }) {
  const { company, can } = usePlace();
  const [save, { isLoading }] = settingsApi.useSetCompanyMutation();
  const { form, submit, trouble } = useSchemaForm(SetCompany, {
    name: settings.name,
    taxId: settings.taxId,
    mailAddress: settings.mailAddress,
    queueOrder: settings.queueOrder,
    suggests: settings.suggests,
    firstCodingUsual: settings.firstCodingUsual,
    taxTolerance: settings.taxTolerance,
  });
  return (
    <form
      className="max-w-lg space-y-3 px-6 py-4"
      onSubmit={submit((body) =>
        save({ company: company.id, body })
          .unwrap()
          .then(() => toast('Saved')),
      )}
    >
      <Problem sentence={trouble} />
      <FormField form={form} name="name" label="Name" hint="As suppliers write it: a page addressed to it belongs here" />
      <FormField form={form} name="taxId" label="Tax number" empty="null" />
      <FormField form={form} name="mailAddress" label="Mail address for invoices" hint="What is sent here is taken in for this company" />
      <FormField
        form={form}
        name="queueOrder"
        label="Taken first from the queue"
        hint="Which bill “Done, next” brings to a clerk"
        options={[
          ['age', 'What came first'],
          ['due', 'What falls due first'],
          ['discount', 'What loses a discount first'],
          ['amount', 'The largest'],
        ]}
      />
      <FormField
        form={form}
        name="taxTolerance"
        label="Tax may differ from its rates by"
        empty="null"
        hint="In the bill’s currency. Without one only rounding passes: a penny a row, two at least. What differs is posted with the code that has most tax"
      />
      <FormTick form={form} name="suggests" label="Suggest coding from what was posted; without this only from what is set as usual" />
      <FormTick
        form={form}
        name="firstCodingUsual"
        label="The coding of a supplier’s first posted bill becomes its usual one, where it has none"
      />
      <p className="text-[13px] quiet">
        Books in {settings.baseCurrency}, country {settings.country}. Neither can change once something is posted.
      </p>
      {can('settings:edit') && (
        <button className="btn btn-primary btn-sm" disabled={isLoading}>
          Save
        </button>
      )}
    </form>
  );
}
