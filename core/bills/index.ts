export { applyAll, applyOperation, Misfit, touches } from './operations.ts';
export { cellPath, parsePath } from './paths.ts';
export {
  emptyCells,
  headerFields,
  lineFields,
  type HeaderCells,
  type HeaderField,
  type LineCells,
  type LineField,
  type LineKind,
  type Operation,
  type StoredMark,
  type Value,
  type WorkingBill,
  type WorkingLine,
} from './types.ts';
