import { describe, expect, it } from 'vitest';
import { sketch, type Piece } from '../../page/sketch.ts';
import { layOut } from '../layout.ts';
import { grouped } from './group.ts';
import type { LogShares } from './models.ts';
import { printedRows } from './printed.ts';
import { costOf, edgesOf, sets } from './sets.ts';
import type { RowTag } from './tags.ts';

/** Rows of text and amount on one edge, and how sure it is that each is a line. */
const page = (rows: [text: string, amount: string | null, line: number, part?: number][]) => {
  const pieces = rows.flatMap(([text, amount], i): Piece[] => [
    [50, 100 + 16 * i, text],
    ...(amount ? [[400, 100 + 16 * i, amount.padStart(8, '0').slice(-8)] as Piece] : []),
  ]);
  const shares = rows.map(([, , line, part = 0.01]): LogShares<RowTag> => ({
    line: Math.log(line),
    part: Math.log(part),
    none: Math.log(Math.max(0.005, 1 - line - part)),
  }));
  return { rows: printedRows(layOut([sketch(pieces)])), shares };
};

describe('sets of rows', () => {
  it('the one that adds up is found, though a row looks otherwise', () => {
    const { rows, shares } = page([
      ['Oak stake', '40.00', 0.98],
      ['Hand fork', '30.00', 0.2],
      ['Clay pot', '25.00', 0.98],
      ['Together', '95.00', 0.01],
    ]);
    const found = sets(rows, shares, 4, edgesOf(rows, shares)[0]!);
    expect(found.some((f) => f.adds && f.rows.join() === '0,1,2')).toBe(true);
    expect(found[0]).toMatchObject({ rows: [0, 2], cost: 0 });
  });
  it('a row that is printed twice running may be meant once', () => {
    const { rows, shares } = page([
      ['Deep clean', '60.00', 0.99],
      ['Window clean', '35.00', 0.99],
      ['Window clean', '35.00', 0.99],
      ['Evening clean', '20.00', 0.99],
      ['Together', '115.00', 0.01],
    ]);
    expect(sets(rows, shares, 6, edgesOf(rows, shares)[0]!).find((f) => f.adds)?.rows).toHaveLength(3);
  });
  it('rows that are alike err together: each further one costs less than the first', () => {
    expect(costOf([])).toBe(0);
    expect(costOf([3, -3, 3])).toBeLessThan(9);
    expect(costOf([3, -3, 3])).toBeGreaterThan(3);
  });
});

describe('rows that belong to a line', () => {
  it('are what is printed under it; none has an amount where the lines have theirs', () => {
    const { rows, shares } = page([
      ['Oak moulding frame', '40.00', 0.98],
      ['waxed and polished', null, 0.01, 0.9],
      ['Carried forward now', '40.00', 0.01, 0.9],
      ['Hand fork of ash', '30.00', 0.98],
    ]);
    expect(grouped(rows, shares, [0, 3]).map((l) => l.parts)).toEqual([[1], []]);
  });
});
