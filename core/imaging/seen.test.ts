import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tornApart } from './fragments.ts';
import { wordsOfSeen, type SeenWord } from './seen.ts';

const seen = (text: string, x0: number, base: number, line: number, { tall = 30, confidence = 0.95, wide = 18 } = {}): SeenWord => ({
  text,
  confidence,
  x0,
  x1: x0 + text.length * wide,
  y0: base - tall,
  y1: base,
  base,
  line,
});

describe('what a recogniser saw becomes words', () => {
  it('at one text height for all lines that are about as tall, however their ink varies', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 29, max: 31 }), { minLength: 5, maxLength: 40 }), (talls) => {
        const words = wordsOfSeen(
          talls.map((tall, i) => seen('Amount', 100, 100 + i * 60, i, { tall })),
          300,
        );
        expect(new Set(words.map((w) => w.size)).size).toBe(1);
      }),
    );
  });
  it('with a heading apart from them', () => {
    const words = wordsOfSeen(
      [seen('Heading', 100, 100, 0, { tall: 60 }), ...[1, 2, 3, 4].map((i) => seen('Amount', 100, 100 + i * 80, i))],
      300,
    );
    expect(words[0]!.size).toBeGreaterThan(words[1]!.size * 1.7);
  });
  it('a typewritten page is known by the even steps of its words, whatever the heights of their letters', () => {
    const texts = ['Invoice', 'Marrowby', 'Gardens', 'Glasshouse', 'shading', 'Hedge', 'trimming', 'Watering', 'lance', 'Soil', 'Unit'];
    const page = (wide: (text: string) => number) =>
      wordsOfSeen(
        texts.map((text, i) => ({ ...seen(text, 100, 100 + i * 60, i, { tall: 27 + (i % 4) * 2 }), x1: 100 + wide(text) })),
        300,
      );
    const even = page((text) => (text.length - 0.33) * 25);
    expect(new Set(even.map((w) => w.font))).toEqual(new Set(['typewriter']));
    // A step of 25 pixels is 6 points, 0.6 of the text height.
    for (const w of even) expect(w.size).toBeCloseTo(10, 1);
    const narrow = /[ijlt]/g;
    const uneven = page((text) => text.length * 25 - (text.match(narrow)?.length ?? 0) * 14);
    expect(new Set(uneven.map((w) => w.font))).toEqual(new Set(['ink']));
  });
  it('without specks, strokes of lines and lines that make no sense', () => {
    const words = wordsOfSeen(
      [
        seen('Total', 100, 100, 0),
        seen('|', 300, 100, 1, { confidence: 0.7 }),
        seen('~', 340, 100, 2, { confidence: 0.4 }),
        seen('SE', 100, 200, 3, { confidence: 0.3 }),
        seen('rre', 150, 200, 3, { confidence: 0.2 }),
      ],
      300,
    );
    expect(words.map((w) => w.text)).toEqual(['Total']);
  });
  it.each([
    ['1.420.00', '1,420.00'],
    ['1,234,50', '1.234,50'],
    ['2,155;93', '2.155,93'],
    ['12.345.678.90', '12,345,678.90'],
    ['1,420.00', '1,420.00'],
    ['P0O-4529', 'PO-4529'],
    ['P0-4529', 'PO-4529'],
    ['P0450', 'P0450'],
    ['01.02.2026', '01.02.2026'],
  ])('%s is %s', (read, meant) => expect(wordsOfSeen([seen(read, 100, 100, 0)], 300)[0]!.text).toBe(meant));
  it('a last decimal that stood apart belongs to its figure, a number of its own does not', () => {
    const words = wordsOfSeen([seen('165.7', 100, 100, 0), seen('0', 200, 100, 0), seen('20', 400, 100, 0)], 300);
    expect(words.map((w) => w.text)).toEqual(['165.70', '20']);
  });
  it.each([
    [['2,', '611.60'], '2,611.60'],
    [['65.967.', '72'], '65,967.72'],
    [['1', '518;', '61'], '1.518,61'],
    [['1', '639.08'], '1,639.08'],
    [['2.', '105.', '35'], '2,105.35'],
    [['-1', '250.00'], '-1,250.00'],
  ])('%j was one figure', (pieces, figure) => {
    let x = 100;
    const words = pieces.map((text) => {
      const word = seen(text, x, 100, 0);
      x = word.x1 + 16;
      return word;
    });
    expect(wordsOfSeen(words, 300).map((w) => w.text)).toEqual([figure]);
  });
  it('also where it was seen as two lines', () =>
    expect(wordsOfSeen([seen('611.60', 146, 100, 0), seen('2,', 100, 104, 1)], 300).map((w) => w.text)).toEqual(['2,611.60']));
  it('a one behind a figure at the end of a text is litres, not where a text goes on or none is before', () => {
    const read = (...texts: string[]) => {
      let x = 100;
      const words = texts.map((text) => {
        const word = seen(text, x, 100, 0);
        x = word.x1 + 12;
        return word;
      });
      return wordsOfSeen([...words, seen('32.00', 1400, 100, 1)], 300).map((w) => w.text);
    };
    expect(read('Weed', 'barrier', '16', '1')).toEqual(['Weed', 'barrier', '16', 'l', '32.00']);
    expect(read('16', '1')).toEqual(['16', '1', '32.00']);
    expect(read('Weed', 'barrier', '16', '1', 'box')).toContain('1');
  });
  it.each([[['27,', '2025']], [['15.', '07.', '2025']]])('%j is a date', (pieces) => {
    const words = pieces.map((text, i) => seen(text, 100 + i * 70, 100, 0));
    expect(wordsOfSeen(words, 300).map((w) => w.text)).toEqual(pieces);
  });
  it('figures a word apart, or below each other, stay two', () => {
    expect(wordsOfSeen([seen('1', 100, 100, 0), seen('639.08', 180, 100, 0)], 300)).toHaveLength(2);
    expect(wordsOfSeen([seen('2,', 100, 100, 0), seen('611.60', 146, 140, 1)], 300)).toHaveLength(2);
  });
});

describe('text torn apart', () => {
  it('is found where pieces follow each other closely on one baseline, and nowhere else', () => {
    const words = [seen('29', 100, 100, 0), seen('95', 166, 101, 1), seen('640', 600, 100, 2), seen('00', 166, 200, 3)];
    expect(tornApart(words).map((t) => [...t.lines])).toEqual([[0, 1]]);
  });
  it('a line that the recogniser kept together is not', () => {
    expect(tornApart([seen('29', 100, 100, 0), seen('95', 166, 100, 0)])).toEqual([]);
  });
});
