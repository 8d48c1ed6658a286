import type { Layout } from '../layout.ts';
import { Features, plainWord, type Panel } from '../learned/features.ts';
import { speaks } from '../head/around.ts';
import { bodySize } from '../head/tokens.ts';
import type { Item, PrintedRow } from './printed.ts';
import { itemAlone } from './itemalone.ts';
import { countsWhole } from './rowfeatures.ts';
import { hasLetter, hasLetters } from '../letters.ts';

/** A line's printed rows: the one with its amount, and those that belong to it, in order. */
export interface LineRows {
  row: number;
  parts: number[];
}
/** An item of a line's rows with what is seen of it. */
export interface SeenItem {
  item: Item;
  /** Its printed row. */ at: number;
  /** The line it stands in. */ line: number;
  /** The line's own printed row, with its amount. */ first: number;
  features: Features;
  /** Items of other lines that stand in the same column have the same key. */ column: string;
  /** A factor of other figures of its line. */ makes: boolean;
  /** The product of others. */ made: boolean;
  /** A date, or part of one. */ dated: boolean;
  /** Rows over the lines of its page that may head them, the nearest first. */ heads: readonly PrintedRow[];
}

const notLetters = /\P{L}/gu;

/** Items by their line, in one go. */
export function byLine<I extends { line: number }>(items: readonly I[], lines: number): I[][] {
  const own = Array.from({ length: lines }, (): I[] => []);
  for (const item of items) own[item.line]!.push(item);
  return own;
}

/** In how many lines something stands, as they come one after another. */
class LinesOf<Key> {
  private readonly by = new Map<Key, { last: number; lines: number }>();

  add(key: Key, line: number): void {
    const one = this.by.get(key);
    if (!one) this.by.set(key, { last: line, lines: 1 });
    else if (one.last !== line) {
      one.last = line;
      one.lines++;
    }
  }
  count(key: Key): number {
    return this.by.get(key)?.lines ?? 1;
  }
}

const near = (a: number, b: number, by: number): boolean => Math.abs(a - b) <= by;

/** Rows of words over the first line of each page that may head its columns; a page without any has those of the first. */
function headings(rows: readonly PrintedRow[], lines: readonly LineRows[], body: number): Map<number, PrintedRow[]> {
  const found = new Map<number, PrintedRow[]>();
  for (const { row, parts } of lines) {
    const page = rows[row]!.row.page;
    if (found.has(page)) continue;
    const top = Math.min(row, ...parts);
    const above: PrintedRow[] = [];
    for (let i = top - 1; i >= 0 && above.length < 4; i--) {
      const one = rows[i]!;
      if (one.row.page !== page || rows[top]!.row.y - one.row.y > 9 * body) break;
      if (one.row.segments.length >= 2 && one.items.filter((x) => !x.figure && hasLetter(x.text)).length >= 2) above.push(one);
    }
    found.set(page, above);
  }
  const first = [...found.values()].find((h) => h.length > 0) ?? [];
  for (const [page, own] of found) if (own.length === 0) found.set(page, first);
  return found;
}

/** What was seen of items: by themselves, and under headings by the headings' rows. */
export type ItemsKnown = Map<Item, { alone: Features; dated: boolean; under: Map<string, Features> }>;

/** What is seen of every figure and word of the lines' rows. */
export function itemFeatures(
  layout: Layout,
  rows: readonly PrintedRow[],
  lines: readonly LineRows[],
  /** What was seen of items before, for other ways to read the same document's lines. */ known: ItemsKnown = new Map(),
  /** For whom it is seen; by name without. */ panel: Panel | null = null,
): SeenItem[] {
  const whole = countsWhole(rows);
  const heads = headings(rows, lines, bodySize(layout));
  const all = lines.flatMap(({ row, parts }, line) =>
    [row, ...parts].sort((a, b) => a - b).flatMap((at) => rows[at]!.items.map((item) => ({ item, at, line }))),
  );
  const own = byLine(all, lines.length);
  // How many lines have a figure on this right edge, a piece on this left edge.
  const edgeOf = (x: number) => Math.round(x / 4);
  const edges = new LinesOf<number>(),
    same = new LinesOf<string>();
  const shift = (at: number, line: number) => at - lines[line]!.row;
  const edgeKey = ({ figure, end, left }: Item, off: number) => (edgeOf(figure ? end : left) * 1024 + off) * 2 + (figure ? 1 : 0);
  const textKey = ({ text, left }: Item) => `${text} ${edgeOf(left)}`;
  for (const { item, at, line } of all) {
    const key = edgeKey(item, shift(at, line));
    for (let d = -1; d <= 1; d++) edges.add(key + d * 2048, line);
    if (!item.figure) same.add(textKey(item), line);
  }
  // Columns of words, by how much they say: a description is the longest and seldom the same twice.
  const texts = new Map<string, { letters: number; of: Set<string>; times: number }>();
  const textColumn = (left: number, off: number) => `${edgeOf(left)} ${off}`;
  for (const { row, parts } of lines)
    for (const at of [row, ...parts])
      for (const segment of rows[at]!.row.segments) {
        if (!hasLetters(segment.text)) continue;
        const key = textColumn(segment.x, at - row);
        const one = texts.get(key) ?? texts.set(key, { letters: 0, of: new Set(), times: 0 }).get(key)!;
        one.letters += segment.text.replace(notLetters, '').length;
        one.of.add(segment.text);
        one.times++;
      }
  // Lines with the same words: what is the same in them all is their price, what differs their quantity.
  const wordsOf = lines.map(({ row }) => {
    let words = '',
      most = -1;
    for (const { text } of rows[row]!.row.segments) {
      const letters = text.replace(notLetters, '').length;
      if (letters > most) [words, most] = [text, letters];
    }
    return words;
  });
  const alike = new Map<string, Set<string>>();
  const times = new Map<string, number>();
  for (const words of wordsOf) times.set(words, (times.get(words) ?? 0) + 1);
  const alikeKey = (item: Item, line: number) => `${wordsOf[line]} ${edgeOf(item.end)}`;
  for (const { item, line } of all)
    if (item.figure && times.get(wordsOf[line]!)! > 1) {
      const key = alikeKey(item, line);
      (alike.get(key) ?? alike.set(key, new Set()).get(key)!).add(item.figure.value);
    }
  // How the figures of a column are written: weights have three decimals, prices two.
  const written = new Map<string, Set<number>>();
  for (const { item, at, line } of all)
    if (item.figure) {
      const key = `${edgeOf(item.end)} ${shift(at, line)}`;
      (written.get(key) ?? written.set(key, new Set()).get(key)!).add(item.figure.decimals);
    }
  const longest = [...texts.values()].sort((a, b) => b.letters - a.letters);
  const multiplied = products(own);
  const codes = codeColumns(all, lines);
  return all.map(({ item, at, line }) => {
    const f = new Features(panel);
    const { row, items } = rows[at]!;
    const off = shift(at, line);
    let seen = known.get(item);
    if (!seen) {
      const page = layout.pages.find((p) => p.number === row.page)!;
      known.set(item, (seen = itemAlone(rows[at]!, item, page.width, whole, panel)));
    }
    f.take(seen.alone);
    f.of('row ', Math.max(-3, Math.min(3, off)));
    const figure = item.figure,
      product = multiplied.get(item);
    const kind = figure ? 'fig' : 'word';
    const share = edges.count(edgeKey(item, off)) / lines.length;
    f.of(figure ? 'fig column ' : 'word column ', lines.length === 1 ? `${Math.floor(share * 4)} alone` : Math.floor(share * 4));
    if (figure) {
      const figures = items.filter((i) => i.figure);
      const right = Math.min(6, figures.length - 1 - figures.indexOf(item));
      f.of('from right ', off === 0 ? right : `${right} elsewhere`);
      const places = written.get(`${edgeOf(item.end)} ${off}`)!;
      f.add(`column of ${places.size === 1 ? figure.decimals : 'different'} decimals`);
      if (product?.factor) f.add('makes another');
      if (product?.result) f.add('is a product');
      if (/^\d{1,2}$/.test(item.text) && Number(item.text) === line + 1) f.add('counts the lines');
      const among = alike.size > 0 ? alike.get(alikeKey(item, line)) : undefined;
      if (among) f.add(among.size === 1 ? 'same where the words are' : 'differs where the words are the same');
    } else f.of('same text in ', Math.floor((same.count(textKey(item)) / lines.length) * 4));
    const column = codes.get(placeKey(item, off));
    if (column !== undefined) f.add(`${kind} code column ${Math.min(2, column)} of ${Math.min(3, codes.size)}`);
    else if (codes.size > 0) f.add(figure ? 'fig beside codes' : 'word beside codes');
    const text = texts.get(textColumn(item.left, off));
    if (text) {
      const rank = longest.indexOf(text);
      f.of(figure ? 'fig text rank ' : 'word text rank ', Math.min(4, rank));
      f.add(`${kind} text ${Math.floor((4 * text.letters) / longest[0]!.letters)} of the longest`);
      f.of(figure ? 'fig letters ' : 'word letters ', Math.min(8, Math.floor(text.letters / text.times / 4)));
      f.of(figure ? 'fig different ' : 'word different ', Math.floor((3 * text.of.size) / text.times));
      f.of(figure ? 'fig in lines ' : 'word in lines ', Math.floor((4 * text.times) / lines.length));
    }
    const over = heads.get(row.page) ?? [];
    const key = over.map((h) => h.row.index).join(' ');
    let head = seen.under.get(key);
    if (!head) seen.under.set(key, (head = headed(item, over, panel)));
    f.take(head);
    return {
      item,
      at,
      line,
      first: lines[line]!.row,
      features: f,
      column: `${kind} ${edgeOf(figure ? item.end : item.left)} ${off}`,
      makes: product?.factor ?? false,
      made: product?.result ?? false,
      dated: seen.dated,
      heads: over,
    };
  });
}

const placeKey = (item: Item, off: number): string => `${Math.round(item.x / 4)} ${off}`;

/** Whether something is written as codes are: digits, and no word; no amount either. */
const codeLike = ({ figure, text }: Item): boolean =>
  figure ? /^\d{3,}$/.test(text) : text.length > 2 && /\d/.test(text) && !/\p{Ll}{3}|[£$€%:]|^\d{1,2}[./-]\d{1,2}[./-]\d{2,4}$/u.test(text);

/** Places in lines where something like a code stands, each time another, in most of them; numbered from the left. One alone is what lines go by. */
function codeColumns(all: readonly { item: Item; at: number; line: number }[], lines: readonly LineRows[]): Map<string, number> {
  const places = new Map<string, { like: number; texts: Set<string>; of: Set<number>; x: number }>();
  for (const { item, at, line } of all) {
    const key = placeKey(item, at - lines[line]!.row);
    const one = places.get(key) ?? places.set(key, { like: 0, texts: new Set(), of: new Set(), x: item.x }).get(key)!;
    if (codeLike(item)) one.like++;
    one.texts.add(item.text);
    one.of.add(line);
  }
  const found = [...places].filter(
    ([, p]) => p.like >= 0.7 * p.of.size && p.of.size >= 0.4 * lines.length && p.texts.size >= 0.6 * p.of.size,
  );
  return new Map(found.sort((a, b) => a[1].x - b[1].x).map(([key], i) => [key, i]));
}

/** What the words over an item's column say. */
function headed(item: Item, heads: readonly PrintedRow[], panel: Panel | null): Features {
  const f = new Features(panel),
    kind = item.figure ? 'fig' : 'word';
  for (const head of heads) {
    const over = head.items.filter((h) => h.x < item.end + 2 && h.end > item.x - 2);
    const beside = over.length > 0 ? over : head.items.filter((h) => near(h.end, item.end, 14) || near(h.left, item.left, 5));
    for (const h of beside.slice(0, 3)) f.word(`head ${kind}`, plainWord(h.text), 0.9);
    speaks(
      f,
      `head ${kind}`,
      beside.slice(0, 3).map((h) => h.text),
    );
    for (const c of head.row.columns) if (c.box.x < item.end + 3 && c.box.x + c.box.w > item.x - 3) f.of('head is ', c.role);
  }
  return f;
}

/** Of each figure of lines whether it is a factor, and whether it is the product, of others of its line. */
function products(own: readonly { item: Item }[][]): Map<Item, { factor: boolean; result: boolean }> {
  const found = new Map<Item, { factor: boolean; result: boolean }>();
  for (const line of own) {
    const figures = line.filter((x) => x.item.figure).map((x) => x.item);
    const values = figures.map((i) => (i.figure!.percent ? 0 : Math.abs(Number(i.figure!.value))));
    const of = figures.map((item, i) => {
      // A percentage makes nothing out of others, but it may be made.
      const one = { factor: false, result: false, mine: Math.abs(Number(item.figure!.value)), i };
      found.set(item, one);
      return one;
    });
    for (const one of of)
      for (let a = 0; a < values.length && !(one.factor && one.result); a++)
        for (let b = 0; b < values.length; b++) {
          if (a === b || a === one.i || b === one.i || figures[a]!.figure!.percent || figures[b]!.figure!.percent) continue;
          const [x, y] = [values[a]!, values[b]!];
          for (const per of [1, 100, 1000]) {
            if (x !== 0 && x !== 1 && one.mine !== 0 && near((x * one.mine) / per, y, 0.0051)) one.factor = true;
            if (x > 1 && y !== 0 && y !== 1 && near((x * y) / per, one.mine, 0.0051)) one.result = true;
          }
        }
  }
  return found;
}
