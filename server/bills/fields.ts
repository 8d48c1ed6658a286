/** The bill's field that shows a field of the reading. */
const shown: Record<string, string> = {
  supplierName: 'supplierId',
  supplierTaxId: 'supplierId',
  supplierIban: 'supplierId',
  buyerName: 'supplierId',
  paymentTerms: 'terms',
  netTotal: 'net',
  taxTotal: 'tax',
  grossTotal: 'gross',
  'supplier.name': 'supplierId',
  'supplier.taxId': 'supplierId',
  'supplier.iban': 'supplierId',
  'buyer.name': 'supplierId',
  charges: 'lines',
  kind: 'lines',
};
export const billField = (field: string): string => shown[field] ?? field;
