import { describe, expect, it } from 'vitest';
import { sketch, type Piece } from '../../page/sketch.ts';
import { layOut } from '../layout.ts';
import { readDocument } from '../index.ts';
import type { Weighed } from './described.ts';
import { furtherOf } from './further.ts';
import { itemFeatures } from './itemfeatures.ts';
import { printedRows } from './printed.ts';

type Cells = readonly [x: number, ...texts: string[]];
/** Columns under their headings ("" for none), three lines. */
const table = (...columns: Cells[]): Piece[] =>
  columns.flatMap(([x, ...texts]) => texts.flatMap((t, i): Piece[] => (t === '' ? [] : [[x, 80 + 20 * i, t]])));
/** What stands beside the words and figures that are used. */
function besides(pieces: Piece[], used: string[]) {
  const layout = layOut([sketch(pieces)]),
    rows = printedRows(layout);
  const lines = rows.flatMap((r, row) => (r.row.y > 90 ? [{ row, parts: [] }] : []));
  const seen = itemFeatures(layout, rows, lines) as Weighed[];
  const own = lines.map((_, line) => seen.filter((s) => s.line === line));
  const taken = own.map((items) => new Set(items.filter((w) => used.includes(w.item.text))));
  return furtherOf(own, taken, rows).map((cells) => cells.map(({ heading, value }) => (heading ? `${heading}: ${value}` : value)));
}
const words: Cells = [40, 'Goods', 'Beaker', 'Flask', 'Funnel'],
  amounts: Cells = [470, 'Amount', '12.00', '8.40', '3.10'];
const used = ['Beaker', 'Flask', 'Funnel', '12.00', '8.40', '3.10'];

describe('what lines say beside their figures and words', () => {
  it('is kept under its heading', () =>
    expect(besides(table(words, [200, 'Lot', 'K24', 'B24', 'K17'], [300, 'Seats', '33', '53', '12'], amounts), used)).toEqual([
      ['Lot: K24', 'Seats: 33'],
      ['Lot: B24', 'Seats: 53'],
      ['Lot: K17', 'Seats: 12'],
    ]));
  it('and without one where most lines have it; what one line has is not', () =>
    expect(besides(table(words, [200, '', 'K24', 'B24', 'K17'], [300, '', '', 'rush', ''], amounts), used)).toEqual([
      ['K24'],
      ['B24'],
      ['K17'],
    ]));
  it('a count of the lines says nothing', () =>
    expect(besides(table([15, 'Pos', '1', '2', '3'], words, amounts), used)).toEqual([[], [], []]));
  it('words in the middle of others are not a cell', () =>
    expect(besides(table([40, 'Goods', 'Beaker with spout', 'Flask with cork', 'Funnel'], amounts), [...used, 'spout', 'cork'])).toEqual([
      [],
      [],
      [],
    ]));
  it('a reading carries it with its place on the page', () => {
    const page = sketch([
      [40, 30, 'Quillhaven Glassware Ltd'],
      [400, 30, 'INVOICE'],
      [400, 50, 'Invoice no. QG-4471'],
      ...table(
        [40, 'Description', 'Beaker', 'Flask', 'Funnel'],
        [200, 'Batch', 'K24', 'B24', 'K17'],
        [300, 'Quantity', '6', '2', '1'],
        [380, 'Price', '2.00', '4.20', '3.10'],
        amounts,
      ),
      [380, 180, 'Net'],
      [470, 180, '23.50'],
      [380, 200, 'VAT 20%'],
      [470, 200, '4.70'],
      [380, 220, 'Total GBP'],
      [470, 220, '28.20'],
    ]);
    const { lines } = readDocument([page]);
    expect(lines.map((l) => l.further.map((c) => `${c.heading}: ${c.value}`))).toEqual([['Batch: K24'], ['Batch: B24'], ['Batch: K17']]);
    expect(lines[0]!.further[0]!.mark).toMatchObject({ page: 1, x: 200 });
  });
});
