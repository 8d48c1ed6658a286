import { useState } from 'react';
import type { Choice } from '@ledgerline/contract';
import { splitRow } from '@ledgerline/core/bills';
import { inSentence } from '@ledgerline/core/checks';
import { usePlace } from '../app/company';
import { ShareDialog } from '../charges/dialog';
import { ChoiceField } from '../ui/choice-field';
import { Dialog, DialogEnd } from '../ui/dialog';
import { price } from '../ui/format';
import { itemCells } from './grid/item-cells';
import { SplitDialog } from './grid/split-dialog';
import { RowRule } from './row-rule';
import type { Desk } from './use-desk';

/** What is asked about a row. */
export interface RowQuestion {
  what: 'split' | 'rule' | 'item' | 'share';
  row: number;
}

/** The dialogs about one row: split it, make a rule of it, take an item. */
export function RowDialogs({ desk, asked, close }: { desk: Desk; asked: RowQuestion | null; close(): void }) {
  const { bill } = desk,
    line = asked && bill.lines[asked.row];
  if (!asked || !line) return null;
  if (asked.what === 'rule') return <RowRule desk={desk} row={asked.row} close={close} />;
  if (asked.what === 'share') return <ShareDialog desk={desk} row={asked.row} close={close} />;
  if (asked.what === 'item') return <ItemDialog desk={desk} row={asked.row} close={close} />;
  return (
    <SplitDialog
      line={line}
      row={asked.row}
      currency={bill.currency}
      close={close}
      done={(shares, centres = []) => {
        for (const centre of centres) desk.know(centre);
        const ids = shares.slice(1).map(() => crypto.randomUUID());
        desk.edit(...splitRow(line, shares, ids, bill.currency, centres.map((c) => c.id))); // prettier-ignore
        close();
      }}
    />
  );
}

function ItemDialog({ desk, row, close }: { desk: Desk; row: number; close(): void }) {
  const { company } = usePlace();
  const [item, choose] = useState<Choice | null>(null);
  const { bill } = desk,
    line = bill.lines[row]!;
  const known = (id: string) => item?.going?.find((g) => g.id === id)?.code;
  const said = item ? itemCells(line, item, bill.currency, bill.purchaseOrder !== null) : [];
  const words: Record<string, string> = {
    unitPrice: 'price',
    accountId: 'account',
    taxCodeId: 'tax code',
    costCentreId: 'cost centre',
    ...Object.fromEntries(bill.dimensions.map((d) => [d.field, inSentence(d.name)])),
  };
  return (
    <Dialog title={`Row ${row + 1} takes an item`} close={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (!item) return;
          for (const g of item.going ?? []) desk.know({ ...g, detail: null });
          desk.edit(...said);
          close();
        }}
        // Enter takes what is in hand; only the next one sends the form.
        onKeyDown={(e) => {
          if (e.key === 'Enter' && (e.target as HTMLElement).getAttribute('aria-expanded') === 'true') e.preventDefault();
        }}
      >
        <ChoiceField
          company={company.id}
          of="items"
          label="Item"
          className="input w-full"
          show="both"
          value={item?.id ?? null}
          chosen={item}
          day={bill.issueDate}
          onPick={choose}
        />
        <p className="mt-3 min-h-10 text-[13px] quiet" aria-live="polite">
          {!item
            ? 'Fills in what the row does not have; what stands there stays.'
            : said.length === 0
              ? 'The row has all of it already.'
              : `Fills in ${said
                  .map((op) =>
                    op.do === 'set-kind'
                      ? 'it is bought into stock'
                      : op.do === 'set-cell'
                        ? `${words[op.field] ?? op.field} ${known(op.value!) ?? (/Price|amount/.test(op.field) ? price(op.value!, bill.currency) : op.value)}`
                        : '',
                  )
                  .join(', ')}.`}
        </p>
        <DialogEnd close={close} action="Take it" busy={said.length === 0} />
      </form>
    </Dialog>
  );
}
