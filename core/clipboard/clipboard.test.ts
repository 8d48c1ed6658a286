import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatBlock, parseBlock, readFigures } from './index.ts';

describe('a block of cells', () => {
  it('is taken apart as spreadsheets write it', () => {
    expect(parseBlock('a\tb\r\n1\t\r\n')).toEqual([
      ['a', 'b'],
      ['1', ''],
    ]);
    expect(parseBlock('"two\nlines"\t"say ""so"""\nx')).toEqual([['two\nlines', 'say "so"'], ['x']]);
    expect(parseBlock('')).toEqual([]);
  });
  it('comes back as it went', () => {
    const cell = fc.string({ unit: fc.constantFrom('a', ' ', '"', '\t', '\n', ',', 'é'), maxLength: 6 });
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 5 }), (rows) => {
        expect(parseBlock(formatBlock(rows))).toEqual(rows);
      }),
    );
  });
  it('is taken apart whatever it is', () =>
    fc.assert(fc.property(fc.string({ unit: fc.constantFrom('a', '"', '\t', '\n', '\r') }), (text) => void parseBlock(text))));
});

describe('figures copied together', () => {
  const point = { decimal: '.' as const },
    comma = { decimal: ',' as const };
  it('are in the one style that fits them all', () => {
    expect(readFigures(['1.234,50', '1.234'], [point, comma])).toEqual(['1234.50', '1234']);
    expect(readFigures(['1,234.50', '1,234'], [comma, point])).toEqual(['1234.50', '1234']);
  });
  it('are in the first style where more than one fits', () => {
    expect(readFigures(['1.234'], [comma, point])).toEqual(['1234']);
    expect(readFigures(['1.234'], [point, comma])).toEqual(['1.234']);
  });
  it('take signs, currencies and percent; words are none', () =>
    expect(readFigures(['(12.50)', '£ 3.00', '20 %', 'free', ''], [point])).toEqual(['-12.50', '3.00', '20', null, null]));
});
