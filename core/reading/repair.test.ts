import { describe, expect, it, vi } from 'vitest';
import type { Page } from '../page/index.ts';
import { sketch } from '../page/sketch.ts';
import { repaired } from './repair.ts';
import { unread } from './read.ts';
import { sketchLine } from './sketch.ts';
import type { Read, Reading } from './types.ts';

const scan = { width: 595, height: 842, back: [1, 0, 0, 0, 1, 0, 0, 0, 1], skew: 0, squared: false, language: 'eng' as const };
/** One row of ink, its amount misread: 7 × 30.00 = 210.00 with a 4 for the 2. */
const page: Page = (() => {
  const of = sketch([
    [100, 100, '7'],
    [200, 100, '30.00'],
    [300, 100, '410.00'],
    [400, 100, '2026'],
  ]);
  return {
    ...of,
    scan,
    words: of.words.map((w) => (w.text === '410.00' ? { ...w, sure: 0.5, others: ['210.00'] } : { ...w, sure: 0.93 })),
  };
})();
const read = (pages: Page[], n: number): Read => {
  const { text, x, y, w, h } = pages[0]!.words[n]!;
  return { value: text, mark: { page: 1, x, y, w, h }, confidence: 0.9, proof: null };
};
/** A reading whose one line has these words as quantity, price and amount; proven where they multiply out. */
function reading(pages: Page[], [q, p, a]: readonly [number, number, number]): Reading {
  const [quantity, unitPrice, amount] = [read(pages, q), read(pages, p), read(pages, a)];
  const proof = Number(quantity.value) * Number(unitPrice.value) === Number(amount.value) ? 'q × p' : null;
  return {
    ...unread(pages),
    flags: proof ? [] : ['grossTotal'],
    lines: [{ ...sketchLine(amount.value), quantity: { ...quantity, proof }, unitPrice, amount: { ...amount, proof } }],
  };
}
const right = [0, 1, 2] as const,
  wrong = [0, 1, 3] as const;

describe('a misread figure that makes the right way to read the lines look wrong', () => {
  it('is put right where the next way comes out by it, and by that alone', () => {
    const again = vi.fn((pages: Page[], next = 0) =>
      // The right way is the best one as soon as it comes out.
      pages[0]!.words[2]!.text === '210.00' || next === 1 ? reading(pages, right) : reading(pages, wrong),
    );
    const { reading: found, pages } = repaired([page], reading([page], wrong), again);
    expect(found.lines[0]!.amount).toMatchObject({ value: '210.00', proof: 'q × p' });
    expect(pages[0]!.words[2]).toMatchObject({ text: '210.00', was: '410.00' });
  });
  it('stays where no way comes out', () => {
    const before = reading([page], wrong);
    expect(repaired([page], before, (pages) => reading(pages, wrong))).toEqual({ pages: [page], reading: before });
  });
  it('a way that comes out without anything put right is not taken: it was passed over for what its rows look like', () => {
    const other: Page = { ...page, words: page.words.map((w) => (w.text === '410.00' ? { ...w, text: '210.00', others: [] } : w)) };
    const before = reading([other], wrong);
    expect(repaired([other], before, (pages, next = 0) => reading(pages, next === 1 ? right : wrong)).reading).toBe(before);
  });
  it('where the best way holds no other is looked at', () => {
    const again = vi.fn(() => reading([page], wrong));
    const holds = { ...reading([page], right), flags: [] };
    repaired([page], { ...holds, lines: holds.lines.map((l) => ({ ...l, quantity: null })) }, again);
    expect(again).not.toHaveBeenCalled();
  });
});
