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
