import { useEffect, useImperativeHandle, useRef, type RefObject } from 'react';
import { codingOf } from '@ledgerline/core/bills';
import type { BillLine, ChoiceKind } from '@ledgerline/contract';
import { usePlace } from '../../app/company';
import { ChoiceField } from '../../ui/choice-field';
import type { Desk } from '../use-desk';
import type { Column } from './columns';
import type { Editor } from './use-grid';

interface Props {
  desk: Desk;
  line: BillLine;
  column: Column & { content: ChoiceKind };
  label: string;
  className: string;
  editor: RefObject<Editor | null>;
}

/** The fields that hold a choice. */
type Coded = Parameters<Desk['choose']>[2];

/** What a cell may be coded with beside what stands in it, as far as it is known by name. */
const offersOf = (line: BillLine, id: Column['id'], desk: Desk) =>
  (line.marks[id]?.rivals ?? []).flatMap(({ value, why }) => {
    const choice = desk.choiceOf(value);
    return choice && why ? [{ choice, why }] : [];
  });

/** The type-ahead of the cell in hand: typing looks for it, Enter or going on takes the one in hand. */
export function CellChoice({ desk, line, column, label, className, editor }: Props) {
  const { company } = usePlace();
  const place = useRef<HTMLDivElement>(null);
  const input = () => place.current?.querySelector('input') ?? null;
  useImperativeHandle(editor, () => ({
    typing: () => (input()?.getAttribute('aria-expanded') === 'true' ? 'edit' : 'no'),
    // The field offers its list by itself, by F2 and by a second click.
    begin: () => undefined,
    commit() {
      input()?.blur();
      return true;
    },
    cancel: () => undefined,
    focus() {
      input()?.focus();
      input()?.select();
    },
  }));
  useEffect(() => {
    input()?.focus({ preventScroll: true });
  }, []);
  const { id, content } = column;
  return (
    <div ref={place}>
      <ChoiceField
        company={company.id}
        of={content}
        label={label}
        inGrid
        disabled={desk.locked}
        className={className}
        show={content === 'tax-codes' ? 'code' : 'both'}
        value={line[id]}
        chosen={desk.choiceOf(line[id])}
        first={offersOf(line, id, desk)}
        day={desk.bill.issueDate}
        beside={codingOf(line)}
        onPick={(c) => desk.choose(c, [line], id as Coded)}
      />
    </div>
  );
}
