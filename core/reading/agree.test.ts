import { describe, expect, it } from 'vitest';
import { sameLines, together } from './agree.ts';
import { sketchLine } from './sketch.ts';
import type { Read, ReadLine } from './types.ts';

const read = (value: string, confidence = 0.97, proof: string | null = null): Read => ({ value, mark: null, confidence, proof });
const line = (given: Partial<ReadLine>): ReadLine => ({ ...sketchLine('24.00'), ...given });
const at = (y: number, x = 400): ReadLine => ({
  ...sketchLine('24.00'),
  amount: { ...read('24.00'), mark: { page: 1, x, y, w: 30, h: 9 } },
});

describe('lines that two ways read', () => {
  it('are the same where their amounts stand in the same places', () => {
    expect(sameLines([at(100), at(120)], [at(100), at(120)])).toBe(true);
    expect(sameLines([at(100), at(120)], [at(100), at(140)])).toBe(false);
    expect(sameLines([at(100)], [at(100), at(120)])).toBe(false);
    expect(sameLines([at(100, 400)], [at(100, 300)])).toBe(false);
  });
  it('stay as sure as they are where both agree, whatever the signs and case', () => {
    const own = line({ description: read('Cedar board, planed'), quantity: read('3') });
    expect(together([own], [line({ description: read('CEDAR BOARD planed'), quantity: read('3.0') })], true)).toEqual([own]);
  });
  it('are unsure where they disagree, with what the other says at hand', () => {
    const [one] = together([line({ description: read('Cedar board') })], [line({ description: read('Lot 7') })], true);
    expect(one!.description).toMatchObject({ value: 'Cedar board', confidence: 0.5, rivals: [{ value: 'Lot 7' }] });
  });
  it('take what only one of them saw', () => {
    const [one] = together([line({})], [line({ code: read('K-7'), taxRate: read('20') })], true);
    expect([one!.code?.value, one!.taxRate?.value]).toEqual(['K-7', '20']);
  });
  it('take quantity, price and amount together from the way in which they multiply', () => {
    const sum = '3 × 8.00 = 24.00';
    const proven = line({ quantity: read('3', 0.99, sum), unitPrice: read('8.00', 0.99, sum), amount: read('24.00', 0.99, sum) });
    const [one] = together([line({ quantity: read('8'), unitPrice: read('20') })], [proven], true);
    expect([one!.quantity?.value, one!.unitPrice?.value, one!.amount.proof]).toEqual(['3', '8.00', sum]);
  });
  it('a row below belongs to descriptions where most lines have one, and is a remark where one of many has', () => {
    const short = ['Leaflet', 'Poster', 'Card'].map((text) => line({ description: read(text) }));
    const long = ['Leaflet, two colours', 'Poster, two colours', 'Card, two colours'].map((text) => line({ description: read(text) }));
    const texts = (lines: ReadLine[]) => lines.map((l) => l.description!.value);
    expect(texts(together(short, long, true))).toEqual(texts(long));
    expect(texts(together(short, [long[0]!, short[1]!, short[2]!], true))).toEqual(texts(short));
  });
});
