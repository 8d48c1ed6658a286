import { useState } from 'react';
import { toast } from 'sonner';
import { MatchingRules } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { matchingApi } from '../matching/api';
import { FormField, FormTick, Problem, useSchemaForm } from '../ui/form';
import { Head, Waiting } from '../ui/states';

/** How far bills may be from their orders, and what becomes of those that are as ordered. */
export function MatchingArea() {
  const { company } = usePlace();
  const { currentData } = matchingApi.useMatchingRulesQuery({ company: company.id });
  const [saved, again] = useState(0);
  return (
    <>
      <Head title="Orders and bills" detail="How far a bill may be from its order before it is stopped" />
      <div className="min-h-0 grow overflow-auto px-6 py-4">
        {currentData ? <Rules key={saved} rules={currentData} done={() => again(saved + 1)} /> : <Waiting />}
      </div>
    </>
  );
}

function Rules({ rules, done }: { rules: MatchingRules; done(): void }) {
  const { company, can } = usePlace();
  const { form, submit, trouble } = useSchemaForm(MatchingRules, rules);
  const [set] = matchingApi.useSetMatchingRulesMutation();
  const save = submit((body) =>
    set({ company: company.id, body })
      .unwrap()
      .then(() => {
        toast('Kept. Bills in hand were checked again');
        done();
      }),
  );
  return (
    <form className="max-w-2xl" onSubmit={(e) => void save(e)}>
      <fieldset disabled={!can('settings:edit')} className="flex flex-col gap-4">
        <Problem sentence={trouble} />
        <section>
          <h2 className="font-semibold">Price</h2>
          <p className="mb-1 text-[13px] quiet">A row may cost so much more than was ordered. What is cheaper never stops a bill.</p>
          <div className="grid grid-cols-2 gap-x-3">
            <FormField form={form} name="pricePercent" label="Of the ordered price, %" empty="null" hint="Empty: no such limit" />
            <FormField
              form={form}
              name="priceAmount"
              label={`Of the row, ${company.baseCurrency} or the bill’s currency`}
              empty="null"
              hint="Empty: no such limit"
            />
          </div>
        </section>
        <section>
          <h2 className="font-semibold">Quantity</h2>
          <p className="mb-1 text-[13px] quiet">All bills of a line together may bill so much more than was ordered, and than has come.</p>
          <div className="grid grid-cols-2 gap-x-3">
            <FormField form={form} name="quantityPercent" label="Of the ordered quantity, %" empty="null" hint="Empty: no such limit" />
            <FormField form={form} name="quantityAmount" label="In the line’s unit" empty="null" hint="Empty: no such limit" />
          </div>
        </section>
        <FormField
          form={form}
          name="which"
          label="Where both limits are set"
          options={[
            ['stricter', 'Both have to hold'],
            ['looser', 'One of them has to hold'],
          ]}
        />
        <div>
          <FormTick form={form} name="passes" label="A bill that is wholly as ordered goes to approval by itself" />
          <p className="ml-7 text-[13px] quiet">
            Its page names the order, nothing is open or unsure, and every row is to the cent what was ordered and has come. It is marked
            so.
          </p>
        </div>
        {can('settings:edit') && (
          <div>
            <button className="btn btn-primary btn-sm">Save</button>
          </div>
        )}
      </fieldset>
    </form>
  );
}
