import { useEffect, useRef, useState } from 'react';
import { cellPath, type CodingField } from '@ledgerline/core/bills';
import type { ChoiceKind } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { ChoiceField } from '../ui/choice-field';
import { focusField } from './focus';
import { columnsOf } from './grid/columns';
import { doubtsOf } from './use-desk-keys';
import type { Desk } from './use-desk';

/** One choice for all rows that want it: typed in place, and taken back by one undo. */
export function FillAll({ desk, field, lines }: { desk: Desk; field: CodingField; lines: string[] }) {
  const { company } = usePlace();
  const [asking, ask] = useState(false);
  const place = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    if (asking) place.current?.querySelector('input')?.focus();
  }, [asking]);
  const { content, name, head } = columnsOf(desk.bill.dimensions).find((c) => c.id === field)!,
    label = `${field === 'taxCodeId' ? 'Tax code' : (name ?? head)} for all`;
  if (!asking)
    return (
      <button className="btn btn-xs btn-outline" data-fill={field} title="Alt+A" onClick={() => ask(true)}>
        Choose one for all
      </button>
    );
  return (
    <span
      className="w-56"
      ref={place}
      onBlur={(e) => {
        if (!e.currentTarget.contains(e.relatedTarget)) ask(false);
      }}
    >
      <ChoiceField
        company={company.id}
        of={content as ChoiceKind}
        label={label}
        value={null}
        chosen={null}
        show="both"
        day={desk.bill.issueDate}
        onPick={(choice) => {
          if (!choice) return;
          const chosen = desk.bill.lines.filter((l) => lines.includes(l.id));
          desk.choose(choice, chosen, field);
          ask(false);
          // On with what else wants a look.
          const filled = lines.map((line) => cellPath(line, field));
          const next = doubtsOf(desk).find((path) => !filled.includes(path)) ?? filled[0]!;
          setTimeout(() => focusField(next));
        }}
      />
    </span>
  );
}
