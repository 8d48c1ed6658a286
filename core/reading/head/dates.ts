import { findDates, type FoundDate } from '../../dates/index.ts';
import type { Layout } from '../layout.ts';
import { Features } from '../learned/features.ts';
import { around, bearsHead, type Piece, type Surroundings } from './around.ts';
import { Labelled } from './labelled.ts';
import { markOf } from './tokens.ts';

/** A printed date with every reading that it allows. */
export interface PrintedDate extends Piece {
  dates: FoundDate['dates'];
}

/** Every date of a document, row by row. */
export function printedDates(all: Surroundings): PrintedDate[] {
  return all.rows.flatMap((row, at) => {
    if (!bearsHead(all, row.row.page)) return [];
    const { tokens } = row;
    const text = tokens.map((t) => t.text).join(' ');
    const starts: number[] = [];
    for (let i = 0, n = 0; i < tokens.length; n += tokens[i]!.text.length + 1, i++) starts.push(n);
    return findDates(text).flatMap(({ dates, index, length }): PrintedDate[] => {
      const from = starts.findLastIndex((s) => s <= index),
        to = starts.findLastIndex((s) => s < index + length) + 1;
      return from < to ? [{ at, from, to, text: text.slice(index, index + length), dates, mark: markOf(row, tokens.slice(from, to)) }] : [];
    });
  });
}

/** Evidence for each date of a document, for every role alike. `days`: each as it is read in this document. */
export function dateFeatures(layout: Layout, all: Surroundings, pieces: PrintedDate[], days: string[]): Features[] {
  const labels = new Labelled(layout);
  const order = [...new Set(days)].sort();
  const times = new Map<string, number>();
  for (const day of days) times.set(day, (times.get(day) ?? 0) + 1);
  const columns = new Map<string, number>();
  const columnOf = (p: PrintedDate) => `${all.rows[p.at]!.row.page} ${Math.round(all.rows[p.at]!.tokens[p.from]!.x / 3)}`;
  for (const p of pieces) columns.set(columnOf(p), (columns.get(columnOf(p)) ?? 0) + 1);
  const newest = days.reduce((a, b) => (b > a ? b : a), days[0] ?? '');
  return pieces.map((p, i) => {
    const f = new Features();
    const { row, tokens } = all.rows[p.at]!;
    around(f, all, p);
    labels.add(f, row.page, tokens[p.from]!);
    const rank = order.indexOf(days[i]!);
    f.of('rank ', rank === 0 ? 'first' : rank === order.length - 1 ? 'last' : 'between');
    f.add(`dates ${Math.min(5, order.length)} rank ${Math.min(4, rank)}`);
    f.of('printed ', Math.min(6, i));
    f.of('times ', Math.min(3, times.get(days[i]!)!));
    f.of('like it below ', Math.min(5, columns.get(columnOf(p))!));
    const before = Math.round((Date.parse(newest) - Date.parse(days[i]!)) / 86_400_000);
    f.of('before the newest ', before === 0 ? 0 : before < 8 ? 7 : before < 15 ? 14 : before < 32 ? 31 : before < 65 ? 64 : 'long');
    f.of('amounts ', Math.min(3, row.words.filter((w) => /\d[.,]\d{2}\D?$/.test(w.text)).length));
    if (pieces.some((q) => q !== p && q.at === p.at && Math.abs(q.from - p.to) <= 2)) f.add('beside a date');
    if (pieces.some((q) => q !== p && q.at === p.at)) f.add('in a row with a date');
    return f;
  });
}
