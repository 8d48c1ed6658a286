import { describe, expect, it } from 'vitest';
import { sketch, type Piece } from '../../page/sketch.ts';
import { surroundingsOf } from '../head/around.ts';
import { layOut } from '../layout.ts';
import { printedRows } from '../rows/printed.ts';
import { totalShares } from '../rows/models.ts';
import { explaining } from '../taxtable.ts';
import { totalFeatures } from './features.ts';

/** Three figures below lines that add up to 200.00, under words that no list has. */
const foot: Piece[] = [
  [60, 100, 'Oak post'],
  [480, 100, '200.00'],
  [380, 140, 'Snure'],
  [480, 140, '200.00'],
  [380, 154, 'Tosk 20%'],
  [480, 154, '40.00'],
  [380, 174, 'Varn', 12],
  [480, 174, '240.00', 12],
];
const seen = () => {
  const layout = layOut([sketch(foot)]);
  return totalFeatures(surroundingsOf(layout), printedRows(layout), { has: (row) => row === 0, sum: 200, last: 0 });
};

describe('figures beside the lines', () => {
  it('are seen by how they stand to the lines and to each other', () => {
    const names = Object.fromEntries(seen().map((s) => [s.item.figure!.value, [...s.features.each()].map((e) => e.name)]));
    expect(Object.keys(names)).toEqual(['200.00', '40.00', '240.00']);
    expect(names['200.00']).toEqual(expect.arrayContaining(['sum of the lines', 'is part of another', 'has a rate of it']));
    expect(names['40.00']).toEqual(expect.arrayContaining(['is a rate of another', 'with the lines makes another', 'percent beside']));
    expect(names['240.00']).toEqual(expect.arrayContaining(['largest', 'is two together', 'large']));
  });
  it('tell net, tax and total without a word that is known', () => {
    const best = seen().map(({ features }) => Object.entries(totalShares(features)).sort((a, b) => b[1] - a[1])[0]![0]);
    expect(best).toEqual(['net', 'tax', 'gross']);
  });
});

describe('a code of one or two signs', () => {
  const of = (code: string, ...texts: string[]) =>
    explaining(layOut([sketch(texts.map((text, i): Piece => [50, 50 + 14 * i, text]))]), (row) => row === 0)(code);
  it('is the rate that the page gives for it, outside its lines', () => {
    expect(of('2', 'Gravel 2 548.34', 'Tax column: 2 = V.A.T. at 20.0%')).toBe('20');
    expect(of('Z', 'Honey Z 12.00', 'S standard 20%', 'Z zero rated 0%')).toBe('0');
  });
  it('is nothing where no row explains it, or only its own line does', () =>
    expect([of('Q', 'Honey Q 5%', 'S standard 20%'), of('S', 'S 99%', 'S 99%')]).toEqual([null, null]));
});
