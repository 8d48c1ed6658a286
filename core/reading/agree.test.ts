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
    const [one] = together([line({ description: read('Cedar board') })], [line({ description: read('Lot 7', 0.8) })], true);
    expect(one!.description).toMatchObject({ value: 'Cedar board', confidence: 0.5, rivals: [{ value: 'Lot 7' }] });
  });
  it('follow what words look like where a heading led to something quite else, to a code, or cut the text short in its row', () => {
    const said = (headed: Read, seen: Partial<ReadLine>) => together([line({ description: headed })], [line(seen)], true)[0]!.description!;
    expect(said(read('Sat 17-Oct-26'), { description: read('Gate to pier and return') }).value).toBe('Gate to pier and return');
    expect(said(read('D6T'), { description: read('Swivel dumper', 0.7), code: read('D6T') }).value).toBe('Swivel dumper');
    expect(said(read('VS-1174 Passenger lift'), { description: read('Passenger lift'), code: read('VS-1174') }).value).toBe(
      'Passenger lift',
    );
    const on = (value: string, h: number): Read => ({ ...read(value), mark: { page: 1, x: 100, y: 100, w: 60, h } });
    expect(said(on('Pentland', 9), { description: on('Pentland Whistle', 9) }).value).toBe('Pentland Whistle');
    const plain = ['Beacon', 'Kidney'].map((text) => line({ description: on(text, 9) }));
    const below = together(
      [line({ description: on('Pentland', 9) }), ...plain],
      [line({ description: on('Pentland balance', 21) }), ...plain],
      true,
    );
    expect(below[0]!.description!.value).toBe('Pentland');
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
