import type { Word } from '../../page/index.ts';
import type { LabelledRow, Layout } from '../layout.ts';
import { cellsOf, inlineParts, type Cells } from './cells.ts';
import type { Column, Heading } from './heading.ts';
import type { Product } from './roles.ts';

/** `drift` is how far the columns of the row's page stand from those of the first: left and right edge of each. `code` stands inside a text run. */
export interface TableRow {
  row: LabelledRow;
  cells: Cells;
  code: Word[];
  drift: { x0: number; x1: number }[] | null;
}
/** One line of the bill: its anchor (the row with the amount) and the words of its description over all its rows. */
export interface TableRecord {
  anchor: TableRow;
  description: Word[];
  code: Word[];
}

const baseline = (r: LabelledRow): number => r.y + r.h;

/** The rows below a heading on all pages, repeated headings and what stands above them left out. */
export function rowsBelow(layout: Layout, heading: Heading, headings: Heading[], edges: Column[]): TableRow[] {
  const rows: TableRow[] = [];
  const signature = heading.columns.map((c) => c.role).join();
  const repeats = headings.filter((h) => h.page !== heading.page && h.columns.map((c) => c.role).join() === signature);
  for (const row of layout.rows) {
    if (row.page < heading.page || (row.page === heading.page && row.index <= heading.last)) continue;
    let drift: TableRow['drift'] = null;
    if (row.page !== heading.page) {
      const own = repeats.find((h) => h.page === row.page);
      if (own && row.index <= own.last) continue;
      if (own && own.columns.length === heading.columns.length)
        drift = heading.columns.map((c, i) => ({ x0: own.columns[i]!.x0 - c.x0, x1: own.columns[i]!.x1 - c.x1 }));
    }
    const columns = drift ? edges.map((c, i) => ({ ...c, x0: c.x0 + drift[i]!.x0, x1: c.x1 + drift[i]!.x1 })) : edges;
    const text = edges.findIndex((c) => c.role === 'description');
    const inline = row.columns.length > 1 && text >= 0 ? inlineParts(row.words) : null;
    rows.push({
      row,
      drift,
      code: inline?.code ?? [],
      cells: inline ? columns.map((_, i) => (i === text ? inline.description : [])) : cellsOf(row, columns),
    });
  }
  return rows;
}

/** True for subtotals, totals and carried-forward rows: a total's word in front, and no quantity or price of its own. */
export function isTotalRow({ row, cells }: TableRow, product: Product): boolean {
  const own = [product.quantity, product.price].some((i) => i !== null && cells[i]!.some((w) => /\d/.test(w.text)));
  const starts = row.totals.some(
    (t) => t.role !== 'charge' && t.role !== 'discount' && row.segments.some((s) => s.words[0] === t.words[0]),
  );
  const said = row.segments.some((s) =>
    /^(sub-?\s?total|total|summe|zwischensumme|totaal|subtotaal|sous-total|totale|delsumma|carried|brought)\b/i.test(s.text),
  );
  const carried = row.totals.some((t) => t.role === 'carried');
  return carried || (!own && (starts || said));
}

/** Gathers records from the rows of the table body: anchors and the text rows that belong to each. */
export function recordsOf(body: TableRow[], columns: Column[], product: Product, anchored: (r: TableRow) => boolean): TableRecord[] {
  const set = new Set(body.filter(anchored)),
    isAnchor = (r: TableRow) => set.has(r);
  const places = new Map(body.map((r, i) => [r, i]));
  const textColumn = columns.findIndex((c) => c.role === 'description');
  const codeColumn = columns.findIndex((c) => c.role === 'code');
  const text = (r: TableRow): Word[] => (textColumn >= 0 ? r.cells[textColumn]! : []);
  const starts = (r: TableRow): boolean =>
    columns.some((c, i) => (c.role === 'code' || c.role === 'position') && r.cells[i]!.length > 0) || r.code.length > 0;
  const anchors = body.filter(isAnchor);
  const bare = anchors.filter((a) => text(a).length === 0).length;
  const codeless =
    codeColumn >= 0
      ? anchors.filter((a) => a.cells[codeColumn]!.length === 0).length
      : body.some((r) => r.code.length > 0)
        ? anchors.length
        : 0;
  const startsAbove =
    body.filter((r) => !isAnchor(r) && starts(r)).length >= anchors.length * 0.6 &&
    (codeless > anchors.length * 0.5 || bare > anchors.length * 0.5);
  const above = bare > anchors.length * 0.5;
  const pitch = pitchOf(body, isAnchor);

  return anchors.map((anchor) => {
    const at = places.get(anchor)!;
    const rows: TableRow[] = [anchor];
    if (startsAbove || above) {
      for (let i = at - 1; i >= 0 && !isAnchor(body[i]!) && body[i]!.row.page === anchor.row.page; i--) {
        // What is set in another style is a comment on the record before.
        if (
          near(body[i + 1]!, body[i]!) &&
          text(body[i]!).length > 0 &&
          (rows.length === 1 || sameStyle(text(body[i]!)[0]!, text(rows[0]!)[0]))
        )
          rows.unshift(body[i]!);
        else break;
        if (startsAbove && starts(body[i]!)) break;
      }
      // In a table whose records start above, what stands there without a start of its own is a comment on the record before.
      if (startsAbove && !rows.some(starts)) rows.splice(0, rows.length - 1);
    } else {
      const own = text(anchor);
      for (let i = at + 1; i < body.length && !isAnchor(body[i]!) && !isTotalRow(body[i]!, product); i++) {
        const next = body[i]!;
        const words = text(next);
        if (words.length === 0) {
          if (near(body[i - 1]!, next)) continue;
          break;
        }
        const first = own[0] ?? words[0]!;
        const gap = baseline(next.row) - baseline(body[i - 1]!.row);
        const alike = sameStyle(words[0]!, first) && Math.abs(words[0]!.x - first.x) < first.size * 0.4;
        if (!alike || starts(next) || next.row.page !== anchor.row.page || gap > Math.min(pitch * 0.93, first.size * 1.75)) break;
        rows.push(next);
      }
    }
    return {
      anchor,
      description: rows.flatMap(text),
      code: rows.flatMap((r) => (r.code.length ? r.code : codeColumn >= 0 ? r.cells[codeColumn]! : [])),
    };
  });
}

const sameStyle = (a: Word, b: Word | undefined): boolean => !b || (a.font === b.font && Math.abs(a.size - b.size) < 0.3);
const near = (a: TableRow, b: TableRow): boolean => Math.abs(baseline(a.row) - baseline(b.row)) < Math.max(a.row.h, b.row.h) * 2.2;

/**
 * The usual distance from one record to the next where nothing stands between them, a quarter of them being nearer on paper that was
 * scanned; large when no two are neighbours.
 */
function pitchOf(body: TableRow[], isAnchor: (r: TableRow) => boolean): number {
  const gaps: number[] = [];
  for (let i = 1; i < body.length; i++) {
    const [a, b] = [body[i - 1]!, body[i]!];
    if (isAnchor(a) && isAnchor(b) && a.row.page === b.row.page) gaps.push(baseline(b.row) - baseline(a.row));
  }
  return gaps.sort((a, b) => a - b)[gaps.length >> 2] ?? Infinity;
}
