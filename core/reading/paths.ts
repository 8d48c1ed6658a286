import type { HeaderField } from './types.ts';

/** Paths of the reading format by header field. */
export const headerPaths: Record<HeaderField, string> = {
  supplierName: 'supplier.name',
  supplierTaxId: 'supplier.taxId',
  supplierIban: 'supplier.iban',
  buyerName: 'buyer.name',
  invoiceNumber: 'invoiceNumber',
  issueDate: 'issueDate',
  dueDate: 'dueDate',
  paymentTerms: 'paymentTerms',
  currency: 'currency',
  purchaseOrder: 'purchaseOrder',
  netTotal: 'netTotal',
  taxTotal: 'taxTotal',
  grossTotal: 'grossTotal',
};
