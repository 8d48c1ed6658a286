/** What a label in the head of a document announces. */
export type FieldLabel =
  | 'invoiceNumber'
  | 'creditNumber'
  | 'issueDate'
  | 'dueDate'
  | 'purchaseOrder'
  | 'terms'
  | 'currency'
  | 'taxId'
  | 'buyerTaxId'
  | 'iban'
  | 'billTo'
  | 'otherDate'
  | 'otherReference'
  | 'deliverTo';
/** What a column of the line table holds. */
export type ColumnLabel =
  | 'code'
  | 'position'
  | 'description'
  | 'quantity'
  | 'unit'
  | 'unitPrice'
  | 'per'
  | 'discount'
  | 'taxRate'
  | 'taxAmount'
  | 'amount'
  | 'grossAmount'
  | 'date'
  | 'otherQuantity'
  | 'otherPrice';
/** What an amount beside or below the line table is. */
export type TotalLabel = 'goods' | 'net' | 'tax' | 'gross' | 'charge' | 'discount' | 'deposit' | 'carried' | 'balance';
/** What a heading says the document is. */
export type KindLabel = 'invoice' | 'creditNote' | 'other';

/**
 * One language's words. Phrases are lower case without accents or punctuation; the longest match wins. A phrase that starts
 * with "?" is weak: it also has other meanings.
 */
export interface Lexicon {
  fields: Partial<Record<FieldLabel, string[]>>;
  columns: Partial<Record<ColumnLabel, string[]>>;
  totals: Partial<Record<TotalLabel, string[]>>;
  kinds: Partial<Record<KindLabel, string[]>>;
  /** Words for what things are counted, weighed and timed in; those of all measures stand with English. */
  units: string;
}
