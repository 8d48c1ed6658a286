import type { Bill, Choice } from '@ledgerline/contract';
import { money } from '../ui/format';
import type { DeskView } from './view';

export type ColumnId =
  'number' | 'description' | 'quantity' | 'unit' | 'unitPrice' | 'amount' | 'accountId' | 'costCentreId' | 'taxCodeId' | 'remove';
interface Column {
  id: ColumnId;
  head: string;
  num?: boolean;
  /** In pixels: never narrower; never wider by itself. */
  least: number;
  most: number;
}

const all: Column[] = [
  { id: 'number', head: '', least: 28, most: 28 },
  { id: 'description', head: 'Description', least: 120, most: Infinity },
  { id: 'quantity', head: 'Qty', num: true, least: 34, most: 90 },
  { id: 'unit', head: 'Unit', least: 36, most: 70 },
  { id: 'unitPrice', head: 'Price', num: true, least: 48, most: 100 },
  { id: 'amount', head: 'Amount', num: true, least: 62, most: 120 },
  { id: 'accountId', head: 'Account', least: 74, most: 230 },
  { id: 'costCentreId', head: 'Cost centre', least: 66, most: 200 },
  { id: 'taxCodeId', head: 'Tax', least: 40, most: 70 },
  { id: 'remove', head: '', least: 24, most: 24 },
];

export const columnIds = all.map((c) => c.id);
/** What can be left out: nothing that a bill may have to be settled in. */
export const hideable: ColumnId[] = ['quantity', 'unit', 'unitPrice'];
/** What people call a column. */
export const columnName = (id: ColumnId): string => all.find((c) => c.id === id)!.head;

const inCell = 14;
const headSize = 12,
  textSize = 14;

export interface Placed extends Column {
  width: number;
}

/** What a cell shows, as text. */
function textOf(line: Bill['lines'][number], id: ColumnId, currency: string, choiceOf: (id: string | null) => Choice | null): string {
  if (id === 'number' || id === 'remove') return '';
  const value = line[id];
  if (id === 'accountId' || id === 'costCentreId') {
    const choice = choiceOf(value);
    return choice ? `${choice.code} ${choice.name}` : '';
  }
  if (id === 'taxCodeId') return choiceOf(value)?.code ?? '';
  if (id === 'amount') return money(value, currency);
  return value ?? '';
}

/**
 * The grid's columns for a bill, as wide as what stands in them; the description has what is left, and where that is too little, account
 * and cost centre give of theirs. A unit has a column only where a row has one. What somebody has sized stays so wide; what they left out is
 * not there. `widthOf`: of a text at a size, in pixels.
 */
export function placeColumns(
  bill: Pick<Bill, 'lines' | 'currency'>,
  choiceOf: (id: string | null) => Choice | null,
  room: number,
  widthOf: (text: string, size: number) => number,
  { widths, hidden }: Pick<DeskView, 'widths' | 'hidden'> = { widths: {}, hidden: [] },
): Placed[] {
  const shown = all.filter((c) => !hidden.includes(c.id) && (c.id !== 'unit' || bill.lines.some((l) => l.unit)));
  const placed = shown.map((c): Placed => {
    const own = widths[c.id];
    if (own !== undefined) return { ...c, width: Math.max(c.least, Math.round(own)) };
    const texts = new Set(bill.lines.map((l) => textOf(l, c.id, bill.currency, choiceOf)));
    const wide = Math.max(widthOf(c.head, headSize), ...[...texts].map((t) => widthOf(t, textSize))) + inCell;
    return { ...c, width: Math.ceil(Math.min(c.most, Math.max(c.least, c.most === Infinity ? c.least : wide))) };
  });
  const description = placed.find((c) => c.id === 'description')!;
  const left = room - placed.reduce((n, c) => n + c.width, 0);
  if (left >= 0) description.width += left;
  else {
    const giving = placed.filter((c) => (c.id === 'accountId' || c.id === 'costCentreId') && widths[c.id] === undefined),
      could = giving.reduce((n, c) => n + c.width - c.least, 0);
    const share = could > 0 ? Math.min(1, -left / could) : 0;
    for (const c of giving) c.width -= Math.floor((c.width - c.least) * share);
  }
  return placed;
}
