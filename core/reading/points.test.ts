import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Page, Word } from '../page/index.ts';
import { sketch, type Piece } from '../page/sketch.ts';
import { withPoints } from './points.ts';

const scan = { width: 595, height: 842, back: [1, 0, 0, 0, 1, 0, 0, 0, 1], skew: 0, squared: false, language: 'eng' as const };
const inked = (pieces: Piece[]): Page => {
  const page = sketch(pieces);
  return { ...page, scan, words: page.words.map((w) => ({ ...w, sure: 0.93 })) };
};
/** Figures with their right edges at one place, as they stand in a column. */
const column = (edge: number, texts: string[], from = 100): Piece[] =>
  texts.map((text, i) => {
    const { words } = sketch([[0, 20, text]]);
    return [edge - (words[words.length - 1]!.x + words[words.length - 1]!.w), from + i * 16, text];
  });
const texts = (page: Page) => page.words.map((w) => w.text);
const read = (pieces: Piece[]) => withPoints([inked(pieces)])[0]!;
const amounts = ['413.25', '342.00', '67.50', '19.60'];

describe('a point that ink lost', () => {
  it.each([
    ['26520', '265.20'],
    ['11:99', '11.99'],
    ['11,99', '11.99'],
    ['324 72', '324.72'],
    ['134. 36', '134.36'],
    ['1,069 50', '1,069.50'],
    ['1 639 08', '1,639.08'],
    ['2.96250', '2,962.50'],
    ['7A5', '7.45'],
    ['1O.50', '10.50'],
    ['2,96250', '2,962.50'],
  ])('comes back in a column of decimals: %s', (ink, figure) => {
    const page = read(column(500, [...amounts, ink]));
    const word = page.words.find((w) => w.text === figure);
    expect(word).toMatchObject({ sure: 0.5, was: ink });
  });
  it('with as many decimals as the column has', () =>
    expect(texts(read(column(500, ['0.2475', '0.1850', '0.1625', '02475'])))).toContain('0.2475'));
  it('also where most figures of the column fell in two', () =>
    expect(texts(read(column(500, ['29 95', '30 28', '43 25', '34.84'])))).toEqual(['29.95', '30.28', '43.25', '34.84']));
  it('but not in a column of whole numbers', () =>
    expect(texts(read([...column(500, amounts), ...column(300, ['120', '2400', '36'])]))).toContain('2400'));
  it('nor are thousands taken for decimals', () => {
    const thousands = ['10,000', '25,000', '2,500', '1,000'];
    expect(texts(read([...column(500, amounts), ...column(300, thousands)])).filter((t) => t.includes(','))).toEqual(thousands);
  });
  it('nor in a date or a sentence that ends below the figures', () => {
    const page = read([...column(500, amounts), ...column(500, ['24 August 2026'], 300)]);
    expect(texts(page)).toContain('2026');
  });
  it('a figure whose signs are those of another country is put like all others of its page', () => {
    const page = read([
      ...column(500, ['1.250,00', '412,50', '67,544.61', '980,10', '12,00', '7,25', '3,10', '88,00', '1,99', '640,00', '75,20']),
      ...column(300, ['11.75']),
    ]);
    expect(texts(page)).toEqual(expect.arrayContaining(['67.544,61', '11,75']));
    expect(page.words.find((w) => w.text === '11,75')).toMatchObject({ sure: 0.5, was: '11.75' });
  });
  it('also where coarse ink mixed them up', () => {
    const page = read(column(500, ['1,133.00', '189.42', '1.356,90', '32.472,25', '77,22', '2.134,44', '2510.44']));
    expect(texts(page)).toEqual(['1.133,00', '189,42', '1.356,90', '32.472,25', '77,22', '2.134,44', '2510,44']);
  });
  it('but thousands without decimals are none', () => {
    const page = read([...column(500, ['22,939', '298,207', '1,335,516', '310,000', '56,066']), ...column(300, ['3.75', '38.40', '22'])]);
    expect(texts(page)).toEqual(expect.arrayContaining(['22,939', '1,335,516', '3.75', '38.40']));
  });
  it('nor a day and month', () => {
    const amounts = ['1.250,00', '412,50', '980,10', '12,00', '7,25', '3,10'];
    expect(texts(read([...column(500, amounts), ...column(300, ['28.10'])]))).toContain('28.10');
  });
  it('nor on a digital page, whose text is exact', () => {
    const page = sketch(column(500, [...amounts, '26520']));
    expect(withPoints([page])[0]).toBe(page);
  });
  it('a page where nothing was lost stays the very same', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 100, max: 999_999 }), { minLength: 1, maxLength: 12 }), (cents) => {
        const page = inked(
          column(
            500,
            cents.map((c) => (c / 100).toFixed(2)),
          ),
        );
        expect(withPoints([page])[0]).toBe(page);
      }),
    );
  });
  it('no figure is lost or made up: the digits of a page stay what they were', () => {
    const digits = (words: Word[]) => [...words.map((w) => w.text).join('')].filter((c) => /\d/.test(c)).sort();
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^\d{1,4}([.,: ]\d{1,3})?$/), { maxLength: 14 }), (figures) => {
        const page = inked(column(500, figures));
        expect(digits(withPoints([page])[0]!.words)).toEqual(digits(page.words));
      }),
    );
  });
});
