import type { Layout, LabelledRow } from '../layout.ts';

/** Edges of ink that lie as near to each other as this are one edge, in points; and so wide may one be in all. */
const apart = 1.4,
  widest = 5;

/** Where each of some places lies when those that follow closely on each other are one. */
export function gathered(places: readonly number[]): Map<number, number> {
  const to = new Map<number, number>();
  let group: number[] = [];
  const close = () => {
    const middle = group.reduce((a, b) => a + b, 0) / group.length;
    for (const place of group) to.set(place, middle);
    group = [];
  };
  for (const place of [...places].sort((a, b) => a - b)) {
    if (group.length > 0 && (place - group.at(-1)! > apart || place - group[0]! > widest)) close();
    group.push(place);
  }
  if (group.length > 0) close();
  return to;
}

/** Left and right edges as they were meant: on ink, letters of one column begin and end a hair beside each other. */
export interface Edges {
  left(x: number): number;
  right(x: number): number;
}

/** Edges of each page of a document: those of pages that are text stand where they stand. */
export function edgesOfPages(layout: Layout): (page: number) => Edges {
  const exact: Edges = { left: (x) => x, right: (x) => x };
  const of = new Map<number, Edges>();
  for (const page of layout.pages) {
    if (!page.scan) continue;
    const rows = layout.rows.filter((r) => r.page === page.number);
    const lefts = gathered(rows.flatMap((r) => r.segments.map((s) => s.x))),
      // Words end where they end; figures stand under each other.
      figures = rows.flatMap((r) => r.segments.filter((s) => /\d/.test(s.words.at(-1)!.text))),
      rights = gathered(figures.map((s) => s.x + s.w));
    of.set(page.number, { left: (x) => lefts.get(x) ?? x, right: (x) => rights.get(x) ?? x });
  }
  return (page) => of.get(page) ?? exact;
}

/** A row with its pieces on the edges that were meant; its words stay where they are. */
export function straightened(row: LabelledRow, { left, right }: Edges): LabelledRow {
  const segments = row.segments.map((s) => {
    const x = left(s.x),
      last = s.words.at(-1)!;
    return { ...s, x, w: right(last.x + last.w) - x };
  });
  const x = segments[0]!.x,
    last = segments.at(-1)!;
  return { ...row, segments, x, w: last.x + last.w - x };
}
