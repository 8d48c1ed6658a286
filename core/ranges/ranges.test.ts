import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatRanges, inRanges, parseRanges, type Range } from './index.ts';

const ranges = (text: string): Range[] => {
  const read = parseRanges(text);
  if ('trouble' in read) throw new Error(read.trouble);
  return read.ranges;
};
const trouble = (text: string) => {
  const read = parseRanges(text);
  return 'trouble' in read ? read.trouble : null;
};
const among = (text: string, ...codes: string[]) => codes.filter((c) => inRanges(ranges(text), c));

describe('ranges of codes', () => {
  it('are single codes, beginnings, and from one to another, sub-accounts with them', () => {
    expect(among('6100 to 6199, 63*, 6500', '6099', '6100', '61005', '6199', '61999', '6200', '63', '6301', '6500', '65001')).toEqual([
      '6100', '61005', '6199', '61999', '63', '6301', '6500',
    ]); // prettier-ignore
    expect(among('6100 to 6199', '61', '610', '7')).toEqual([]);
  });
  it('do not mind the case of letters, lines instead of commas, or a dash between blanks', () => {
    expect(among('p-glass', 'P-GLASS', 'P-GLASS2')).toEqual(['P-GLASS']);
    expect(among('a1 - a3\nb', 'A2', 'B', 'C')).toEqual(['A2', 'B']);
  });
  it('say what is wrong with what cannot be read', () => {
    expect(trouble('6100-6199')).toBe('For a range write “6100 to 6199”.');
    expect(trouble('90 to 110')).toContain('as many characters');
    expect(trouble('6199 to 6100')).toContain('ends before it begins');
    expect(trouble('6*1')).toContain('only at the end');
    expect(trouble('*')).toContain('every code');
    expect(trouble('6100 6199')).toContain('neither a code nor a range');
    expect(trouble('61* to 62*')).toContain('has no *');
    for (const empty of ['', ' , ;']) expect(trouble(empty)).toContain('Write codes');
  });
  const code = fc.stringMatching(/^[A-Z0-9]{1,6}$/);
  it('read back as they are written', () => {
    const one = fc.oneof(
      code.map((from): Range => ({ from, to: from, open: false })),
      code.map((from): Range => ({ from, to: from, open: true })),
      fc
        .tuple(code, code)
        .filter(([a, b]) => a.length === b.length && a < b)
        .map(([from, to]): Range => ({ from, to, open: true })),
    );
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 5 }), (some) => {
        expect(ranges(formatRanges(some))).toEqual(some);
      }),
    );
  });
  it('have every code between their ends of the same length, and none outside', () => {
    const three = fc.tuple(fc.nat(9999), fc.nat(9999), fc.nat(9999)).map((n) => n.map((x) => String(x).padStart(4, '0')));
    fc.assert(
      fc.property(three, ([a, b, c]) => {
        const [from, to] = [a!, b!].sort();
        expect(inRanges(ranges(`${from} to ${to}`), c!)).toBe(from! <= c! && c! <= to!);
      }),
    );
  });
});
