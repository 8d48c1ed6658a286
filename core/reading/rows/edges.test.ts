import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sketch, type Piece } from '../../page/sketch.ts';
import { layOut } from '../layout.ts';
import { gathered } from './edges.ts';
import { printedRows } from './printed.ts';

describe('edges of ink', () => {
  it('that lie close are one, those apart stay apart', () => {
    const to = gathered([100, 100.6, 101.4, 130, 100.9]);
    expect(to.get(100)).toBe(to.get(101.4));
    expect(to.get(130)).toBe(130);
  });
  it('no edge is moved further than a column may be wide, and their order stays', () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 600, noNaN: true }), { maxLength: 60 }), (places) => {
        const to = gathered(places);
        const sorted = [...places].sort((a, b) => a - b);
        for (const place of places) expect(Math.abs(to.get(place)! - place)).toBeLessThanOrEqual(5);
        for (let i = 1; i < sorted.length; i++) expect(to.get(sorted[i]!)!).toBeGreaterThanOrEqual(to.get(sorted[i - 1]!)! - 1e-9);
      }),
    ));

  const pieces: Piece[] = [0, 1, 2].flatMap((i): Piece[] => [
    [50 + i * 0.5, 100 + 14 * i, 'Cedar board'],
    [400 - i * 0.4, 100 + 14 * i, `${i + 1}2.50`],
  ]);
  const scan = { width: 595, height: 842, back: [1, 0, 0, 0, 1, 0, 0, 0, 1], skew: 0, squared: false, language: 'eng' as const };
  const edges = (scanned: boolean) => {
    const page = sketch(pieces);
    return printedRows(layOut([scanned ? { ...page, scan } : page]));
  };
  it('of a picture the columns of its rows begin and end at one edge; words stay where they are', () => {
    const rows = edges(true);
    expect(new Set(rows.map((r) => r.items[0]!.left)).size).toBe(1);
    expect(new Set(rows.map((r) => r.items.at(-1)!.end)).size).toBe(1);
    expect(rows.map((r) => r.row.words[0]!.x)).toEqual([50, 50.5, 51]);
  });
  it('of text they stand where they stand', () => expect(new Set(edges(false).map((r) => r.items[0]!.left)).size).toBe(3));
});
