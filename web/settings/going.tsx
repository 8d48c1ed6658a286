import { useController, type FieldValues, type Path, type UseFormReturn } from 'react-hook-form';
import type { DimensionRow, Going, GoingShown } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { LabelledChoice } from '../ui/form-choice';
import { settingsApi } from './api';

/** The company's dimensions that lines are coded with now; none while they are fetched. */
export function useDimensions(): DimensionRow[] {
  const { company } = usePlace();
  const { currentData } = settingsApi.useDimensionsQuery({ company: company.id });
  return currentData?.dimensions.filter((d) => d.active) ?? [];
}

/** What goes with a row of a list, as a form begins with it. */
export const goingFrom = (row: { going: GoingShown } | null): Going => row?.going.map(({ field, valueId }) => ({ field, valueId })) ?? [];
/** "PALMROOF Palm House roof · …" */
export const goingSaid = (row: { going: GoingShown }): string => row.going.map((g) => g.value).join(' · ');

/** The fields of a form for what goes with a row: one for each dimension, but its own. */
export function FormGoing<T extends FieldValues & { going?: Going }>({
  form,
  shown,
  own,
}: {
  form: UseFormReturn<T>;
  shown: GoingShown;
  own?: DimensionRow['field'];
}) {
  const dimensions = useDimensions().filter((d) => d.field !== own);
  const { field } = useController({ control: form.control, name: 'going' as Path<T> });
  const going = field.value as Going;
  if (dimensions.length === 0) return null;
  return (
    <fieldset>
      <legend className="text-[13px]">Filled in with it, where a row has none</legend>
      <div className="grid grid-cols-2 gap-x-3 gap-y-1">
        {dimensions.map((d) => (
          <LabelledChoice
            key={d.field}
            label={d.name}
            of={d.field}
            value={going.find((g) => g.field === d.field)?.valueId ?? null}
            shown={shown.find((g) => g.field === d.field)?.value ?? null}
            onPick={(id) => field.onChange([...going.filter((g) => g.field !== d.field), ...(id ? [{ field: d.field, valueId: id }] : [])])}
          />
        ))}
      </div>
    </fieldset>
  );
}
