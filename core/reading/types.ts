import type { Mark } from '../page/index.ts';

export type Kind = 'invoice' | 'credit-note' | 'other';

/** A value that was read: its text in the reading format, where it stands, how sure, and the sum that proves it. */
export interface Read {
  value: string;
  mark: Mark | null;
  confidence: number;
  proof: string | null;
  /** Where a misread figure was put right: what was read at first and which sum chose. */
  repaired?: string;
  /** What spoke most for it, in the names of features. */
  why?: string[];
  /** What else it might be, most likely first. */
  rivals?: { value: string; mark: Mark | null; confidence: number }[];
}

export interface ReadLine {
  code: Read | null;
  description: Read | null;
  quantity: Read | null;
  unit: Read | null;
  unitPrice: Read | null;
  priceQuantity: string | null;
  discountPercent: Read | null;
  taxRate: Read | null;
  amount: Read;
  /** What else its printed rows say in columns of their own. */
  further: FurtherCell[];
}
/** A cell of a line beside what is computed with: the words over its column, where there are any, and what it says. */
export interface FurtherCell {
  heading: string | null;
  value: string;
  mark: Mark;
}

export interface ReadCharge {
  label: string;
  amount: Read;
}
export interface ReadTax {
  rate: string;
  net: string;
  tax: string;
}

export const headerFields = [
  'supplierName',
  'supplierTaxId',
  'supplierIban',
  'buyerName',
  'invoiceNumber',
  'issueDate',
  'dueDate',
  'paymentTerms',
  'currency',
  'purchaseOrder',
  'netTotal',
  'taxTotal',
  'grossTotal',
] as const;
export type HeaderField = (typeof headerFields)[number];

/** What the engine says about one document. */
export interface Reading {
  pages: number[];
  kind: Kind;
  kindConfidence: number;
  header: Record<HeaderField, Read | null>;
  /** Other traces of the supplier, for matching with the master list. */
  supplierEmails: string[];
  pricesIncludeTax: boolean;
  lines: ReadLine[];
  charges: ReadCharge[];
  taxBreakdown: ReadTax[];
  /** Paths of the reading format that a person should look at. */
  flags: string[];
}
