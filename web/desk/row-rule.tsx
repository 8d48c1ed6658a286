import { RuleDialog } from '../coding/rule-dialog';
import { wordsFrom } from '../coding/from-row';
import type { Desk } from './use-desk';

/** A rule made of a row: its supplier, what it says, and how it is coded. */
export function RowRule({ desk, row, close }: { desk: Desk; row: number; close(): void }) {
  const line = desk.bill.lines[row];
  if (!line) return null;
  return (
    <RuleDialog
      draft={{
        id: null,
        supplierId: desk.bill.supplierId,
        words: wordsFrom(line.description) || null,
        coding: line,
        active: true,
        named(id) {
          const choice = desk.choiceOf(id ?? null);
          return choice ? `${id === desk.bill.supplierId ? '' : choice.code} ${choice.name}` : null;
        },
      }}
      close={close}
    />
  );
}
