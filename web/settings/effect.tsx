import { useEffect, useState } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import { Link } from 'react-router';
import type { Effect } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { settingsApi } from './api';

/** What would be sent, once somebody changed something and is not typing. */
function useSettledBody<T extends FieldValues>(form: UseFormReturn<T>): T | null {
  const now = JSON.stringify(form.watch());
  const { isDirty } = form.formState;
  const [settled, settle] = useState<string | null>(null);
  useEffect(() => {
    if (!isDirty) return settle(null);
    const later = setTimeout(() => settle(now), 400);
    return () => clearTimeout(later);
  }, [now, isDirty]);
  return settled === null ? null : (JSON.parse(settled) as T);
}

const bills = (n: number): string => `${n.toLocaleString('en-GB')} ${n === 1 ? 'bill' : 'bills'} in hand`;

/** What a change would do to bills in hand, in sentences, each with one of them. */
export function EffectSaid({ effect: { found, gone } }: { effect: Effect }) {
  // What is found in place of the same at another severity is one sentence, not two.
  const ended = gone.filter((g) => !found.some((f) => f.code === g.code));
  if (found.length === 0 && ended.length === 0) return <p className="quiet">No bill in hand would change.</p>;
  const example = (of: Effect['found'][number]) => (
    <>
      {of.example.sentence} (
      <Link className="text-primary hover:underline" to={`/bills/${of.example.billId}`}>
        {of.example.invoiceNumber ?? 'a bill without a number'}
      </Link>
      )
    </>
  );
  return (
    <ul className="space-y-0.5">
      {found.map((f) => (
        <li key={`${f.code} ${f.severity}`}>
          <b className={f.severity === 'stops' ? 'text-error' : ''}>
            {f.severity === 'stops' ? 'Stops' : 'Asks about'} {bills(f.bills)}:
          </b>{' '}
          {example(f)}
        </li>
      ))}
      {ended.map((g) => (
        <li key={`${g.code} ${g.severity}`}>
          <b>No longer found on {bills(g.bills)}:</b> {example(g)}
        </li>
      ))}
    </ul>
  );
}

/** At the foot of a form: what saving it would do to bills in hand. What is refused, the form says when it is sent. */
export function FormEffect<T extends FieldValues>({ form, path, id }: { form: UseFormReturn<T>; path: string; id: string | null }) {
  const { company } = usePlace();
  const body = useSettledBody(form);
  const { currentData } = settingsApi.useEffectQuery(
    { company: company.id, path: id ? `${path}/${id}` : path, body: body ?? {} },
    { skip: body === null },
  );
  return (
    <section aria-label="Effect" aria-live="polite" className="min-h-6 border-t hair pt-1.5 text-[13px] break-words">
      {body !== null && currentData && <EffectSaid effect={currentData} />}
    </section>
  );
}
