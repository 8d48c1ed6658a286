import { useState } from 'react';
import { useController, type FieldValues, type Path, type UseFormReturn } from 'react-hook-form';
import type { Choice, ChoicesQuery } from '@ledgerline/contract';
import type { Static } from '@sinclair/typebox';
import { usePlace } from '../app/company';
import { ChoiceField } from './choice-field';

/** The code and name that a list shows as "6000 Growing media", as a choice. */
function asChoice(id: string | null, shown: string | null): Choice | null {
  const [code = '', ...name] = (shown ?? '').split(' ');
  return id && shown ? { id, code, name: name.join(' '), detail: null } : null;
}

/** One labelled choice from a list in a form. `shown`: code and name of what is chosen at first. `none`: what stands for no choice. */
export function FormChoice<T extends FieldValues>({
  form,
  name,
  label,
  of,
  shown,
  none = null,
  picked,
}: {
  form: UseFormReturn<T>;
  name: Path<T>;
  label: string;
  of: Static<typeof ChoicesQuery>['of'];
  shown: string | null;
  none?: '' | null;
  /** What else is filled in by what is picked. */ picked?(choice: Choice): void;
}) {
  const { field, fieldState } = useController({ control: form.control, name });
  return (
    <LabelledChoice
      label={label}
      of={of}
      shown={shown}
      value={field.value as string | null}
      onPick={(id, choice) => {
        field.onChange(id ?? none);
        if (choice) picked?.(choice);
      }}
      wrong={Boolean(fieldState.error)}
    />
  );
}

/** One labelled choice from a list. `shown`: code and name of what is chosen at first. */
export function LabelledChoice({
  label,
  of,
  shown,
  value,
  onPick,
  wrong = false,
}: {
  label: string;
  of: Static<typeof ChoicesQuery>['of'];
  shown: string | null;
  value: string | null;
  onPick(id: string | null, choice: Choice | null): void;
  wrong?: boolean;
}) {
  const { company } = usePlace();
  const [chosen, setChosen] = useState(() => asChoice(value, shown));
  return (
    <div
      className="text-[13px]"
      // Enter takes what is in hand; only the next one sends the form.
      onKeyDown={(e) => {
        if (e.key === 'Enter' && (e.target as HTMLElement).getAttribute('aria-expanded') === 'true') e.preventDefault();
      }}
    >
      <span className="quiet">{label}</span>
      <ChoiceField
        company={company.id}
        of={of}
        label={label}
        className="input input-sm mt-0.5 w-full"
        show={of === 'tax-codes' ? 'code' : 'both'}
        value={chosen?.id ?? null}
        chosen={chosen}
        onPick={(choice) => {
          setChosen(choice);
          onPick(choice?.id ?? null, choice);
        }}
      />
      {wrong && <span className="text-[12px] text-error">Choose one.</span>}
    </div>
  );
}
