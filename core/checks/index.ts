export { checkOf, checks, runChecks, stopsCoding } from './registry.ts';
export { taxByRates } from './sums.ts';
export { holdsPayment } from './identity.ts';
export { spacedIban } from './supplier.ts';
export { mayOverrule, overrulers, type Overrulers } from './overrule.ts';
export { chargedTwice, spanIn, type Span } from './spans.ts';
export { inSentence } from './combinations.ts';
export type {
  Check,
  CheckedBill,
  CheckedLine,
  CodingFacts,
  Combination,
  Dimension,
  Exception,
  Facts,
  Setting,
  Settling,
  Severity,
  SupplierKnown,
} from './types.ts';
