import { Plus } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { calendarCountries } from '@ledgerline/core/dates';
import { SetCompany, type CompanySettings } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { FormField, FormTick, Problem, useSchemaForm } from '../ui/form';
import { FormLines } from '../ui/form-lines';
import { Head, Trouble, Waiting } from '../ui/states';
import { NewCompanyDialog } from '../setup/new-company';
import { settingsApi } from './api';
import { FormEffect } from './effect';
import { UsualCodingSection } from './usual-coding';

export function CompanyArea() {
  const { company, can } = usePlace();
  const [making, make] = useState(false);
  const { currentData, error } = settingsApi.useCompanyQuery({ company: company.id });
  return (
    <>
      <Head title="Company" detail="How invoices name it, and where they reach it">
        {can('people:edit') && (
          <button className="btn btn-sm" onClick={() => make(true)}>
            <Plus size={14} aria-hidden />
            New company
          </button>
        )}
      </Head>
      {making && <NewCompanyDialog close={() => make(false)} />}
      {error ? (
        <Trouble sentence={sentenceOf(error)} />
      ) : !currentData ? (
        <Waiting />
      ) : (
        <div className="min-h-0 grow overflow-auto">
          <CompanyForm key={company.id} settings={currentData} />
          <UsualCodingSection />
        </div>
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
    billToNames: settings.billToNames,
    rateBy: settings.rateBy,
    dueOn: settings.dueOn,
  });
  const known = (calendarCountries as readonly string[]).includes(settings.country);
  return (
    <form
      className="max-w-3xl space-y-3 px-6 py-4"
      onSubmit={submit((body) =>
        save({ company: company.id, body })
          .unwrap()
          .then(() => toast('Saved')),
      )}
    >
      <Problem sentence={trouble} />
      <div className="grid grid-cols-2 gap-x-6 gap-y-3 max-md:grid-cols-1">
        <FormField form={form} name="name" label="Name" hint="As suppliers write it: a page addressed to it belongs here" />
        <FormLines
          form={form}
          name="billToNames"
          label="Other names on invoices, one a line"
          hint="A house, a former name: a page addressed to one of them belongs here, too"
        />
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
        <FormField
          form={form}
          name="dueOn"
          label="Where a due day is no working day"
          hint={`When terms make a Saturday, a Sunday or a public holiday${known ? '' : '; holidays of this country are not known, only weekends'}`}
          options={[
            ['stays', 'It stays as the terms make it'],
            ['next', 'The next working day'],
            ['before', 'The working day before'],
          ]}
        />
        <FormField
          form={form}
          name="rateBy"
          label="Rate of bills in other currencies"
          hint="What is posted keeps the rate it was posted with"
          options={[
            ['day', 'Of the bill’s day, or the last before it'],
            ['month', 'Of the first of the bill’s month, or the last before it'],
          ]}
        />
      </div>
      <FormTick form={form} name="suggests" label="Suggest coding from what was posted; without this only from what is set as usual" />
      <FormTick
        form={form}
        name="firstCodingUsual"
        label="The coding of a supplier’s first posted bill becomes its usual one, where it has none"
      />
      <p className="text-[13px] quiet">
        Books in {settings.baseCurrency}, country {settings.country}. Neither can change once something is posted.
      </p>
      {can('settings:edit') && <FormEffect form={form} path="/settings" id={null} />}
      {can('settings:edit') && (
        <button className="btn btn-primary btn-sm" disabled={isLoading}>
          Save
        </button>
      )}
    </form>
  );
}
