import type { Mark } from '../page/index.ts';
import { lineFields, type LineCells, type WorkingLine } from './types.ts';

/** A row's cells, without what it is and where they stand. */
export const cellsOf = (line: WorkingLine): LineCells => Object.fromEntries(lineFields.map((f) => [f, line[f]])) as unknown as LineCells;
/** The places on the page of a row's values, by cell. */
export const placesOf = (line: Pick<WorkingLine, 'marks'>): Record<string, Mark> =>
  Object.fromEntries(Object.entries(line.marks).flatMap(([field, stored]) => (stored.mark ? [[field, stored.mark]] : [])));
