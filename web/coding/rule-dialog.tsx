import { useEffect, useState } from 'react';
import type { Path, UseFormReturn } from 'react-hook-form';
import { Link } from 'react-router';
import { codingFields, type CodingField } from '@ledgerline/core/bills';
import { PutCodingRule, type ChoiceKind, type CodingTrialQuery } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { useDimensions } from '../settings/going';
import { FormField, FormTick } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { FormDialog } from '../ui/form-dialog';
import { showDay } from '../ui/format';
import { codingApi } from './api';

/** A rule as the dialog begins with it; `named`: code and name of what it names, by id. */
export interface RuleDraft {
  id: string | null;
  supplierId: string | null;
  words: string | null;
  coding: Partial<Record<CodingField, string | null>>;
  active: boolean;
  named(id: string | null | undefined): string | null;
}
const lists: Partial<Record<CodingField, [ChoiceKind, string]>> = {
  accountId: ['accounts', 'Account'],
  costCentreId: ['cost-centres', 'Cost centre'],
  taxCodeId: ['tax-codes', 'Tax code'],
};
/** The fields that a rule can say, with their lists and names. */
export function useCodingFields(): [CodingField, ChoiceKind, string][] {
  const own = useDimensions();
  return codingFields.flatMap((field): [CodingField, ChoiceKind, string][] => {
    const [of, label] = lists[field] ?? [];
    if (of && label) return [[field, of, label]];
    const dimension = own.find((d) => d.field === field);
    return dimension ? [[field, dimension.field, dimension.name]] : [];
  });
}

/** Makes or changes a rule on how lines are coded; what it would have said of the last year stands below. */
export function RuleDialog({ draft, close, done }: { draft: RuleDraft; close(): void; done?(): void }) {
  const { company } = usePlace();
  const [put] = codingApi.usePutCodingRuleMutation();
  const fields = useCodingFields();
  return (
    <FormDialog
      title={draft.id ? 'Rule' : 'New rule'}
      schema={PutCodingRule}
      values={{
        supplierId: draft.supplierId,
        words: draft.words,
        coding: Object.fromEntries(codingFields.map((field) => [field, draft.coding[field] ?? null])),
        active: draft.active,
      }}
      action={draft.id ? 'Save' : 'Make rule'}
      send={(body) =>
        put({ company: company.id, id: draft.id, body })
          .unwrap()
          .then(() => {
            done?.();
            close();
          })
      }
      close={close}
    >
      {(form) => (
        <>
          <div className="grid grid-cols-2 gap-x-3">
            <FormChoice form={form} name="supplierId" label="Lines of" of="suppliers" shown={draft.named(draft.supplierId)} />
            <FormField form={form} name="words" label="that say" empty="null" autoFocus hint="Words that begin so. Several: gas, water" />
          </div>
          <p className="pt-1 text-[13px]">are coded with</p>
          <div className="grid grid-cols-2 gap-x-3 gap-y-1">
            {fields.map(([field, of, label]) => (
              <FormChoice
                key={field}
                form={form}
                name={`coding.${field}` as Path<PutCodingRule & Record<string, unknown>>}
                label={label}
                of={of}
                shown={draft.named(draft.coding[field])}
              />
            ))}
          </div>
          {draft.id && <FormTick form={form} name="active" label="It holds; without this it says nothing" />}
          <Trial form={form as unknown as UseFormReturn<PutCodingRule>} />
        </>
      )}
    </FormDialog>
  );
}

/** What is asked, once it is whole and nobody is typing. */
function useAsked(form: UseFormReturn<PutCodingRule>): CodingTrialQuery | null {
  const now = JSON.stringify(form.watch(['supplierId', 'words', 'coding']));
  const [asked, ask] = useState(now);
  useEffect(() => {
    const later = setTimeout(() => ask(now), 400);
    return () => clearTimeout(later);
  }, [now]);
  const [supplierId, words, coding] = JSON.parse(asked) as [string | null, string | null, RuleDraft['coding']];
  const given = Object.fromEntries(Object.entries(coding).filter(([, id]) => id)) as Partial<Record<CodingField, string>>;
  const text = words?.trim() ?? '';
  const whole = (supplierId || /[^\s,]{2}/.test(text)) && Object.keys(given).length > 0;
  return whole ? { ...given, ...(supplierId ? { supplierId } : {}), ...(/[^\s,]{2}/.test(text) ? { words: text } : {}) } : null;
}

const counted = (n: number, one: string, many: string): string => `${n.toLocaleString('en-GB')} ${n === 1 ? one : many}`;

function Trial({ form }: { form: UseFormReturn<PutCodingRule> }) {
  const { company } = usePlace();
  const asked = useAsked(form);
  const { currentData: data, error } = codingApi.useCodingTrialQuery({ company: company.id, asked: asked ?? {} }, { skip: !asked });
  return (
    <section aria-label="Tried on the last year" aria-live="polite" className="min-h-20 border-t hair pt-2 text-[13px]">
      {!asked ? (
        <p className="quiet">What it would have said of the last year’s lines is shown here, before it is kept.</p>
      ) : error ? (
        <p className="text-error">{sentenceOf(error)}</p>
      ) : !data ? (
        <p className="quiet">Looking …</p>
      ) : (
        <>
          <p>
            {data.lines === 0
              ? 'No line of the last year is like this. '
              : data.otherwise === 0
                ? data.lines === 1
                  ? 'The one line like this of the last year was coded so. '
                  : `All ${counted(data.lines, 'line', 'lines')} of the last year were coded so. `
                : `Of ${counted(data.lines, 'line', 'lines')} in the last year ${data.same === 0 ? 'none was' : `${data.same.toLocaleString('en-GB')} were`} coded so, ${data.otherwise.toLocaleString('en-GB')} otherwise. `}
            {data.inHand > 0 && `${data.inHand === 1 ? 'One row' : `${data.inHand} rows`} in hand could have it.`}
          </p>
          <ul className="mt-1">
            {data.examples.map((e, i) => (
              <li key={i} className="flex items-baseline gap-2">
                <Link className="w-24 shrink-0 truncate text-accent hover:underline" to={`/bills/${e.billId}`} target="_blank">
                  {e.invoiceNumber ?? 'no number'}
                </Link>
                <span className="w-20 shrink-0 quiet">{showDay(e.day)}</span>
                <span className="grow truncate" title={`${e.supplier ?? ''} ${e.description}`}>
                  {e.description}
                </span>
                <span className={`code shrink-0 ${e.same ? '' : 'text-error'}`}>{e.was || 'nothing'}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
