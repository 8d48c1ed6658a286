export { taxParts, type TaxParts, type TaxableLine } from './parts.ts';
export { netOf, taxByCode, explainedTax, roundingTolerance, type TaxRule, type TaxedLine, type TaxShare } from './tax.ts';
