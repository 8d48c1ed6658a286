export { taxParts, type TaxParts, type TaxableLine } from './parts.ts';
export { netOf, taxByCode, explainedTax, rateOnDay, taxTolerance, withheldOf, type TaxRule, type TaxedLine, type TaxShare } from './tax.ts';
