import { describe, expect, it } from 'vitest';
import { sketch, type Piece } from '../../page/sketch.ts';
import { layOut } from '../layout.ts';
import { itemContext, rowContext } from './context.ts';
import { itemFeatures } from './itemfeatures.ts';
import { itemsInContext, type LogShares } from './models.ts';
import { context } from './network.ts';
import { printedRows } from './printed.ts';
import { itemTags, type RowTag } from './tags.ts';

const code = ['K-104', 'K-220', 'M-017'],
  lot = ['77120', '77121', '77133'];
/** Three lines: a code, perhaps a lot, words, quantity, price, amount. */
const table = (lots: boolean): Piece[] =>
  [0, 1, 2].flatMap((i): Piece[] => [
    [40, 100 + 20 * i, code[i]!],
    ...(lots ? [[90, 100 + 20 * i, lot[i]!] as Piece] : []),
    [150, 100 + 20 * i, ['Oak post', 'Larch rail', 'Beech wedge'][i]!],
    [320, 100 + 20 * i, String(i + 2)],
    [380, 100 + 20 * i, '4.50'],
    [470, 100 + 20 * i, ((i + 2) * 4.5).toFixed(2)],
  ]);
const seenIn = (pieces: Piece[], known?: Parameters<typeof itemFeatures>[3]) => {
  const layout = layOut([sketch(pieces)]),
    rows = printedRows(layout);
  return itemFeatures(
    layout,
    rows,
    rows.map((_, row) => ({ row, parts: [] })),
    known,
  );
};

describe('what is seen of items', () => {
  it('a place where each line has another code is a column of codes; of two the left one is the first', () => {
    const codesOf = (pieces: Piece[], text: string) =>
      [
        ...seenIn(pieces)
          .find((s) => s.item.text === text)!
          .features.each(),
      ]
        .map((e) => e.name)
        .filter((name) => name.includes('code column'));
    expect(codesOf(table(false), 'K-104')).toEqual(['word code column 0 of 1']);
    expect(codesOf(table(true), 'K-104')).toEqual(['word code column 0 of 2']);
    expect(codesOf(table(true), '77120')).toEqual(['fig code column 1 of 2']);
    expect(codesOf(table(false), 'Oak')).toEqual([]);
  });
  it('what is the same in all lines is no code', () => {
    const same = table(false).map((p): Piece => (code.includes(p[2]) ? [p[0], p[1], 'K-104'] : p));
    expect(seenIn(same).some((s) => s.features.has('word code column 0 of 1'))).toBe(false);
  });
  it('factors and products of a line are told, and nothing makes itself', () => {
    const row = seenIn(table(false)).filter((s) => s.line === 1 && s.item.figure);
    expect(row.map((s) => [s.item.text, s.makes, s.made])).toEqual([
      ['3', true, false],
      ['4.50', true, false],
      ['13.50', false, true],
    ]);
  });
  it('what was seen before is taken from there, and is the same', () => {
    const known: NonNullable<Parameters<typeof itemFeatures>[3]> = new Map();
    const layout = layOut([sketch(table(true))]),
      rows = printedRows(layout),
      lines = rows.map((_, row) => ({ row, parts: [] }));
    const names = () => itemFeatures(layout, rows, lines, known).map((s) => [...s.features.each()].map((e) => `${e.name} ${e.value}`));
    const first = names();
    expect(known.size).toBeGreaterThan(10);
    expect(names()).toEqual(first);
  });
  it('shares of what an item is among others are of one whole', () => {
    for (const logs of itemsInContext(seenIn(table(true))))
      expect(itemTags.reduce((all, tag) => all + Math.exp(logs[tag]), 0)).toBeCloseTo(1);
  });
});

describe('among others', () => {
  const logs = (tag: RowTag): LogShares<RowTag> => ({ none: -4, line: -4, part: -4, [tag]: -0.05 });
  /** Lines with rows of words below some of them; where a row stands under its line, and in the last number of a row how usual that is. */
  const rhythmOf = (below: boolean[]): number => {
    const pieces = below.flatMap((has, i): Piece[] => [
      [40, 100 + 40 * i, 'Oak post'],
      [470, 100 + 40 * i, '9.00'],
      ...(has ? [[40, 112 + 40 * i, 'planed on both sides'] as Piece] : []),
    ]);
    const rows = printedRows(layOut([sketch(pieces)]));
    const at = rows.findIndex((r) => r.row.text.startsWith('planed'));
    const all = rowContext(
      rows,
      rows.map((r) => logs(r.row.text.startsWith('planed') ? 'part' : 'line')),
      false,
    );
    return all[at]!.at(-1)!;
  };
  it('a row that most lines have below them is their rhythm, one of many is a remark', () => {
    expect(rhythmOf([true, true, true, true])).toBe(1);
    expect(rhythmOf([true, false, false, false])).toBe(0.25);
  });
  it('each row and item has as many numbers as the network was learned from', () => {
    const seen = seenIn(table(true));
    const flat = Object.fromEntries(itemTags.map((tag) => [tag, Math.log(1 / itemTags.length)])) as LogShares<(typeof itemTags)[number]>;
    const width = (unit: readonly number[]) => unit.length - 1;
    expect(
      new Set(
        itemContext(
          seen,
          seen.map(() => flat),
        ).map((x) => x.length),
      ),
    ).toEqual(new Set([width(context.figure.hidden[0]!)]));
    expect(width(context.word.hidden[0]!)).toBe(width(context.figure.hidden[0]!));
    const rows = printedRows(layOut([sketch(table(true))]));
    expect(
      rowContext(
        rows,
        rows.map(() => logs('line')),
        false,
      )[0],
    ).toHaveLength(width(context.row.hidden[0]!));
  });
});
