import { X } from 'lucide-react';
import type { Bill, BillLine, Choices } from '@ledgerline/contract';
import { AmountField, TextField } from '../ui/typed';
import { Pick } from '../ui/pick';
import { cellName } from './marks';

interface Props {
  bill: Bill;
  choices: Choices;
  locked: boolean;
  rows: (boolean | null)[];
  setLine(index: number, change: Partial<BillLine>, field: string): void;
  remove(index: number): void;
  add(): void;
  focus(path: string): void;
}

/** The line grid: description, figures and coding in one row; Enter goes on, arrows move up and down. */
export function LineGrid({ bill, choices, locked, rows, setLine, remove, add, focus }: Props) {
  const heads: [string, string][] = [
    ['', 'w-7'],
    ['Description', ''],
    ['Qty', 'w-[54px]'],
    ['Unit', 'w-[42px]'],
    ['Price', 'w-[64px]'],
    ['Amount', 'w-[78px]'],
    ['Account', 'w-[112px]'],
    ['Cost centre', 'w-[88px]'],
    ['Tax', 'w-[44px]'],
    ['', 'w-6'],
  ];
  const look = (i: number, field: string) =>
    `cell-field ${bill.unsure.includes(`lines[${i}].${field}`) ? 'unsure' : ''} ${bill.exceptions.some((e) => e.path === `lines[${i}].${field}` && e.blocking) ? 'wanted' : ''}`;
  return (
    <table
      className="w-full table-fixed border-y hair text-[14px]"
      onKeyDown={(e) => {
        const cell = (e.target as HTMLElement).closest('td');
        if (!cell || (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') || e.defaultPrevented || e.altKey) return;
        const row = cell.parentElement as HTMLTableRowElement;
        const next = (e.key === 'ArrowDown' ? row.nextElementSibling : row.previousElementSibling) as HTMLTableRowElement | null;
        const input = next?.cells[cell.cellIndex]?.querySelector<HTMLElement>('input');
        if (input) {
          e.preventDefault();
          input.focus();
        }
      }}
    >
      <thead className="bg-base-200">
        <tr>
          {heads.map(([label, width], i) => (
            <th key={i} className={`${width} h-7 px-1.5 text-[12px] font-medium ${[2, 4, 5].includes(i) ? 'text-right' : 'text-left'}`}>
              {label}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {bill.lines.map((line, i) => {
          const cell = (field: string) => ({
            label: cellName(i, field),
            className: look(i, field),
            disabled: locked,
            onFocus: () => focus(`lines[${i}].${field}`),
          });
          const why = line.marks['coding']?.proof;
          return (
            <tr key={line.id} className="border-t hair" data-row={i}>
              <td
                className={`border-r-2 border-double hair px-1 text-right text-[12px] ${rows[i] === false ? 'font-semibold text-error' : 'quiet'}`}
                title={
                  rows[i] === false
                    ? 'Quantity × price is not the amount'
                    : rows[i]
                      ? 'Quantity × price is the amount'
                      : line.kind === 'charge'
                        ? 'A charge from the totals'
                        : undefined
                }
              >
                {line.kind === 'charge' ? '+' : ''}
                {i + 1}
              </td>
              <td data-field={`lines[${i}].description`} title={line.description}>
                <TextField
                  {...cell('description')}
                  value={line.description}
                  onSave={(v) => setLine(i, { description: v ?? '' }, 'description')}
                />
              </td>
              <td data-field={`lines[${i}].quantity`}>
                <AmountField
                  {...cell('quantity')}
                  plain
                  currency={bill.currency}
                  value={line.quantity}
                  onSave={(v) => setLine(i, { quantity: v }, 'quantity')}
                />
              </td>
              <td>
                <TextField {...cell('unit')} value={line.unit} onSave={(v) => setLine(i, { unit: v }, 'unit')} />
              </td>
              <td data-field={`lines[${i}].unitPrice`} title={line.priceQuantity !== '1' ? `Price for ${line.priceQuantity}` : undefined}>
                <AmountField
                  {...cell('unitPrice')}
                  plain
                  currency={bill.currency}
                  value={line.unitPrice}
                  onSave={(v) => setLine(i, { unitPrice: v }, 'unitPrice')}
                />
              </td>
              <td data-field={`lines[${i}].amount`}>
                <AmountField
                  {...cell('amount')}
                  currency={bill.currency}
                  value={line.amount}
                  onSave={(v) => setLine(i, { amount: v }, 'amount')}
                />
              </td>
              <td data-field={`lines[${i}].accountId`} className="text-accent" title={why ?? undefined}>
                <Pick
                  compact
                  {...cell('accountId')}
                  value={line.accountId}
                  choices={choices.accounts}
                  onPick={(id) => setLine(i, { accountId: id }, 'accountId')}
                />
              </td>
              <td data-field={`lines[${i}].costCentreId`} className="text-accent">
                <Pick
                  compact
                  {...cell('costCentreId')}
                  value={line.costCentreId}
                  choices={choices.costCentres}
                  onPick={(id) => setLine(i, { costCentreId: id }, 'costCentreId')}
                />
              </td>
              <td data-field={`lines[${i}].taxCodeId`} className="text-accent">
                <Pick
                  codeOnly
                  {...cell('taxCodeId')}
                  value={line.taxCodeId}
                  choices={choices.taxCodes}
                  onPick={(id) => setLine(i, { taxCodeId: id }, 'taxCodeId')}
                />
              </td>
              <td>
                {!locked && (
                  <button
                    tabIndex={-1}
                    className="btn btn-ghost btn-xs btn-square"
                    aria-label={`Remove row ${i + 1}`}
                    title="Alt+Delete"
                    onClick={() => remove(i)}
                  >
                    <X size={13} />
                  </button>
                )}
              </td>
            </tr>
          );
        })}
        {!locked && (
          <tr className="border-t hair">
            <td />
            <td colSpan={9}>
              <button className="h-8 px-1.5 quiet hover:text-accent" title="Alt+N" onClick={add}>
                Add a row
              </button>
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
