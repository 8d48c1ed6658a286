import { typedDate } from '@ledgerline/core/dates';
import { calculate, dec, minorUnits } from '@ledgerline/core/money';
import type { BillLine, Choice } from '@ledgerline/contract';
import { isChoice, type Column } from './columns';

const longest: Partial<Record<Column['id'], number>> = { code: 60, description: 500, unit: 20 };

/** What a typed text becomes in a column: its value, or why it cannot stand there. Choices are made elsewhere. */
export function valueFrom(
  typed: string,
  column: Column,
  currency: string,
  today: string,
  order: 'day-first' | 'month-first',
): { value: string | null } | { wrong: string } {
  const text = column.content === 'words' ? typed.replace(/\r\n?/g, '\n').replace(/^\n+|\s+$/g, '') : typed.trim();
  if (text === '') return { value: column.id === 'description' ? '' : column.id === 'priceQuantity' ? '1' : null };
  const most = longest[column.id];
  if (most) return text.length > most ? { wrong: `is longer than ${most} letters` } : { value: text };
  if (column.content === 'day') {
    const day = typedDate(text, today, order);
    return day ? { value: day } : { wrong: `“${text}” is not a date` };
  }
  const n = calculate(text.replace(/%$/, ''));
  if (!n) return { wrong: `“${text}” is not a number` };
  return figureFrom(n.toFixed(), column, currency);
}

/** A plain decimal as a figure of a column: amounts to the currency's units, others to six decimals. */
export function figureFrom(plain: string, column: Column, currency: string): { value: string } | { wrong: string } {
  const n = dec(plain);
  if (n.abs().gte(1e15)) return { wrong: 'is too large a number' };
  if (column.id === 'priceQuantity' && n.lte(0)) return { wrong: 'a price is for one or more' };
  return { value: column.content === 'money' ? n.toFixed(minorUnits(currency)) : n.toDecimalPlaces(6).toFixed() };
}

/** What a cell gives to the clipboard: codes, plain figures in a person's own decimal sign, ISO days, so that it can be pasted back anywhere. */
export function plainOf(line: BillLine, column: Column, sign: '.' | ',', choiceOf: (id: string | null) => Choice | null): string {
  const value = line[column.id];
  if (value === null) return '';
  if (isChoice(column)) return choiceOf(value)?.code ?? '';
  if (column.content === 'figure' || column.content === 'money') return value.replace('.', sign);
  return value;
}
