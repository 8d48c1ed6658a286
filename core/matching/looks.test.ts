import { describe, expect, it } from 'vitest';
import type { Word } from '../page/index.ts';
import { laidOutAnew, placesOf } from './looks.ts';

const names = 'Fernwick Glass Limited Invoice Number Date Quantity Description Price Amount Total Payment Account Telephone'.split(' ');
/** The same words, laid out one way or another, with something of its own. */
const page = (way: (i: number) => { x: number; y: number }, own: string[] = [], off = 0) => ({
  width: 595,
  height: 842,
  words: [...names, ...own]
    .map((text, i): Word => ({ text, ...way(i), w: 30, h: 9, size: 9, font: 'f' }))
    .map((w) => ({ ...w, x: w.x + off, y: w.y + off })),
});
const left = (i: number) => ({ x: 40 + (i % 3) * 150, y: 50 + Math.floor(i / 3) * 60 }),
  right = (i: number) => ({ x: 520 - (i % 2) * 200, y: 780 - Math.floor(i / 2) * 70 });
const earlier = [['Pots'], ['Soil', 'Seeds'], ['Canes']].map((own) => placesOf(page(left, own)));

describe('the look of a layout', () => {
  it('is the same with other rows, and a few points off as scans are', () => {
    expect(laidOutAnew(placesOf(page(left, ['Twine', 'Labels'])), earlier)).toBe(false);
    expect(laidOutAnew(placesOf(page(left, [], 9)), earlier)).toBe(false);
  });
  it('is another where the same words stand elsewhere', () => expect(laidOutAnew(placesOf(page(right)), earlier)).toBe(true));
  it('one earlier page like it is enough; of fewer than three nothing is said', () => {
    expect(laidOutAnew(placesOf(page(right)), [...earlier, placesOf(page(right, ['Hose']))])).toBe(false);
    expect(laidOutAnew(placesOf(page(right)), earlier.slice(1))).toBe(false);
  });
  it('does not know figures, which change, and takes no more than 200 places', () => {
    const figures = Array.from({ length: 300 }, (_, i): Word => ({ text: `${i}.00`, x: i, y: i, w: 9, h: 9, size: 9, font: 'f' }));
    expect(placesOf({ width: 595, height: 842, words: figures })).toEqual([]);
    const words = figures.map((w, i) => ({
      ...w,
      text: `wort${'abcdefghij'[i % 10]}${'abcdefghij'[Math.floor(i / 10) % 10]}${'xyz'[Math.floor(i / 100)]}`,
    }));
    expect(placesOf({ width: 595, height: 842, words })).toHaveLength(200);
    for (const place of placesOf({ width: 595, height: 842, words })) expect(place).toBeLessThan(2 ** 31);
  });
});
