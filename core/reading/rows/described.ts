import { isCurrency } from '../../numbers/index.ts';
import type { SeenItem } from './itemfeatures.ts';
import type { LogShares } from './models.ts';
import type { PrintedRow } from './printed.ts';
import { bullet } from './rowfeatures.ts';
import { itemTags, type ItemTag } from './tags.ts';
import { hasLetter, hasLetters, hasWord } from '../letters.ts';

/** An item of a line with how sure it is what it is. */
export type Weighed = SeenItem & { shares: LogShares<ItemTag>; /** What it looks like most. */ best: ItemTag };

/** In points. */
const columnSlack = 1.5;

/** Where columns begin inside pieces that stand too close to be told apart: a word begins there in nearly all lines, behind a gap wider than between words. */
export function startsIn(own: readonly Weighed[][], rows: readonly PrintedRow[]): number[] {
  if (own.length < 3) return [];
  const at = new Map<number, { lines: number; gaps: number }>();
  for (const items of own) {
    const seen = new Set<number>();
    for (const [k, w] of items.entries()) {
      const before = items[k - 1];
      if (!before || before.at !== w.at || before.item.left !== w.item.left) continue;
      const x = Math.round(w.item.x / columnSlack);
      if (seen.has(x)) continue;
      seen.add(x);
      const one = at.get(x) ?? { lines: 0, gaps: 0 };
      one.lines++;
      if (w.item.x - before.item.end > 0.45 * rows[w.at]!.row.h) one.gaps++;
      at.set(x, one);
    }
  }
  const count = (x: number, of: 'lines' | 'gaps') => [x - 1, x, x + 1].reduce((a, k) => a + (at.get(k)?.[of] ?? 0), 0);
  return [...at.keys()]
    .filter(
      (x) =>
        count(x, 'lines') >= 0.8 * own.length &&
        count(x, 'gaps') >= 0.5 * own.length &&
        (at.get(x)?.lines ?? 0) >= Math.max(at.get(x - 1)?.lines ?? 0, at.get(x + 1)?.lines ?? 0),
    )
    .map((x) => x * columnSlack);
}

/** What it costs to cut a piece in two: its words mostly belong together. */
const loose = 1.8,
  tight = 5;

/** How much a word looks more like a description than like anything else; none that is something else already. */
function gainOf(w: Weighed): number {
  if (isCurrency(w.item.text)) return -Infinity;
  let rest = -Infinity;
  for (const tag of itemTags) if (tag !== 'description' && w.shares[tag] > rest) rest = w.shares[tag];
  return Math.max(-4, Math.min(4, w.shares.description - rest));
}

/** A piece of a line's rows that stands in one column. */
export interface LinePiece {
  /** The same for pieces of other lines in the same column and row. */ key: string;
  /** Which of the line's rows it stands in: 0 is its own. */ row: number;
  words: Weighed[];
  /** How much each word looks like a description. */ gains: number[];
  /** How much all of it does. */ gain: number;
}

/** Pieces of a line's rows, cut where columns begin. */
export function piecesOf(items: readonly Weighed[], starts: readonly number[]): LinePiece[] {
  const pieces: { at: number; column: number; words: Weighed[] }[] = [];
  for (const w of items) {
    const column = starts.findLast((x) => x <= w.item.x + columnSlack && x > w.item.left + columnSlack) ?? w.item.left;
    const own = pieces.find((p) => p.at === w.at && p.column === column);
    if (own) own.words.push(w);
    else pieces.push({ at: w.at, column, words: [w] });
  }
  return pieces.map(({ at, column, words }) => {
    const row = at - words[0]!.first,
      gains = words.map(gainOf);
    return { key: `${Math.round(column / 4)} ${row}`, row, words, gains, gain: gainOfPiece(words, gains) };
  });
}

/** How much the words of a piece look like a description; a date is none, nor is what has no word. */
function gainOfPiece(words: readonly Weighed[], gains: readonly number[]): number {
  if (!words.some((w) => hasLetters(w.item.text)) || words.every((w) => w.dated)) return -4;
  const some = gains.filter(Number.isFinite);
  return some.reduce((a, g) => a + g, 0) / Math.max(1, Math.sqrt(some.length));
}

/**
 * The columns that say what lines are, one for the lines' own rows and one for each row over and under them where several lines have
 * one: by what their words look like in all lines together.
 */
export function describingColumns(own: readonly LinePiece[][]): ReadonlySet<string> {
  const sums = new Map<string, { gain: number; lines: number; row: number }>();
  for (const pieces of own)
    for (const { key, row, gain } of pieces) {
      const one = sums.get(key) ?? sums.set(key, { gain: 0, lines: 0, row }).get(key)!;
      one.gain += Math.max(0, gain);
      one.lines++;
    }
  const best = new Map<number, string>();
  for (const [key, { gain, lines, row }] of sums) {
    const rival = best.get(row);
    if (gain > 0 && (row === 0 || lines > 1) && (!rival || gain > sums.get(rival)!.gain)) best.set(row, key);
  }
  return new Set(best.values());
}

/** The words of a line's description: of the piece in the describing column, and of those in its other rows, the run that looks like it most; the likeliest piece where none does. */
export function describedBy(
  pieces: readonly LinePiece[],
  taken: ReadonlySet<Weighed | null>,
  columns: ReadonlySet<string>,
  cut = loose,
): Weighed[] {
  const found: Weighed[] = [];
  let fallback: { run: Weighed[]; score: number } | null = null;
  const inColumn = new Set(pieces.flatMap((p) => (columns.has(p.key) ? [p.row] : [])));
  // Where what stands in its column says nothing, a line is of another table.
  const spoken = new Set(pieces.flatMap((p) => (columns.has(p.key) && p.gain > 0 ? [p.row] : [])));
  const beside = new Map<number, { run: Weighed[]; score: number }>();
  for (const { key, row, words: piece, gains: alone, gain } of pieces) {
    // Words of two columns side by side are not one description.
    if (inColumn.has(row) && !columns.has(key) && !(gain > 0 && !spoken.has(row))) continue;
    const gains = piece.map((w, i) => (taken.has(w) || (i === 0 && bullet.test(w.item.text)) ? -Infinity : alone[i]!));
    let best: { from: number; to: number; score: number } | null = null;
    for (let from = 0; from < piece.length; from++) {
      let sum = from > 0 && Number.isFinite(gains[from - 1]!) ? -cut : 0;
      for (let to = from; to < piece.length && Number.isFinite(gains[to]!); to++) {
        sum += gains[to]!;
        const score = sum - (to + 1 < piece.length && Number.isFinite(gains[to + 1]!) ? cut : 0);
        if (!best || score > best.score) best = { from, to, score };
      }
    }
    if (!best) continue;
    const run = piece.slice(best.from, best.to + 1);
    if (best.score > 0) {
      const rival = beside.get(run[0]!.at);
      if (rival && rival.score >= best.score) continue;
      if (rival) for (const w of rival.run) found.splice(found.indexOf(w), 1);
      beside.set(run[0]!.at, { run, score: best.score });
      found.push(...run);
    } else if (hasWord(run.map((w) => w.item.text).join(' ')) && (!fallback || best.score > fallback.score))
      fallback = { run, score: best.score };
  }
  return found.length > 0 ? found : (fallback?.run ?? []);
}

/** What it costs to cut a piece of these lines: where most are taken whole, words that look strange are part of theirs too. */
export function cutIn(
  own: readonly LinePiece[][],
  taken: (line: number) => ReadonlySet<Weighed | null>,
  columns: ReadonlySet<string>,
): number {
  let whole = 0,
    all = 0;
  for (const [line, pieces] of own.entries()) {
    const found = new Set(describedBy(pieces, taken(line), columns));
    for (const { key, row, words } of pieces) {
      if (!columns.has(key) || row !== 0 || !words.some((w) => found.has(w))) continue;
      all++;
      if (words.every((w) => found.has(w))) whole++;
    }
  }
  return all > 2 && whole >= 0.7 * all ? tight : loose;
}

/** A description with the rows over it that are left open with a comma, "Leaflet," over "six pages": whatever their words look like. */
export function openedAbove(described: Weighed[], items: readonly Weighed[]): Weighed[] {
  for (;;) {
    const first = described[0];
    const over = first && items.filter((w) => w.at === first.at - 1 && Math.abs(w.item.left - first.item.left) < 3);
    if (!over?.length || described.includes(over[0]!) || !/[,&]$/.test(over.at(-1)!.item.text)) return described;
    described = [...over, ...described];
  }
}

/** Words with a colon that stand in most lines: labels of what follows them, "Article: K7 Description: Cedar board". */
export function labelsIn(own: readonly Weighed[][]): Set<string> {
  const times = new Map<string, number>();
  for (const items of own)
    for (const text of new Set(items.flatMap((w) => (w.item.text.endsWith(':') && hasLetter(w.item.text) ? [w.item.text] : []))))
      times.set(text, (times.get(text) ?? 0) + 1);
  return new Set([...times].filter(([, n]) => n > 1 && n >= 0.7 * own.length).map(([text]) => text));
}

/** A description without the labels that stand before it, and what these label. */
export function behindLabel(described: Weighed[], labels: ReadonlySet<string>): Weighed[] {
  const last = described.findLastIndex((w) => labels.has(w.item.text));
  return last < described.length - 1 ? described.slice(last + 1) : described;
}

/**
 * Descriptions without the rows of them that say the same in nearly all lines while another row says what they are: words before figures,
 * "Qty 12 pcs at 4.50" under each.
 */
export function unlabelled(described: readonly Weighed[][]): Weighed[][] {
  const rows = described.map((words) => {
    const byRow = new Map<number, string>();
    for (const w of words) byRow.set(w.at - w.first, `${byRow.get(w.at - w.first) ?? ''} ${w.item.text}`);
    return byRow;
  });
  const said = (off: number) => rows.flatMap((r) => r.get(off) ?? []);
  const offs = [...new Set(rows.flatMap((r) => [...r.keys()]))];
  const same = offs.filter((off) => {
    const texts = said(off),
      times = new Map<string, number>();
    for (const text of texts) times.set(text, (times.get(text) ?? 0) + 1);
    return texts.length > 2 && texts.length >= 0.7 * described.length && Math.max(...times.values()) >= 0.9 * texts.length;
  });
  if (same.length === 0) return [...described];
  const left = described.map((words) => words.filter((w) => !same.includes(w.at - w.first)));
  const telling = left.filter((words) => words.length > 0).length;
  return telling >= 0.9 * described.length ? left : [...described];
}
