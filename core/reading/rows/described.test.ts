import { describe, expect, it } from 'vitest';
import { unlabelled, type Weighed } from './described.ts';

/** A line's description from the words of its rows, the first with its amount. */
const line = (...rows: string[]): Weighed[] =>
  rows.flatMap((text, off) => text.split(' ').map((word) => ({ item: { text: word }, at: 10 + off, first: 10 }) as unknown as Weighed));
const said = (lines: Weighed[][]): string[] => unlabelled(lines).map((words) => words.map((w) => w.item.text).join(' '));

describe('words that stand under each line', () => {
  it('the same in nearly all of them, they are labels of figures', () =>
    expect(said([line('Oak post', 'Qty pcs'), line('Larch rail', 'Qty pcs'), line('Beech wedge', 'Qty pcs')])).toEqual([
      'Oak post',
      'Larch rail',
      'Beech wedge',
    ]));
  it('of a few kinds of goods that come again and again, they are what these are', () => {
    const goods = [
      ['Newt cake tin', 'set of three'],
      ['Beetle key ring', 'enamel on brass'],
    ] as const;
    const lines = Array.from({ length: 40 }, (_, i) => line(...goods[i % 2]!));
    expect(said(lines)[0]).toBe('Newt cake tin set of three');
  });
  it('and nothing else said, they are what the lines are for', () =>
    expect(said([line('Hire of marquee'), line('Hire of marquee'), line('Hire of marquee')])[0]).toBe('Hire of marquee'));
  it('of two lines nothing is told', () =>
    expect(said([line('Oak post', 'Qty pcs'), line('Larch rail', 'Qty pcs')])[0]).toBe('Oak post Qty pcs'));
});
