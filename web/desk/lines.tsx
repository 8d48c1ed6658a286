import { X } from 'lucide-react';
import { cellPath, type LineField } from '@ledgerline/core/bills';
import type { BillLine } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { ChoiceField } from '../ui/choice-field';
import { AmountField, TextField } from '../ui/typed';
import { cellName } from './marks';
import type { Desk } from './use-desk';

const heads: [label: string, width: string, num?: boolean][] = [
  ['', 'w-7'],
  ['Description', ''],
  ['Qty', 'w-[54px]', true],
  ['Unit', 'w-[42px]'],
  ['Price', 'w-[64px]', true],
  ['Amount', 'w-[78px]', true],
  ['Account', 'w-[112px]'],
  ['Cost centre', 'w-[88px]'],
  ['Tax', 'w-[44px]'],
  ['', 'w-6'],
];

/** Up and down go to the same cell of the row above or below. */
function arrows(e: React.KeyboardEvent): void {
  const cell = (e.target as HTMLElement).closest('td');
  if (!cell || (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') || e.defaultPrevented || e.altKey) return;
  if ((e.target as HTMLElement).getAttribute('aria-expanded') === 'true') return;
  const row = cell.parentElement as HTMLTableRowElement;
  const next = (e.key === 'ArrowDown' ? row.nextElementSibling : row.previousElementSibling) as HTMLTableRowElement | null;
  const input = next?.cells[cell.cellIndex]?.querySelector<HTMLElement>('input');
  if (!input) return;
  e.preventDefault();
  input.focus();
}

/** The line grid: description, figures and coding in one row; Enter goes on, arrows move up and down. */
export function LineGrid({ desk, rows }: { desk: Desk; rows: Record<string, boolean | null> }) {
  const { bill, locked } = desk;
  return (
    <table className="w-full table-fixed border-y hair text-[14px]" onKeyDown={arrows}>
      <thead className="bg-base-200">
        <tr>
          {heads.map(([label, width, num], i) => (
            <th key={i} className={`${width} h-7 px-1.5 text-[12px] font-medium ${num ? 'text-right' : 'text-left'}`}>
              {label}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {bill.lines.map((line, i) => (
          <Row key={line.id} desk={desk} line={line} index={i} holds={rows[line.id] ?? null} />
        ))}
        {!locked && (
          <tr className="border-t hair">
            <td />
            <td colSpan={9}>
              <button className="h-8 px-1.5 quiet hover:text-accent" title="Alt+N" onClick={() => desk.addLine()}>
                Add a row
              </button>
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

function Row({ desk, line, index, holds }: { desk: Desk; line: BillLine; index: number; holds: boolean | null }) {
  const { company } = usePlace();
  const { bill, locked } = desk;
  const path = (field: LineField) => cellPath(line.id, field);
  const cell = (field: LineField) => ({
    label: cellName(index, field),
    disabled: locked,
    onFocus: () => desk.take(path(field)),
    className: `cell-field ${bill.unsure.includes(path(field)) ? 'unsure' : ''} ${
      bill.exceptions.some((e) => e.path === path(field) && e.severity === 'stops') ? 'wanted' : ''
    }`,
  });
  const set = (field: LineField) => (value: string | null) => desk.setCell(line.id, field, value);
  const figure = (field: 'quantity' | 'unitPrice' | 'amount') => (
    <td
      data-field={path(field)}
      title={field === 'unitPrice' && line.priceQuantity !== '1' ? `Price for ${line.priceQuantity}` : undefined}
    >
      <AmountField {...cell(field)} plain={field !== 'amount'} currency={bill.currency} value={line[field]} onSave={set(field)} />
    </td>
  );
  const choice = (field: 'accountId' | 'costCentreId' | 'taxCodeId', of: 'accounts' | 'cost-centres' | 'tax-codes') => (
    <td data-field={path(field)} className="text-accent">
      <ChoiceField
        {...cell(field)}
        company={company.id}
        of={of}
        show={of === 'tax-codes' ? 'code' : 'both'}
        value={line[field]}
        chosen={desk.choiceOf(line[field])}
        onPick={(c) => {
          if (c) desk.know(c);
          desk.setCell(line.id, field, c?.id ?? null);
        }}
      />
    </td>
  );
  return (
    <tr className="border-t hair" data-row={index}>
      <td
        className={`border-r-2 border-double hair px-1 text-right text-[12px] ${holds === false ? 'font-semibold text-error' : 'quiet'}`}
        title={
          holds === false
            ? 'Quantity × price is not the amount'
            : holds
              ? 'Quantity × price is the amount'
              : line.kind === 'charge'
                ? 'A charge from the totals'
                : undefined
        }
      >
        {line.kind === 'charge' ? '+' : ''}
        {index + 1}
      </td>
      <td data-field={path('description')} title={line.description}>
        <TextField {...cell('description')} value={line.description} onSave={(v) => desk.setCell(line.id, 'description', v ?? '')} />
      </td>
      {figure('quantity')}
      <td data-field={path('unit')}>
        <TextField {...cell('unit')} value={line.unit} onSave={set('unit')} />
      </td>
      {figure('unitPrice')}
      {figure('amount')}
      {choice('accountId', 'accounts')}
      {choice('costCentreId', 'cost-centres')}
      {choice('taxCodeId', 'tax-codes')}
      <td>
        {!locked && (
          <button
            tabIndex={-1}
            className="btn btn-ghost btn-xs btn-square"
            aria-label={`Remove row ${index + 1}`}
            title="Alt+Delete"
            onClick={() => desk.edit({ do: 'remove-line', line: line.id })}
          >
            <X size={13} />
          </button>
        )}
      </td>
    </tr>
  );
}
