/** The content of an e-invoice in the terms of EN 16931, whatever its syntax. Amounts, rates and quantities are decimal text. */
export interface EInvoice {
  syntax: 'UBL' | 'CII';
  /** BT-24, the specification it says it follows. */
  profile: string | null;
  kind: 'invoice' | 'credit-note';
  typeCode: string | null;
  number: string | null;
  issueDate: string | null;
  dueDate: string | null;
  deliveryDate: string | null;
  terms: string | null;
  currency: string | null;
  orderReference: string | null;
  buyerReference: string | null;
  precedingInvoice: string | null;
  notes: string[];
  seller: Party;
  buyer: Party;
  payment: { iban: string | null; bic: string | null; reference: string | null };
  lines: EInvoiceLine[];
  /** Allowances (BG-20) and charges (BG-21) of the document. */
  adjustments: Adjustment[];
  taxes: TaxShare[];
  totals: Totals;
  attachments: { name: string; mediaType: string; base64: string }[];
}
export interface Party {
  name: string | null;
  taxId: string | null;
  registration: string | null;
  address: string[];
  country: string | null;
  email: string | null;
}
export interface Adjustment {
  charge: boolean;
  amount: string | null;
  base: string | null;
  percent: string | null;
  reason: string | null;
  category: string | null;
  rate: string | null;
}
export interface EInvoiceLine {
  id: string | null;
  name: string | null;
  description: string | null;
  code: string | null;
  quantity: string | null;
  unit: string | null;
  price: string | null;
  priceQuantity: string | null;
  amount: string | null;
  category: string | null;
  rate: string | null;
  adjustments: Adjustment[];
}
/** A line of the tax breakdown (BG-23). */
export interface TaxShare {
  category: string | null;
  rate: string | null;
  base: string | null;
  tax: string | null;
  reason: string | null;
}
/** Document totals, BT-106 to BT-115. */
export interface Totals {
  lines: string | null;
  allowances: string | null;
  charges: string | null;
  net: string | null;
  tax: string | null;
  gross: string | null;
  prepaid: string | null;
  rounding: string | null;
  payable: string | null;
}
