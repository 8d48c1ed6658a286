export {
  matchSupplier,
  matchCompany,
  tracesOf,
  plainName,
  type KnownSupplier,
  type KnownCompany,
  type Traces,
  type SupplierMatch,
} from './supplier.ts';
export { weighKnown, type Beside } from './weigh.ts';
export { assign, type Pair } from './assignment.ts';
export { matchOrderLines, orderNumber, orderNumbersIn, type Matched, type Wanted } from './orders.ts';
export { bindRows, quantityOf, type Bound, type LineToBind, type RowToBind } from './bind.ts';
export {
  compareWithOrder,
  type BilledRow,
  type Compared,
  type MatchingRules,
  type OrderedLine,
  type PriceOver,
  type Tolerances,
} from './compare.ts';
export { numberKey, numberUnlike, numbersAlike } from './alike.ts';
export { paperKeys, samePaper } from './paper.ts';
export { laidOutAnew, placesOf } from './looks.ts';
