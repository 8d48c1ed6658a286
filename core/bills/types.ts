import type { Mark } from '../page/index.ts';
import type { FurtherCell } from '../reading/types.ts';

/** A value's place on the page, how sure the reader was, the sum that proved it, and what was put right. */
export interface StoredMark {
  mark: Mark | null;
  confidence: number;
  proof: string | null;
  repaired?: string;
  /** What else it may be, as it was read, the likeliest first. */ rivals?: { value: string; mark: Mark | null; why?: string }[];
}

/** What a person may set in the head of a bill. Amounts and dates as text: exact decimals, ISO days. */
export interface HeaderCells {
  kind: 'invoice' | 'credit-note';
  supplierId: string | null;
  invoiceNumber: string | null;
  issueDate: string | null;
  dueDate: string | null;
  terms: string | null;
  currency: string;
  purchaseOrder: string | null;
  net: string | null;
  tax: string | null;
  gross: string | null;
  pricesIncludeTax: boolean;
}
export type HeaderField = keyof HeaderCells;

/** Dimensions that a company names itself (project, branch, fund …), beside account and cost centre. */
export const dimensionFields = ['dimension1', 'dimension2', 'dimension3', 'dimension4', 'dimension5', 'dimension6'] as const;
export type DimensionField = (typeof dimensionFields)[number];
/** What a line is coded with: ids of the company's lists. */
export interface Coding extends Record<DimensionField, string | null> {
  accountId: string | null;
  costCentreId: string | null;
  taxCodeId: string | null;
}
export type CodingField = keyof Coding;
export const codingFields: readonly CodingField[] = ['accountId', 'costCentreId', 'taxCodeId', ...dimensionFields];
/** What of a thing is coding, and null for what it has not. */
export const codingOf = (of: Partial<Coding> | null | undefined): Coding =>
  Object.fromEntries(codingFields.map((field) => [field, of?.[field] ?? null])) as unknown as Coding;

/** What a person may set in a line. */
export interface LineCells extends Coding {
  code: string | null;
  description: string;
  quantity: string | null;
  unit: string | null;
  unitPrice: string | null;
  priceQuantity: string;
  discountPercent: string | null;
  taxRate: string | null;
  amount: string | null;
  /** The day of delivery or service, where it is another than the bill's. */
  serviceDate: string | null;
}
export type LineField = keyof LineCells;
/**
 * line: goods or a service; stock: one of the company's items, of which posting makes a receipt; asset: what stays and stands on an
 * account of assets; charge: freight and the like of the totals; text: words alone, kept with the bill.
 */
export const lineKinds = ['line', 'stock', 'asset', 'charge', 'text'] as const;
export type LineKind = (typeof lineKinds)[number];
/** Whether a row is what was bought, rather than a charge for it or words. */
export const isGoods = (kind: string): boolean => kind === 'line' || kind === 'stock' || kind === 'asset';

export interface WorkingLine extends LineCells {
  id: string;
  kind: LineKind;
  marks: Record<string, StoredMark>;
  /** What else its row on the page says, under which heading. */
  further?: FurtherCell[];
}
/** A bill in hand: its head, its lines in order, where its values stand on the page, and what the reader doubts (paths). */
export interface WorkingBill extends HeaderCells {
  marks: Record<string, StoredMark>;
  unsure: string[];
  lines: WorkingLine[];
}

export type Value = string | boolean | null;
/** One change to a bill. `mark`: the place on the page that the value was taken from. */
export type Operation =
  | { do: 'set'; field: HeaderField; value: Value; mark?: Mark }
  | { do: 'set-cell'; line: string; field: LineField; value: string | null; mark?: Mark }
  | { do: 'add-line'; line: string; kind: LineKind; after: string | null; cells?: Partial<LineCells>; marks?: Record<string, Mark> }
  | { do: 'remove-line'; line: string }
  | { do: 'move-line'; line: string; after: string | null }
  /** Text alone takes away figures and coding; `cells` and `marks` bring back what was taken. */
  | { do: 'set-kind'; line: string; kind: LineKind; cells?: Partial<LineCells>; marks?: Record<string, Mark> }
  | { do: 'looked'; path: string };

export const emptyCells = (): LineCells => ({
  code: null,
  description: '',
  quantity: null,
  unit: null,
  unitPrice: null,
  priceQuantity: '1',
  discountPercent: null,
  taxRate: null,
  amount: null,
  serviceDate: null,
  ...codingOf(null),
});
/** What a row of text alone keeps. */
export const textCells: readonly LineField[] = ['code', 'description'];
/** The rows that carry an amount. */
export const priced = <L extends { kind: string }>(lines: readonly L[]): L[] => lines.filter((l) => l.kind !== 'text');
export const lineFields = Object.keys(emptyCells()) as LineField[];
export const headerFields: readonly HeaderField[] = [
  'kind',
  'supplierId',
  'invoiceNumber',
  'issueDate',
  'dueDate',
  'terms',
  'currency',
  'purchaseOrder',
  'net',
  'tax',
  'gross',
  'pricesIncludeTax',
];
