import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { make } from '../../bench/reading/draw.ts';
import type { Page } from '../page/index.ts';
import { readDocument } from '../reading/index.ts';
import { renumber, takeApart } from './index.ts';

const pagesOf = (seed: number) => make(seed).sheet.pages();
const sizes = (seeds: number[]) => {
  const documents = seeds.map(pagesOf);
  return { pile: documents.flat().map((page, i) => ({ ...page, number: i + 1 })), sizes: documents.map((d) => d.length) };
};

describe('a pile', () => {
  it('one document of any length stays one', () =>
    fc.assert(
      fc.property(fc.nat(50_000), (seed) => takeApart(pagesOf(seed)).length === 1),
      { numRuns: 80 },
    ));
  it('several are parted where each begins', () => {
    // Two documents of the same make-believe supplier in a row may look like one; most piles must come out right.
    let right = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const { pile, sizes: wanted } = sizes([seed * 3, seed * 3 + 1, seed * 3 + 2]);
      if (JSON.stringify(takeApart(pile).map((d) => d.length)) === JSON.stringify(wanted)) right++;
    }
    expect(right).toBeGreaterThanOrEqual(39);
  });
  it('keeps every page once, in order, with its number', () =>
    fc.assert(
      fc.property(fc.array(fc.nat(9999), { minLength: 1, maxLength: 4 }), (seeds) => {
        const { pile } = sizes(seeds);
        expect(
          takeApart(pile)
            .flat()
            .map((p) => p.number),
        ).toEqual(pile.map((p) => p.number));
      }),
      { numRuns: 20 },
    ));
  it('without a head or a number each is told by its own sums closing, where a total is named', () => {
    // Nothing but the rows from the first line to the total.
    const bare = (seed: number) => {
      const [page] = pagesOf(seed);
      const { lines, header } = readDocument([page!]);
      const top = Math.min(...lines.map((l) => l.amount.mark!.y)) - 14,
        end = header.grossTotal!.mark!.y + 14;
      return { ...page!, words: page!.words.filter((w) => w.y > top && w.y < end) };
    };
    const untotalled = (page: Page): Page => {
      const last = Math.max(...page.words.map((w) => w.y));
      return { ...page, words: page.words.filter((w) => w.y < last - 30) };
    };
    for (const seed of [1, 3, 12, 21]) {
      const [first, second] = [bare(seed), { ...bare(seed + 100), number: 2 }];
      expect(takeApart([first, second]).map((d) => d.length)).toEqual([1, 1]);
      expect(takeApart([untotalled(first), second]).map((d) => d.length)).toEqual([2]);
    }
  });
  it('empty pages stay with what stands before them', () => {
    const blank = { number: 2, width: 595, height: 842, words: [] };
    expect(takeApart([pagesOf(1)[0]!, blank]).map((d) => d.length)).toEqual([2]);
  });
  it('numbers a document’s pages from one', () =>
    expect(
      renumber([
        { number: 4, width: 1, height: 1, words: [] },
        { number: 5, width: 1, height: 1, words: [] },
      ]).map((p) => p.number),
    ).toEqual([1, 2]));
});
