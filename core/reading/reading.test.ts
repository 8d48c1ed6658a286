import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Page, Word } from '../page/index.ts';
import { wordsOf } from '../page/index.ts';
import { findIbans, isIban } from './iban.ts';
import { checkDigitsHold, findTaxIds, taxNumberOf } from './taxnumbers.ts';
import { decideStyle, parseNumber, parsePercent } from '../numbers/index.ts';
import { readDocument } from './index.ts';

const point = { decimal: '.' as const },
  comma = { decimal: ',' as const };

describe('numbers', () => {
  it.each([
    ['1,234.50', '1234.50'],
    ['£1,234.50', '1234.50'],
    ['£ 865.17', '865.17'],
    ['-256.89', '-256.89'],
    ['(12.00)', '-12.00'],
    ['12.00-', '-12.00'],
    ["1'234.50", '1234.50'],
    ['1 234.50', '1234.50'],
    ['24', '24'],
  ])('%s is %s with a decimal point', (text, value) => expect(parseNumber(text, point)).toBe(value));
  it.each([
    ['1.234,50', '1234.50'],
    ['1 234,50', '1234.50'],
    ['€ 1.358,95', '1358.95'],
    ['1.500', '1500'],
  ])('%s is %s with a decimal comma', (text, value) => expect(parseNumber(text, comma)).toBe(value));
  it.each(['12,34.5', 'PO-4471', '1,23,456', '12.5%', '', '1.2.3'])('%s is no number', (text) =>
    expect(parseNumber(text, point)).toBeNull(),
  );
  it('reads back every amount it prints, in every national style', () =>
    fc.assert(
      fc.property(fc.nat(99_999_999), fc.constantFrom([',', '.'], ['.', ','], [' ', ','], ["'", '.']), (n, [thousands, decimal]) => {
        const [whole = '', fraction] = (n / 100).toFixed(2).split('.');
        const printed = `${whole.replace(/\B(?=(\d{3})+$)/g, thousands!)}${decimal}${fraction}`;
        expect(parseNumber(printed, { decimal: decimal as '.' })).toBe((n / 100).toFixed(2));
      }),
    ));
  it('decides the decimal sign of a document by what leaves no doubt', () =>
    expect(decideStyle(['1.500', '14,50', '217,50'].map((text) => ({ text }) as Word)).decimal).toBe(','));
  it('reads percentages', () =>
    expect([
      parsePercent('20%', point),
      parsePercent('12.5%', point),
      parsePercent('20 per cent', point),
      parsePercent('20', point),
    ]).toEqual(['20', '12.5', '20', null]));
});

describe('identifiers', () => {
  it('finds an IBAN in spaced groups and refuses one with a wrong digit', () => {
    expect(findIbans('Pay to IBAN GB12 XQZB 0012 3456 9876 54 today')[0]?.iban).toBe('GB12XQZB00123456987654');
    expect(isIban('GB13XQZB00123456987654')).toBe(false);
  });
  it('finds tax numbers with their country', () => {
    expect(findTaxIds('VAT GB 918 2231 07')[0]?.taxId).toBe('GB918223107');
    expect(findTaxIds('BTW-NR. NL009988112B07')[0]?.taxId).toBe('NL009988112B07');
    expect(findTaxIds('IČ DPH: CZ04417792')[0]?.taxId).toBe('CZ04417792');
  });
  it('tells tax numbers by shape and by the check digits of their country', () => {
    // Weights 8 to 2 on the first seven digits, taken from 97: 8·1+7·2+6·3+5·4+4·5+3·6+2·7 = 112, 97 − 112 mod 97 = 82.
    expect([checkDigitsHold('GB123456782'), checkDigitsHold('123456782'), checkDigitsHold('GB123456783')]).toEqual([true, true, false]);
    // ABN, modulo 89: the first two digits weigh 10 and 1, so of ninety in a row one holds.
    expect(Array.from({ length: 90 }, (_, i) => `${i + 10}123456789`).filter(checkDigitsHold).length).toBe(1);
    expect([taxNumberOf('T7840001992015'), taxNumberOf('29AAKCV4471P1ZQ'), taxNumberOf('NO918402771MVA'), taxNumberOf('INV1')]).toEqual([
      ['jp'],
      ['in'],
      ['no'],
      [],
    ]);
  });
});

describe('words', () => {
  const run = (text: string, x: number, width: number) => ({ text, x, y: 100, width, size: 10, font: 'a' });
  const texts = (words: Word[]) => words.map((w) => w.text);
  it('joins runs that break inside a word and parts those with a space between', () =>
    expect(texts(wordsOf([run('Inv', 10, 14), run('oice', 24, 18), run('no.', 46, 12)]))).toEqual(['Invoice', 'no.']));
  it('joins decimals to the comma that a formula sets off from them, and nothing else', () => {
    expect(texts(wordsOf([run('521,', 10, 20), run('22', 31.7, 10)]))).toEqual(['521,22']);
    expect(texts(wordsOf([run('3,', 10, 8), run('25', 21, 10)]))).toEqual(['3,', '25']);
    expect(texts(wordsOf([run('May 3,', 10, 30), run('2026', 41.7, 20)]))).toEqual(['May', '3,', '2026']);
    expect(texts(wordsOf([run('Row,', 10, 20), run('22', 31.7, 10)]))).toEqual(['Row,', '22']);
  });
  it('joins letter-spaced text', () => expect(texts(wordsOf([...'TOTAL'].map((c, i) => run(c, 10 + i * 9, 6))))).toEqual(['TOTAL']));
  it('cuts a run of a whole line into words in order, with boxes inside the run', () => {
    const words = wordsOf([run('Balance payable: 228.48', 50, 110)]);
    expect(texts(words)).toEqual(['Balance', 'payable:', '228.48']);
    expect(words.every((w) => w.x >= 50 && w.x + w.w <= 160.01)).toBe(true);
  });
});

describe('reading', () => {
  it('answers for anything that may stand on a page, and never throws', () => {
    const word = fc.record({
      text: fc.oneof(
        fc.string({ minLength: 1, maxLength: 8 }),
        fc.constantFrom('Invoice', 'no.', 'Total', '1,234.50', 'VAT', '20%', '12/11/2026', 'Qty', 'Amount', '£', 'Net'),
      ),
      x: fc.integer({ min: 0, max: 560 }),
      y: fc.integer({ min: 0, max: 800 }),
      w: fc.integer({ min: 1, max: 60 }),
      h: fc.constant(10),
      size: fc.constant(10),
      font: fc.constant('a'),
    });
    fc.assert(
      fc.property(fc.array(word, { maxLength: 60 }), (words) => {
        const page: Page = { number: 1, width: 595, height: 842, words };
        const reading = readDocument([page]);
        expect(reading.pages).toEqual([1]);
      }),
      { numRuns: 300 },
    );
  });
  it('calls an empty page no invoice', () => expect(readDocument([{ number: 1, width: 595, height: 842, words: [] }]).kind).toBe('other'));
});
