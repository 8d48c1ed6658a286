import type { Mark } from '../../page/index.ts';
import type { Layout } from '../layout.ts';
import { Features, plainWord } from '../learned/features.ts';
import { speaksOf } from '../lexicon/stems.ts';
import { bodySize, tokenRows, type Token, type TokenRow } from './tokens.ts';

/** A piece of a printed row that may be a value: tokens from `from` to `to` (not with it) of row `at`. */
export interface Piece {
  at: number;
  from: number;
  to: number;
  text: string;
  mark: Mark;
}

/** What stands round pieces of a document. */
export interface Surroundings {
  rows: TokenRow[];
  /** Median text height. */ body: number;
  /** Width and height by page number. */ sizes: Map<number, { width: number; height: number }>;
  /** What was seen before and behind tokens, by row and token: pieces that begin or end with the same one share it. */
  before: Map<string, Features>;
  behind: Map<string, Features>;
}

const known = new WeakMap<Layout, Surroundings>();
/** What stands round pieces of a document; made once for each. */
export function surroundingsOf(layout: Layout): Surroundings {
  let found = known.get(layout);
  if (!found) {
    found = {
      rows: tokenRows(layout),
      body: bodySize(layout),
      sizes: new Map(layout.pages.map((p) => [p.number, { width: p.width, height: p.height }])),
      before: new Map(),
      behind: new Map(),
    };
    known.set(layout, found);
  }
  return found;
}

const once = (all: Map<string, Features>, key: string, make: (f: Features) => void): Features => {
  let found = all.get(key);
  if (!found) {
    make((found = new Features()));
    all.set(key, found);
  }
  return found;
};

/** Tokens of the nearest rows above that lie over a piece, nearest row first; two rows at most, within reach. */
function above({ rows, body }: Surroundings, { at, from, to }: Piece): Token[][] {
  const { row, tokens } = rows[at]!;
  const [x, end] = [tokens[from]!.x, tokens[to - 1]!.end];
  const found: Token[][] = [];
  for (let i = at - 1; i >= 0 && found.length < 2; i--) {
    const up = rows[i]!;
    if (up.row.page !== row.page || row.y - (up.row.y + up.row.h) > (found.length ? 4.5 : 3) * body) break;
    // A label above may be longer or shorter than its value; it begins or ends with it, or lies over it.
    const over = up.row.segments.filter((s) => s.x < end + 0.3 * body && s.x + s.w > x - 0.3 * body);
    const own = up.tokens.filter((t) => over.includes(t.segment) && t.x < Math.max(end, x + 6 * body) && t.end > x - 0.5 * body);
    if (own.length > 0) found.push(own);
  }
  return found;
}

/** What words near something speak of, in any language that is known, each thing once. */
export function speaks(f: Features, where: string, words: readonly string[]): void {
  const all: string[] = [];
  for (const word of words) for (const what of speaksOf(plainWord(word))) if (!all.includes(what)) all.push(what);
  if (all.length === 0) return;
  const name = `${where} says `;
  for (const what of all) f.of(name, what);
}

/** Whether a page bears facts of the head: the first two do, and the last; what is between is lines. */
export const bearsHead = ({ sizes }: Surroundings, page: number): boolean => {
  const pages = [...sizes.keys()];
  return pages.indexOf(page) < 2 || page === pages.at(-1);
};

/** What stands before a token, and where it stands. */
function beforeOf(f: Features, { rows, body, sizes }: Surroundings, at: number, from: number): void {
  const { row, tokens } = rows[at]!;
  const first = tokens[from]!,
    page = sizes.get(row.page)!;
  let x = first.x;
  for (let i = from - 1, n = 0; i >= 0 && n < 4; i--, n++) {
    const t = tokens[i]!,
      gap = (x - t.end) / body;
    f.word(
      n === 0 ? (gap < 1 ? 'left' : gap < 8 ? 'left over' : 'left far') : n === 1 ? 'left 2' : 'left 3',
      plainWord(t.text),
      n === 0 ? 1 : 0.7,
    );
    if (n === 0 && /[:#]$/.test(t.text)) f.add('colon left');
    x = t.x;
  }
  const before = tokens.slice(Math.max(0, from - 4), from);
  speaks(
    f,
    'left',
    before.filter((t) => t.segment === first.segment || before.at(-1)?.segment === t.segment).map((t) => t.text),
  );
  if (from === 0) f.add('begins the row');
  else if (first.segment !== tokens[from - 1]!.segment) f.add('begins a piece');
  const y = (row.y + row.h / 2) / page.height;
  f.of('y', Math.floor(y * 10));
  f.of('x', Math.floor((first.x / page.width) * 6));
  f.of('page ', Math.min(3, row.page));
  f.of('size ', Math.round(Math.min(4, (first.word.size / body) * 2)));
  f.of('segments ', Math.min(5, row.segments.length));
  f.of('own tokens ', Math.min(6, first.segment.words.length));
}

/** What stands behind the token before `to`. */
function behindOf(f: Features, { rows }: Surroundings, at: number, to: number): void {
  const { tokens } = rows[at]!;
  const next = tokens[to];
  if (!next) f.add('ends the row');
  else if (next.segment === tokens[to - 1]!.segment) {
    f.add('text follows');
    f.word('right', plainWord(next.text), 0.6);
  }
}

/** Words near a piece, in each direction, and where it stands: evidence that any kind of value has. */
export function around(f: Features, all: Surroundings, piece: Piece): void {
  const { rows, body } = all,
    { at, from, to } = piece;
  const { row, tokens } = rows[at]!;
  const first = tokens[from]!,
    last = tokens[to - 1]!;
  f.take(once(all.before, `${at} ${from}`, (own) => beforeOf(own, all, at, from)));
  f.take(once(all.behind, `${at} ${to}`, (own) => behindOf(own, all, at, to)));
  speaks(
    f,
    'piece',
    tokens.filter((t, i) => t.segment === first.segment && (i < from || i >= to)).map((t) => t.text),
  );
  const ups = above(all, piece);
  for (const [n, up] of ups.entries()) {
    const words = up.slice(0, 4).map((t) => t.text);
    for (const word of words) f.word(n === 0 ? 'above' : 'above 2', plainWord(word), n === 0 ? 0.9 : 0.5);
    speaks(f, n === 0 ? 'above' : 'above 2', words);
  }
  if (ups.length === 0) f.add('nothing above');
  const below = rows[at + 1];
  if (below && below.row.page === row.page && below.row.y - row.y < 2.5 * body)
    for (const t of below.tokens.filter((b) => b.x < last.end && b.end > first.x).slice(0, 2)) f.word('below', plainWord(t.text), 0.4);
}
