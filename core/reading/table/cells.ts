import type { Word } from '../../page/index.ts';
import { findLabels } from '../labels.ts';
import type { LabelledRow } from '../layout.ts';
import { tokensOf } from '../lexicon/tokens.ts';
import { columnBook, isUnit } from '../lexicon/index.ts';
import type { Column } from './heading.ts';

/** A row's words by column index. */
export type Cells = Word[][];

const isNumber = (text: string): boolean => /^[-−(£$€¥]*\d[\d.,'’]*[)%p-]?$/.test(text) || /^[-–]$/.test(text);
const right = (w: Word): number => w.x + w.w;
const endsColumn = (columns: Column[], x: number, tolerance: number): boolean => columns.some((c) => Math.abs(c.x1 - x) < tolerance);
/** Cuts a row where a gap is wide, or where a word sits on a column's edge: tight columns have no wide gap between them. */
function atoms(row: LabelledRow, columns: Column[]): Word[][] {
  const groups: Word[][] = [];
  for (const word of row.words) {
    const group = groups[groups.length - 1];
    const last = group?.[group.length - 1];
    if (!group || !last) {
      groups.push([word]);
      continue;
    }
    const tolerance = 0.3 * word.size;
    const gap = word.x - right(last);
    const end = right(last);
    // "1 938,47" is one number: thousands parted by a space no wider than between words.
    if (
      gap < 0.4 * word.size &&
      /^[-−(]?\d{1,3}$/.test(last.text) &&
      /^\d{3}([.,]\d+)?\)?$/.test(word.text) &&
      !endsColumn(columns, end, tolerance)
    ) {
      group.push(word);
      continue;
    }
    const parted =
      gap > 0.72 * Math.min(word.size, last.size) ||
      (gap > 0.34 * word.size &&
        (columns.some((c) => Math.abs(c.x0 - word.x) < tolerance && end <= c.x0 + tolerance) ||
          (isNumber(last.text) && endsColumn(columns, end, tolerance)))) ||
      (gap > 0.2 * word.size &&
        isNumber(word.text) &&
        isNumber(last.text) &&
        endsColumn(columns, right(word), tolerance) &&
        columns.some((c) => c.x0 < end && end < word.x));
    if (parted) groups.push([word]);
    else group.push(word);
  }
  return groups;
}

/** How badly a piece of a row stands under a column: 0 for an edge or middle in line with it, growing with the distance. */
function misfit(x0: number, x1: number, column: Column): number {
  const edge = Math.min(Math.abs(x0 - column.x0), Math.abs(x1 - column.x1), Math.abs((x0 + x1 - column.x0 - column.x1) / 2));
  const apart = Math.max(0, column.x0 - x1, x0 - column.x1);
  return edge + apart * 2;
}

/** "Item number: X Description: Y" inside one run: each part by its label. */
export function inlineParts(words: Word[]): { code: Word[]; description: Word[] } | null {
  const found = findLabels(words, columnBook),
    spoken = found.filter((l) => words[l.to]!.text.endsWith(':') || words[l.to + 1]?.text === ':');
  // Ink loses the colon of the first label; the second one's shows that they are labels.
  const ink = words[0]!.sure !== undefined;
  // Ink may lose both: a row that begins with the label of a code and has that of a description behind it says enough.
  const bare =
    ink && found[0]?.role === 'code' && found[0].from === 0 && found.some((l) => l.role === 'description' && l.from > found[0]!.to + 1);
  const labels = bare ? found : ink && spoken.length > 0 && found[0]!.from <= 1 ? [...new Set([found[0]!, ...spoken])] : spoken;
  const description = labels.find((l) => l.role === 'description' && l.from > 0);
  // A damaged first label still ends with its word for number: "[tem number".
  const hash = words[0]!.sure === undefined ? -1 : words.slice(0, 3).findIndex((w) => tokensOf(w.text).includes('#'));
  const code = labels.find((l) => l.role === 'code') ?? (description && hash >= 0 ? { from: 0, to: hash } : undefined);
  if (!code || !description) return null;
  const value = (label: { to: number }): Word[] => {
    const next = labels.find((l) => l.from > label.to);
    return words.slice(label.to + 1, next ? next.from : words.length).filter((w) => w.text !== ':');
  };
  return { code: value(code), description: value(description) };
}

/** Puts each word of a row under the column it belongs to. */
export function cellsOf(row: LabelledRow, columns: Column[]): Cells {
  const cells: Cells = columns.map(() => []);
  let before: Word | undefined;
  for (const atom of atoms(row, columns)) {
    const x0 = atom[0]!.x,
      x1 = right(atom[atom.length - 1]!);
    let best = 0,
      least = Infinity;
    for (const [index, column] of columns.entries()) {
      const overlap = Math.min(x1, column.x1) - Math.max(x0, column.x0);
      const cost = misfit(x0, x1, column) - (overlap > 0 ? Math.min(overlap, 12) : 0);
      if (cost < least) {
        least = cost;
        best = index;
      }
    }
    // "5 weeks Dehumidifier": the unit belongs to the figure before it, wherever its column ends.
    if (before && atom.length === 1 && isNumber(before.text) && isUnit(atom[0]!.text) && atom[0]!.x - right(before) < before.size)
      best = cells.findIndex((cell) => cell.includes(before!));
    cells[best]!.push(...atom);
    before = atom[atom.length - 1];
  }
  return cells;
}
