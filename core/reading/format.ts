import { headerPaths } from './paths.ts';
import type { HeaderField, Read, Reading } from './types.ts';

const value = (read: Read | null): string | null => read?.value ?? null;

/** A reading as the reading format has it (docs/reading-format.md). */
export function toFormat(file: string, readings: Reading[]): object {
  return { file, documents: readings.map(documentOf) };
}

function documentOf(r: Reading): object {
  const confidence: Record<string, number> = {};
  for (const [field, path] of Object.entries(headerPaths)) {
    const read = r.header[field as HeaderField];
    if (read) confidence[path] = read.confidence;
  }
  for (const [i, line] of r.lines.entries())
    for (const cell of ['code', 'description', 'quantity', 'unitPrice', 'taxRate', 'amount'] as const)
      if (line[cell]) confidence[`lines[${i}].${cell}`] = line[cell].confidence;
  const h = r.header;
  return {
    pages: r.pages,
    kind: r.kind,
    supplier: { name: value(h.supplierName), taxId: value(h.supplierTaxId), iban: value(h.supplierIban) },
    buyer: { name: value(h.buyerName) },
    invoiceNumber: value(h.invoiceNumber),
    issueDate: value(h.issueDate),
    dueDate: value(h.dueDate),
    paymentTerms: value(h.paymentTerms),
    currency: value(h.currency),
    purchaseOrder: value(h.purchaseOrder),
    pricesIncludeTax: r.pricesIncludeTax,
    netTotal: value(h.netTotal),
    taxTotal: value(h.taxTotal),
    grossTotal: value(h.grossTotal),
    charges: r.charges.map((c) => ({ label: c.label, amount: c.amount.value })),
    taxBreakdown: r.taxBreakdown,
    lines: r.lines.map((l) => ({
      code: value(l.code),
      description: value(l.description),
      quantity: value(l.quantity),
      unit: value(l.unit),
      unitPrice: value(l.unitPrice),
      ...(l.priceQuantity ? { priceQuantity: l.priceQuantity } : {}),
      discountPercent: value(l.discountPercent),
      taxRate: value(l.taxRate),
      amount: l.amount.value,
      ...(l.further.length > 0 ? { further: l.further.map(({ heading, value: said }) => ({ heading, value: said })) } : {}),
    })),
    confidence,
    flags: r.flags,
  };
}
