import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Word } from '../page/index.ts';
import { paperKeys, samePaper } from './paper.ts';

const at = (text: string, x: number, y: number): Word => ({ text, x, y, w: text.length * 5, h: 9, size: 9, font: 'f' });
/** A page of a heading and rows with figures, as a rent or a delivery has it. */
function page(number: string, day: string, amounts: number[]): Word[] {
  const head = ['Fernwick', 'Glass', 'Ltd', 'Invoice', 'number', number, 'Date', day, 'GB123456789', 'Account', '40512', 'Telephone'];
  return [
    ...head.map((t, i) => at(t, 40 + (i % 4) * 110, 40 + Math.floor(i / 4) * 20)),
    ...amounts.flatMap((a, i) => [
      at(`P-${1000 + i}`, 40, 160 + i * 14),
      at('Pane', 120, 160 + i * 14),
      at(a.toFixed(2), 420, 160 + i * 14),
    ]),
    at('Total', 350, 500),
    at(amounts.reduce((s, a) => s + a, 0).toFixed(2), 420, 500),
  ];
}
const amounts = [12.5, 88.1, 43.27, 9.99, 120, 31.4];
const shared = (a: Word[], b: Word[]) => paperKeys(a).some((k) => paperKeys(b).includes(k));

describe('pages of one paper', () => {
  it('are told though the other scan lies elsewhere, a figure is misread and a word is missing', () =>
    fc.assert(
      fc.property(fc.integer({ min: -30, max: 30 }), fc.integer({ min: -30, max: 30 }), fc.nat(30), fc.nat(30), (dx, dy, lost, misread) => {
        const one = page('FW-2041', '2026-11-03', amounts);
        const other = one
          .filter((_, i) => i !== lost)
          .map((w, i) => ({ ...w, x: w.x + dx, y: w.y + dy, text: i === misread ? w.text.replace(/[0-9]/, '8') : w.text }));
        return samePaper(one, other) && shared(one, other);
      }),
    ));
  it('O and 0, l and 1 are read for each other', () => {
    const one = page('FW-2041', '2026-11-03', amounts);
    expect(
      samePaper(
        one,
        one.map((w) => ({ ...w, text: w.text.replace(/0/g, 'O').replace(/1/g, 'l') })),
      ),
    ).toBe(true);
  });
  it('are not those of the same supplier in another month', () => {
    const one = page('FW-2041', '2026-11-03', amounts),
      next = page('FW-2077', '2026-12-03', [11.25, 88.1, 40.3, 9.99, 118, 30.4]);
    expect(samePaper(one, next)).toBe(false);
  });
  it('are not two bills of one day that differ in their number and their order alone', () => {
    const one = [...page('FW-2041', '2026-11-03', amounts), at('PO-8104', 300, 120)],
      other = [...page('FW-2042', '2026-11-03', amounts), at('PO-8105', 300, 120)];
    expect(samePaper(one, other)).toBe(false);
    // Read from ink, one figure is easily another; written, it is what it says.
    const ink = (words: Word[]) => words.map((w) => ({ ...w, sure: 0.9 }));
    expect(samePaper(ink(one), ink(other))).toBe(true);
  });
  it('are not told by a few words, nor by the same words in other places', () => {
    const one = page('FW-2041', '2026-11-03', amounts);
    expect([samePaper(one.slice(0, 4), one.slice(0, 4)), paperKeys(one.slice(0, 4))]).toEqual([false, []]);
    expect(
      samePaper(
        one,
        one.map((w, i) => ({ ...w, x: 40 + ((i * 97) % 480), y: 40 + ((i * 61) % 700) })),
      ),
    ).toBe(false);
  });
  it('of a page as full as a page can be made are compared as far as that is quick', () => {
    const full = Array.from({ length: 200_000 }, (_, i) => at(`F${i}`, i % 500, (i * 7) % 800));
    expect(samePaper(full, full)).toBe(true);
    expect(paperKeys(full)).toHaveLength(20);
  });
  it('keys are 32-bit integers, the same in whatever order the words stand', () => {
    const one = page('FW-2041', '2026-11-03', amounts);
    expect(paperKeys([...one].reverse())).toEqual(paperKeys(one));
    for (const key of paperKeys(one)) expect(key | 0).toBe(key);
  });
});
