import { headerFields, lineFields, type HeaderField, type LineField } from './types.ts';

/** The address of a line's cell: "0199….amount". */
export const cellPath = (line: string, field: string): string => `${line}.${field}`;

/** What a path means: a field of the header, a cell of a line, or null for anything else ("lines", "proof"). */
export function parsePath(path: string): { field: HeaderField } | { line: string; cell: LineField } | null {
  const at = path.indexOf('.');
  if (at < 0) return headerFields.includes(path as HeaderField) ? { field: path as HeaderField } : null;
  const cell = path.slice(at + 1);
  return lineFields.includes(cell as LineField) ? { line: path.slice(0, at), cell: cell as LineField } : null;
}
