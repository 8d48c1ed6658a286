export { applyAll, applyOperation, Misfit, touches } from './operations.ts';
export { cellPath, parsePath } from './paths.ts';
export { cellsOf, placesOf } from './cells.ts';
export { joinRows, splitRow } from './rows.ts';
export { partTax, type Parting } from './tax-parts.ts';
export {
  codingFields,
  codingOf,
  dimensionFields,
  emptyCells,
  headerFields,
  lineFields,
  priced,
  textCells,
  type Coding,
  type CodingField,
  type DimensionField,
  type HeaderCells,
  type HeaderField,
  type LineCells,
  type LineField,
  isGoods,
  lineKinds,
  type LineKind,
  type Operation,
  type StoredMark,
  type Value,
  type WorkingBill,
  type WorkingLine,
} from './types.ts';
