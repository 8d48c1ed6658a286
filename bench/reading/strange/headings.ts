import type { Body, Cell } from './body.ts';
import type { WorkedBody } from './worked.ts';
import type { word } from './words.ts';

/** A heading over a column, at a share of the width, to the right edge unless said otherwise. */
type Heading = (label: Parameters<typeof word>[1], share: number, toRight?: boolean) => Cell;

/** The words over the columns of a body. `x1`, `x2`: where the first two figures stand. */
export function headings(
  body: Exclude<Body, WorkedBody>,
  h: Heading,
  { textX, x1, x2 }: Record<'textX' | 'x1' | 'x2', number>,
): (Cell | null)[] {
  const rows: Record<Exclude<Body, WorkedBody>, (Cell | null)[]> = {
    columns: [h('description', textX, false), h('quantity', x1), h('price', x2), h('amount', 1)],
    'figures below': [h('description', 0, false), h('amount', 1)],
    'figures above': [h('quantity', 0, false), h('price', 0.3), h('amount', 1)],
    joined: [h('description', 0, false), h('amount', 0.6), h('quantity', 0.8)],
    'amount first': [h('amount', 0.14), h('description', 0.2, false), h('quantity', 0.85), h('price', 1)],
    tickets: [h('date', 0, false), h('description', 0.32, false), h('quantity', 0.74), h('price', 0.86), h('amount', 1)],
    'ordered and sent': [h('description', 0, false), h('quantity', 0.55), h('quantity', 0.65), h('price', 0.8), h('amount', 1)],
    shifts: [h('date', 0, false), h('description', 0.25, false), h('quantity', 0.75), h('price', 0.87), h('amount', 1)],
    bare: [h('description', 0, false), h('amount', 1)],
    'gross column': [h('description', 0, false), h('quantity', 0.5), h('price', 0.64), h('net', 0.78), h('tax', 0.88), h('gross', 1)],
    points: [h('description', 0, false), h('quantity', 0.7), h('price', 0.85), h('amount', 1)],
    noted: [h('description', 0, false), h('quantity', 0.7), h('price', 0.85), h('amount', 1)],
  };
  return rows[body];
}
