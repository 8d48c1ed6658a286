import { dimensionFields, type LineField } from '@ledgerline/core/bills';
import type { Bill, BillLine, Choice, ChoiceKind } from '@ledgerline/contract';
import { money, showDay } from '../../ui/format';

export type ColumnId = LineField;
/** What stands in a column: words of several lines, a short text, a figure as typed, an amount of the bill's currency, a day, a choice. */
export type Content = 'words' | 'text' | 'figure' | 'money' | 'day' | ChoiceKind;
export interface Column {
  id: ColumnId;
  head: string;
  /** Where it stands alone, without its rows. */ name?: string;
  content: Content;
  num?: boolean;
  /** In pixels: never narrower; never wider by itself. */
  least: number;
  most: number;
  /** Shown by itself only where a row has something in it; never, where it is only shown when asked for. */
  when?: ((line: BillLine) => boolean) | 'asked';
}

/** A company's own dimension as a column. */
export type DimensionHead = Bill['dimensions'][number];

const fixed: Column[] = [
  { id: 'code', head: 'Item', name: 'Item code', content: 'text', least: 44, most: 90, when: (l) => l.code !== null },
  { id: 'description', head: 'Description', content: 'words', least: 150, most: Infinity },
  { id: 'quantity', head: 'Qty', name: 'Quantity', content: 'figure', num: true, least: 34, most: 90 },
  { id: 'unit', head: 'Unit', content: 'text', least: 36, most: 70, when: (l) => Boolean(l.unit) },
  { id: 'unitPrice', head: 'Price', content: 'figure', num: true, least: 48, most: 100 },
  {
    id: 'priceQuantity',
    head: 'Per',
    name: 'Price for how many',
    content: 'figure',
    num: true,
    least: 36,
    most: 70,
    when: (l) => l.priceQuantity !== '1',
  },
  {
    id: 'discountPercent',
    head: 'Disc. %',
    name: 'Discount %',
    content: 'figure',
    num: true,
    least: 48,
    most: 70,
    when: (l) => l.discountPercent !== null,
  },
  { id: 'taxRate', head: 'Tax %', name: 'Tax rate %', content: 'figure', num: true, least: 44, most: 64, when: 'asked' },
  {
    id: 'serviceDate',
    head: 'Delivered',
    name: 'Day of delivery or service',
    content: 'day',
    least: 70,
    most: 100,
    when: (l) => l.serviceDate !== null,
  },
  { id: 'amount', head: 'Amount', content: 'money', num: true, least: 62, most: 120 },
  { id: 'accountId', head: 'Account', content: 'accounts', least: 74, most: 230 },
  { id: 'costCentreId', head: 'Cost centre', content: 'cost-centres', least: 66, most: 200 },
  { id: 'taxCodeId', head: 'Tax', content: 'tax-codes', least: 40, most: 70 },
];

/** All columns of a company's bills: its own dimensions stand before the tax. */
export function columnsOf(dimensions: readonly DimensionHead[]): Column[] {
  const own = dimensions.map(({ field, name }): Column => ({
    id: field,
    head: name,
    content: field,
    least: 60,
    most: 160,
    when: (l) => l[field] !== null,
  }));
  return [...fixed.slice(0, -1), ...own, ...fixed.slice(-1)];
}

export const columnIds: ColumnId[] = [...fixed.map((c) => c.id), ...dimensionFields];
/** What cannot be left out: whatever a bill may have to be settled in. */
const settled: readonly ColumnId[] = ['description', 'amount', 'accountId', 'costCentreId', 'taxCodeId', ...dimensionFields];
export const hideable: ColumnId[] = columnIds.filter((id) => !settled.includes(id));
/** Columns that are there only where a row has something in them, or somebody asks for them. */
export const onDemand: ColumnId[] = [...fixed.filter((c) => c.when).map((c) => c.id), ...dimensionFields];
/** What somebody can say of when it is there. */
export const choosable = (dimensions: readonly DimensionHead[]): Column[] =>
  columnsOf(dimensions).filter((c) => hideable.includes(c.id) || dimensions.some((d) => d.field === c.id));

/** When a column is there: always, never, or where a row needs it. */
export type Standing = 'always' | 'needed' | 'never';
/** What somebody can want of a column, the usual first. */
export const standingsOf = (id: ColumnId): Standing[] => {
  if (settled.includes(id)) return ['needed', 'always'];
  const when = fixed.find((c) => c.id === id)?.when;
  return when === 'asked' ? ['never', 'always'] : when ? ['needed', 'always', 'never'] : ['always', 'never'];
};
export const standingOf = ({ hidden, shown }: ColumnsView, id: ColumnId): Standing =>
  hidden.includes(id) ? 'never' : shown.includes(id) ? 'always' : standingsOf(id)[0]!;
/** What is kept so that a column stands as wanted. */
export function stands({ hidden, shown }: ColumnsView, id: ColumnId, as: Standing): Pick<ColumnsView, 'hidden' | 'shown'> {
  const [usual] = standingsOf(id);
  const without = { hidden: hidden.filter((h) => h !== id), shown: shown.filter((s) => s !== id) };
  if (as === usual) return without;
  return as === 'never' ? { ...without, hidden: [...without.hidden, id] } : { ...without, shown: [...without.shown, id] };
}

/** How somebody wants the columns: sized, in pixels; left out; always there. */
export interface ColumnsView {
  widths: Partial<Record<ColumnId, number>>;
  hidden: ColumnId[];
  shown: ColumnId[];
}

const inCell = 14;
const headSize = 12,
  textSize = 14;
/** Beside the columns: the row's number, and what can be done with the row. */
export const numberWidth = 30,
  menuWidth = 24;

export interface Placed extends Column {
  width: number;
}

export const isChoice = (column: Column): column is Column & { content: ChoiceKind } =>
  !['words', 'text', 'figure', 'money', 'day'].includes(column.content);

/** What a cell shows, as text. */
export function textOf(line: BillLine, column: Column, currency: string, choiceOf: (id: string | null) => Choice | null): string {
  const value = line[column.id];
  if (value === null) return '';
  switch (column.content) {
    case 'money':
      return money(value, currency);
    case 'day':
      return showDay(value);
    case 'tax-codes':
      return choiceOf(value)?.code ?? '';
    default: {
      if (isChoice(column)) {
        const choice = choiceOf(value);
        return choice ? `${choice.code} ${choice.name}` : '';
      }
      return column.id === 'priceQuantity' && value === '1' ? '' : value;
    }
  }
}

/** What goes first where there is too little room for codes and names, unless somebody wants it there. */
const yielding: ColumnId[] = ['code', 'unit'];

/**
 * The grid's columns for a bill, as wide as what stands in them; the description has what is left. Where that is too little, item code and
 * unit go, then account, cost centre and dimensions give of theirs. A column that few bills need comes where a row needs it, or is to have something. What somebody has sized
 * stays so wide; what they left out is not there, what they asked for is. `widthOf`: of a text at a size, in pixels.
 */
export function placeColumns(
  bill: Pick<Bill, 'lines' | 'currency' | 'dimensions' | 'exceptions'>,
  choiceOf: (id: string | null) => Choice | null,
  room: number,
  widthOf: (text: string, size: number) => number,
  { widths, hidden, shown }: ColumnsView = { widths: {}, hidden: [], shown: [] },
): Placed[] {
  const asked = new Set(bill.exceptions.map((e) => e.path.split('.')[1]));
  const there = columnsOf(bill.dimensions).filter(
    ({ id, when }) => !hidden.includes(id) && (!when || shown.includes(id) || asked.has(id) || (when !== 'asked' && bill.lines.some(when))),
  );
  let placed = there.map((c): Placed => {
    const own = widths[c.id];
    if (own !== undefined) return { ...c, width: Math.max(c.least, Math.round(own)) };
    const texts = new Set(bill.lines.map((l) => textOf(l, c, bill.currency, choiceOf)));
    const wide = Math.max(widthOf(c.head, headSize), ...[...texts].map((t) => widthOf(t, textSize))) + inCell;
    return { ...c, width: Math.ceil(Math.min(c.most, Math.max(c.least, c.most === Infinity ? c.least : wide))) };
  });
  const left = () => room - numberWidth - menuWidth - placed.reduce((n, c) => n + c.width, 0);
  for (const id of yielding) if (left() < 0 && !shown.includes(id)) placed = placed.filter((c) => c.id !== id);
  const over = left();
  if (over >= 0) placed.find((c) => c.id === 'description')!.width += over;
  else {
    const giving = placed.filter((c) => isChoice(c) && c.id !== 'taxCodeId' && widths[c.id] === undefined),
      could = giving.reduce((n, c) => n + c.width - c.least, 0);
    const share = could > 0 ? Math.min(1, -over / could) : 0;
    for (const c of giving) c.width -= Math.floor((c.width - c.least) * share);
  }
  return placed;
}
