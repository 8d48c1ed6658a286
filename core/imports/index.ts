export { DryRun, keyOf, type Checked, type Known } from './check.ts';
export { euroCubes, euroTable, ratesFor, type EuroRate } from './euro.ts';
export { lists } from './lists.ts';
export { likelyMapping, mappingFault, type Mapping } from './mapping.ts';
export { named } from './types.ts';
export type { FieldKind, Finding, GoodRow, ImportField, ImportList, ImportValue, ImportValues, ListSpec, Named } from './types.ts';
