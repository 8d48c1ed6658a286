import { X } from 'lucide-react';
import { Fragment, useMemo } from 'react';
import { cellPath, type LineField } from '@ledgerline/core/bills';
import type { BillLine } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { ChoiceField } from '../ui/choice-field';
import { AmountField, TextField } from '../ui/typed';
import { textWidth } from '../ui/measure';
import { ColumnEdge } from './column-edge';
import { placeColumns, type ColumnId, type Placed } from './columns';
import { cellName } from './marks';
import type { Desk } from './use-desk';
import type { DeskView } from './view';

/** Up and down go to the same cell of the row above or below. */
function arrows(e: React.KeyboardEvent): void {
  const cell = (e.target as HTMLElement).closest('td');
  if (!cell || (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') || e.defaultPrevented || e.altKey) return;
  if ((e.target as HTMLElement).getAttribute('aria-expanded') === 'true') return;
  const rows = [...cell.closest('table')!.querySelectorAll<HTMLTableRowElement>('tr[data-row]')];
  const next = rows[rows.indexOf(cell.parentElement as HTMLTableRowElement) + (e.key === 'ArrowDown' ? 1 : -1)];
  const input = next?.cells[cell.cellIndex]?.querySelector<HTMLElement>('input');
  if (!input) return;
  e.preventDefault();
  input.focus();
}

interface Props {
  desk: Desk;
  rows: Record<string, boolean | null>;
  /** How wide the grid may be, in pixels. */ room: number;
  view: Pick<DeskView, 'widths' | 'hidden'>;
  /** A column was sized. */ onWidth(column: ColumnId, width: number): void;
  /** The row above which the page's ink stands, and how much room that wants. */ ink: { line: string | null; height: number } | null;
}

/** The line grid: description, figures and coding in one row; Enter goes on, arrows move up and down. */
export function LineGrid({ desk, rows, room, view, onWidth, ink }: Props) {
  const { bill, locked, choiceOf } = desk;
  const columns = useMemo(() => placeColumns(bill, choiceOf, room, textWidth, view), [bill, choiceOf, room, view]);
  const wide = columns.reduce((n, c) => n + c.width, 0);
  return (
    <table className="table-fixed border-y hair text-[14px]" style={{ width: wide }} onKeyDown={arrows}>
      <colgroup>
        {columns.map((c) => (
          <col key={c.id} style={{ width: c.width }} />
        ))}
      </colgroup>
      <thead className="bg-base-200">
        <tr>
          {columns.map((c) => (
            <th key={c.id} className={`relative h-7 truncate px-1.5 text-[12px] font-medium ${c.num ? 'text-right' : 'text-left'}`}>
              {c.head}
              {c.head && <ColumnEdge width={c.width} onWidth={(width) => onWidth(c.id, width)} />}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {bill.lines.map((line, i) => (
          <Fragment key={line.id}>
            {ink?.line === line.id && (
              <tr data-ink-row={line.id} aria-hidden>
                <td colSpan={columns.length} style={{ height: ink.height }} />
              </tr>
            )}
            <Row desk={desk} line={line} index={i} holds={rows[line.id] ?? null} columns={columns} />
          </Fragment>
        ))}
        {!locked && (
          <tr className="border-t hair">
            <td />
            <td colSpan={columns.length - 1}>
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

interface RowProps {
  desk: Desk;
  line: BillLine;
  index: number;
  holds: boolean | null;
  columns: Placed[];
}
function Row({ desk, line, index, holds, columns }: RowProps) {
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
  const has = (id: ColumnId) => columns.some((c) => c.id === id);
  const figure = (field: 'quantity' | 'unitPrice' | 'amount') => (
    <td
      data-field={path(field)}
      title={field === 'unitPrice' && line.priceQuantity !== '1' ? `Price for ${line.priceQuantity}` : undefined}
    >
      <AmountField {...cell(field)} plain={field !== 'amount'} currency={bill.currency} value={line[field]} onSave={set(field)} />
    </td>
  );
  const choice = (field: 'accountId' | 'costCentreId' | 'taxCodeId', of: 'accounts' | 'cost-centres' | 'tax-codes') => (
    <td data-field={path(field)} className="text-accent" title={nameOf(desk, line[field])}>
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
      {has('quantity') && figure('quantity')}
      {has('unit') && (
        <td data-field={path('unit')}>
          <TextField {...cell('unit')} value={line.unit} onSave={set('unit')} />
        </td>
      )}
      {has('unitPrice') && figure('unitPrice')}
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

/** Code and name, where a cell is too narrow for both. */
function nameOf(desk: Desk, id: string | null): string | undefined {
  const choice = desk.choiceOf(id);
  return choice ? `${choice.code} ${choice.name}` : undefined;
}
