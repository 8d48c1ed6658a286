import { describe, expect, it } from 'vitest';
import { sketch, type Piece } from '../page/sketch.ts';
import { layOut } from './layout.ts';
import { readDocument } from './read.ts';
import { explaining } from './taxtable.ts';

describe('a code that the page explains', () => {
  const of = (text: string, code: string) => explaining(layOut([sketch([[50, 50, text]])]), () => false)(code);
  it.each([
    ['Bt: 4 = btw 0 % (uitvoer)', '4', '0'],
    ['plus VAT (1) 20 % =', '1', '20'],
    ['VAT: S = standard rate 20 %', 'S', '20'],
    ['Btw verlegd (V), 0%', 'V', '0'],
    ['2 = V.A.T. at 20.0%', '2', '20'],
    ['S spot, W week', 'S', null],
    ['Class 4, 120 % of its strength', '4', null],
  ])('%s: %s is %s', (text, code, rate) => expect(of(text, code)).toBe(rate));
  it('is the rate of every line that bears it, though its column has no heading that is known', () => {
    const lines = [0, 1, 2].flatMap((i): Piece[] => [
      [40, 180 + 16 * i, ['Ploughing', 'Hedge cutting', 'Ditching'][i]!],
      [250, 180 + 16 * i, String(i + 2)],
      [330, 180 + 16 * i, '28.00'],
      [400, 180 + 16 * i, '1'],
      [470, 180 + 16 * i, `${(i + 2) * 28}.00`],
    ]);
    const reading = readDocument([
      sketch([
        [40, 40, 'Askwith & Sons', 16],
        [380, 40, 'INVOICE 4122', 16],
        [380, 70, '3 November 2026'],
        ...lines,
        [330, 250, 'All work'],
        [470, 250, '252.00'],
        [330, 264, 'plus VAT (1) 20 % ='],
        [470, 264, '50.40'],
        [330, 284, 'TO PAY'],
        [470, 284, '£302.40'],
      ]),
    ]);
    expect(reading.lines.map((l) => l.taxRate?.value)).toEqual(['20', '20', '20']);
  });
});
