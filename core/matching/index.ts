export {
  matchSupplier,
  matchCompany,
  plainName,
  type KnownSupplier,
  type KnownCompany,
  type Traces,
  type SupplierMatch,
} from './supplier.ts';
