import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sketch, type Piece } from '../../page/sketch.ts';
import { readDocument } from '../read.ts';
import { layOut } from '../layout.ts';
import { figureOf, printedRows } from './printed.ts';
import { hasProduct } from './rowfeatures.ts';

const point = { decimal: '.' } as const,
  comma = { decimal: ',' } as const;

describe('a figure as it is printed', () => {
  it.each([
    ['1,234.50', '1234.50'],
    ['(12.00)', '-12.00'],
    ['6½', '6.5'],
    ['11⁄2', '1.5'],
    ['20%', '20'],
    ['7kg', '7'],
    ['£3.20', '3.20'],
    ['12.25 CR', '-12.25'],
  ])('%s is %s', (text, value) => expect(figureOf(text, point)?.value).toBe(value));
  it('in the other style', () =>
    expect([figureOf('1 224,47', comma)?.value, figureOf('630,36', comma)?.value]).toEqual(['1224.47', '630.36']));
  it('words and codes are none', () =>
    expect(['K268076', 'bal', '07:33', ''].map((t) => figureOf(t, point))).toEqual([null, null, null, null]));
});

it('a product is told from figures that make none, by piece, hundred and thousand', () => {
  expect([hasProduct([3, 12.5, 37.5]), hasProduct([450, 9.65, 43.43]), hasProduct([450, 21500, 96750])]).toEqual([true, true, true]);
  expect([hasProduct([3, 12.5, 38]), hasProduct([1, 20, 20]), hasProduct([])]).toEqual([false, false, false]);
});

/** A table without a word that any list has: lines of quantity, words, price and amount, then a sum, tax and total. */
const bill = (lines: [quantity: number, text: string, cents: number][], words: string[]): Piece[] => {
  const money = (cents: number) => (cents / 100).toFixed(2).replace(/\B(?=(\d{3})+(?!\d))/g, ',');
  const net = lines.reduce((a, [q, , p]) => a + q * p, 0),
    tax = Math.round(net * 0.2);
  return [
    [40, 40, 'Kelder Works Ltd', 16],
    [380, 40, 'INVOICE K-204', 16],
    [380, 70, '3 November 2026'],
    [60, 160, words[0]!],
    [120, 160, words[1]!],
    [380, 160, words[2]!],
    [480, 160, words[3]!],
    ...lines.flatMap(([q, text, p], i): Piece[] => [
      [60, 180 + 14 * i, String(q)],
      [120, 180 + 14 * i, text],
      [380, 180 + 14 * i, money(p)],
      [480, 180 + 14 * i, money(q * p)],
    ]),
    [380, 210 + 14 * lines.length, words[4]!],
    [480, 210 + 14 * lines.length, money(net)],
    [380, 224 + 14 * lines.length, `${words[5]} 20%`],
    [480, 224 + 14 * lines.length, money(tax)],
    [380, 244 + 14 * lines.length, words[6]!],
    [480, 244 + 14 * lines.length, money(net + tax)],
  ];
};
const mute = ['Blorn', 'Frimp', 'Grald', 'Snure', 'Wendle', 'Tosk', 'Varn'];
const goods = ['Oak post', 'Cedar board', 'Fence clip', 'Gate hinge', 'Wire mesh', 'Roof felt'];

describe('lines without a word that is known', () => {
  it('are those that multiply out and add up', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 2, max: 40 }), fc.integer({ min: 105, max: 9999 })), { minLength: 2, maxLength: 6 }),
        (pairs) => {
          const lines = pairs.map(([q, p], i): [number, string, number] => [q, `${goods[i]} ${['large', 'small', 'plain'][i % 3]}`, p]);
          const reading = readDocument([sketch(bill(lines, mute))]);
          expect(
            reading.lines.map((l) => [Number(l.quantity?.value), l.description?.value, Math.round(Number(l.unitPrice?.value) * 100)]),
          ).toEqual(lines);
          expect(reading.lines.every((l) => l.amount.proof !== null)).toBe(true);
        },
      ),
      { numRuns: 25 },
    ));
  it('a subtotal among them is left out: with it nothing adds up', () => {
    const lines: [number, string, number][] = [
      [3, 'Oak post large', 1250],
      [4, 'Cedar board small', 980],
      [6, 'Fence clip plain', 415],
    ];
    const pieces = bill(lines, mute).map((p): Piece =>
      p[1] >= 208 && p[1] < 220 ? [p[0], p[1] + 14, p[2]] : p[1] >= 220 ? [p[0], p[1] + 14, p[2]] : p,
    );
    const reading = readDocument([sketch([...pieces, [380, 208, 'Halde'], [480, 208, '76.70']])]);
    expect(reading.lines.map((l) => l.amount.value)).toEqual(['37.50', '39.20', '24.90']);
  });
  it('figures and words of a row stand in their order', () => {
    const rows = printedRows(layOut([sketch(bill([[3, 'Oak post large', 1250]], mute))]));
    const row = rows.find((r) => r.row.text.includes('Oak'))!;
    expect(row.items.map((i) => i.figure?.value ?? i.text)).toEqual(['3', 'Oak', 'post', 'large', '12.50', '37.50']);
  });
});
