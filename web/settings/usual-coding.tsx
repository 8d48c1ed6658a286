import type { Path } from 'react-hook-form';
import { toast } from 'sonner';
import { codingFields } from '@ledgerline/core/bills';
import { PutUsualCoding, type UsualCoding } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { useCodingFields } from '../coding/rule-dialog';
import { Problem, useSchemaForm } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { settingsApi } from './api';

/** How the company codes what nothing else tells anything about. */
export function UsualCodingSection() {
  const { company } = usePlace();
  const { currentData } = settingsApi.useUsualCodingQuery({ company: company.id });
  return currentData ? <UsualCodingForm key={company.id} usual={currentData} /> : null;
}

function UsualCodingForm({ usual }: { usual: UsualCoding }) {
  const { company, can } = usePlace();
  const fields = useCodingFields();
  const [save, { isLoading }] = settingsApi.useSetUsualCodingMutation();
  const { form, submit, trouble } = useSchemaForm(PutUsualCoding, {
    coding: Object.fromEntries(codingFields.map((field) => [field, usual.coding[field] ?? null])),
    roundingAccountId: usual.roundingAccountId,
    accrualAccountId: usual.accrualAccountId,
  });
  const shown = (field: string) => {
    const one = usual.shown.find((s) => s.field === field);
    return one ? `${one.code} ${one.name}` : null;
  };
  return (
    <form
      className="max-w-3xl space-y-3 border-t hair px-6 py-4"
      aria-label="Usual coding"
      onSubmit={submit((body) =>
        save({ company: company.id, body })
          .unwrap()
          .then(() => toast('Saved')),
      )}
    >
      <h2 className="font-semibold">Usual coding</h2>
      <p className="text-[13px] quiet">
        For rows that no rule, posted bill, supplier or item says anything about. It is marked as suggested, and trusted least of all.
      </p>
      <Problem sentence={trouble} />
      <div className="grid grid-cols-3 gap-x-3 gap-y-2">
        {fields.map(([field, of, label]) => (
          <FormChoice
            key={field}
            form={form}
            name={`coding.${field}` as Path<PutUsualCoding & Record<string, unknown>>}
            label={label}
            of={of}
            shown={shown(field)}
          />
        ))}
      </div>
      <div className="grid grid-cols-3 gap-x-3 gap-y-2">
        <FormChoice
          form={form}
          name="roundingAccountId"
          label="Rounding of foreign bills"
          of="all-accounts"
          shown={usual.roundingAccount}
        />
        <p className="col-span-2 self-end pb-1.5 text-[12px] quiet">
          Takes the pennies left over when amounts are converted. Without one the largest row takes them.
        </p>
        <FormChoice form={form} name="accrualAccountId" label="Received, not billed" of="all-accounts" shown={usual.accrualAccount} />
        <p className="col-span-2 self-end pb-1.5 text-[12px] quiet">
          What is owed at the end of a month for goods that came without a bill. Needed to post it.
        </p>
      </div>
      {can('settings:edit') && (
        <button className="btn btn-primary btn-sm" disabled={isLoading}>
          Save usual coding
        </button>
      )}
    </form>
  );
}
