import { findDates } from '../../dates/index.ts';
import type { Segment, Word } from '../../page/index.ts';
import type { Layout } from '../layout.ts';
import { Features, plainWord } from '../learned/features.ts';
import { speaks } from '../head/around.ts';
import type { Item, PrintedRow } from './printed.ts';
import { countsWhole, moneyLike } from './rowfeatures.ts';

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
}

const dates = new WeakMap<Segment, Set<Word>>();
/** Words of a piece that are part of a date, the name of its day with it: "Sat 17 Oct 2026". */
function dated(segment: Segment): Set<Word> {
  let found = dates.get(segment);
  if (found) return found;
  dates.set(segment, (found = new Set()));
  const hits = findDates(segment.text);
  let at = 0;
  for (const word of segment.words) {
    if (hits.some((h) => at < h.index + h.length && at + word.text.length > h.index)) found.add(word);
    at += word.text.length + 1;
  }
  return found;
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
      if (one.row.segments.length >= 2 && one.items.filter((x) => !x.figure && /\p{L}/u.test(x.text)).length >= 2) above.push(one);
    }
    found.set(page, above);
  }
  const first = [...found.values()].find((h) => h.length > 0) ?? [];
  for (const [page, own] of found) if (own.length === 0) found.set(page, first);
  return found;
}

/** What is seen of every figure and word of the lines' rows. */
export function itemFeatures(layout: Layout, rows: readonly PrintedRow[], lines: readonly LineRows[]): SeenItem[] {
  const whole = countsWhole(rows);
  const sizes = layout.pages.flatMap((p) => p.words.map((w) => w.size)).sort((a, b) => a - b);
  const body = sizes[sizes.length >> 1] ?? 10;
  const heads = headings(rows, lines, body);
  const all = lines.flatMap(({ row, parts }, line) =>
    [row, ...parts].sort((a, b) => a - b).flatMap((at) => rows[at]!.items.map((item) => ({ item, at, line }))),
  );
  const own = lines.map((_, line) => all.filter((x) => x.line === line));
  // How many lines have a figure on this right edge, a piece on this left edge.
  const edgeOf = (x: number) => Math.round(x / 4);
  const edges = new Map<string, Set<number>>();
  const put = (key: string, line: number) => (edges.get(key) ?? edges.set(key, new Set()).get(key)!).add(line);
  const shift = (at: number, line: number) => at - lines[line]!.row;
  for (const { item, at, line } of all) {
    for (const d of [-1, 0, 1]) put(`${item.figure ? 'f' : 'w'}${edgeOf(item.figure ? item.end : item.left) + d} ${shift(at, line)}`, line);
    put(`t${item.text} ${edgeOf(item.left)}`, line);
  }
  // Columns of words, by how much they say: a description is the longest and seldom the same twice.
  const texts = new Map<string, { letters: number; of: Set<string>; times: number }>();
  const textColumn = (left: number, off: number) => `${edgeOf(left)} ${off}`;
  for (const { row, parts } of lines)
    for (const at of [row, ...parts])
      for (const segment of rows[at]!.row.segments) {
        if (!/\p{L}{2}/u.test(segment.text)) continue;
        const key = textColumn(segment.x, at - row);
        const one = texts.get(key) ?? texts.set(key, { letters: 0, of: new Set(), times: 0 }).get(key)!;
        one.letters += segment.text.replace(/\P{L}/gu, '').length;
        one.of.add(segment.text);
        one.times++;
      }
  // Lines with the same words: what is the same in them all is their price, what differs their quantity.
  const wordsOf = lines.map(
    ({ row }) =>
      [...rows[row]!.row.segments].sort((a, b) => b.text.replace(/\P{L}/gu, '').length - a.text.replace(/\P{L}/gu, '').length)[0]?.text ??
      '',
  );
  const alike = new Map<string, Set<string>>();
  const times = new Map<string, number>();
  for (const words of wordsOf) times.set(words, (times.get(words) ?? 0) + 1);
  const alikeKey = (item: Item, line: number) => `${wordsOf[line]} ${edgeOf(item.end)}`;
  for (const { item, line } of all)
    if (item.figure && times.get(wordsOf[line]!)! > 1)
      (alike.get(alikeKey(item, line)) ?? alike.set(alikeKey(item, line), new Set()).get(alikeKey(item, line))!).add(item.figure.value);
  // How the figures of a column are written: weights have three decimals, prices two.
  const written = new Map<string, Set<number>>();
  for (const { item, at, line } of all)
    if (item.figure) {
      const key = `${edgeOf(item.end)} ${shift(at, line)}`;
      (written.get(key) ?? written.set(key, new Set()).get(key)!).add(item.figure.decimals);
    }
  const longest = [...texts.values()].sort((a, b) => b.letters - a.letters);
  return all.map(({ item, at, line }) => {
    const f = new Features();
    const { row, items } = rows[at]!;
    const page = layout.pages.find((p) => p.number === row.page)!;
    const me = items.indexOf(item);
    const off = shift(at, line);
    f.add(`row ${Math.max(-3, Math.min(3, off))}`);
    const figures = items.filter((i) => i.figure);
    const segment = row.segments.find((s) => s.words.includes(item.words[0]!));
    const share = (edges.get(`${item.figure ? 'f' : 'w'}${edgeOf(item.figure ? item.end : item.left)} ${off}`)?.size ?? 1) / lines.length;
    const figure = item.figure;
    const kind = figure ? 'fig' : 'word';
    f.add(kind);
    f.add(`${kind} column ${Math.floor(share * 4)}${lines.length === 1 ? ' alone' : ''}`);
    if (figure) {
      const k = figures.indexOf(item);
      f.add(`from right ${Math.min(6, figures.length - 1 - k)}${off === 0 ? '' : ' elsewhere'}`);
      f.add(`from left ${Math.min(6, k)}`);
      f.add(`of figures ${Math.min(7, figures.length)} from right ${Math.min(6, figures.length - 1 - k)}`);
      f.add(`decimals ${Math.min(4, figure.decimals)}`);
      const places = written.get(`${edgeOf(item.end)} ${off}`)!;
      f.add(`column of ${places.size === 1 ? figure.decimals : 'different'} decimals`);
      if (figure.percent) f.add('percent');
      if (figure.money) f.add('money');
      if (figure.unit) f.word('unit', plainWord(figure.unit));
      if (moneyLike(item, whole)) f.add('like an amount');
      const digits = figure.value.replace(/\D/g, '').length;
      f.add(`digits ${Math.min(9, digits)}`);
      if (figure.decimals === 0 && digits <= 3) f.add('small and whole');
      const before = figures[k - 1]?.figure,
        next = figures[k + 1]?.figure;
      if (before && before.value === figure.value) f.add('same as before');
      if (next && next.value === figure.value) f.add('same as next');
      const values = own[line]!.flatMap((x) =>
        x.item.figure && x.item !== item && !x.item.figure.percent ? [Math.abs(Number(x.item.figure.value))] : [],
      );
      const mine = Math.abs(Number(figure.value));
      let factor = false,
        result = false;
      for (let i = 0; i < values.length && !(factor && result); i++)
        for (let j = 0; j < values.length; j++) {
          if (i === j) continue;
          const [a, b] = [values[i]!, values[j]!];
          for (const per of [1, 100, 1000]) {
            if (a !== 0 && a !== 1 && mine !== 0 && near((a * mine) / per, b, 0.0051)) factor = true;
            if (a > 1 && b !== 0 && b !== 1 && near((a * b) / per, mine, 0.0051)) result = true;
          }
        }
      if (factor) f.add('makes another');
      if (result) f.add('is a product');
      if (/^\d{1,2}$/.test(item.text) && Number(item.text) === line + 1) f.add('counts the lines');
      if (/^[x×@]|[x×]$/.test(item.text)) f.add('times sign');
      const among = alike.get(alikeKey(item, line));
      if (among) f.add(among.size === 1 ? 'same where the words are' : 'differs where the words are the same');
    } else {
      f.word('is', plainWord(item.text), 0.8);
      f.add(`length ${Math.min(12, item.text.length)}`);
      f.add(
        `shape ${item.text
          .replace(/\p{Lu}+/gu, 'A')
          .replace(/\p{Ll}+/gu, 'a')
          .replace(/\d+/g, '9')
          .slice(0, 7)}`,
      );
      if (/\d/.test(item.text) && /\p{L}/u.test(item.text)) f.add('letters and digits');
      if (/^\p{Ll}+$/u.test(item.text)) f.add('small letters');
      f.add(`same text in ${Math.floor(((edges.get(`t${item.text} ${edgeOf(item.left)}`)?.size ?? 1) / lines.length) * 4)}`);
    }
    if (findDates(item.text).length > 0) f.add('date');
    else if (segment && dated(segment).has(item.words[0]!)) f.add('in a date');
    f.add(`${kind} x${Math.floor((item.x / page.width) * 10)}`);
    const count = segment?.words.length ?? 1;
    f.add(`${kind} of ${Math.min(6, count)}`);
    if (segment && segment.words[0] === item.words[0]) f.add(`${kind} begins its piece`);
    if (segment && segment.words.at(-1) === item.words.at(-1)) f.add(`${kind} ends its piece`);
    f.add(`${kind} piece ${Math.min(6, row.segments.indexOf(segment!))}`);
    if (segment && segment.words.filter((w) => /\p{L}{3}/u.test(w.text)).length >= 2) f.add(`${kind} among words`);
    if (me === 0) f.add(`${kind} begins the row`);
    if (me === items.length - 1) f.add(`${kind} ends the row`);
    const text = segment && texts.get(textColumn(segment.x, off));
    if (text) {
      const rank = longest.indexOf(text);
      f.add(`${kind} text rank ${Math.min(4, rank)}`);
      f.add(`${kind} text ${Math.floor((4 * text.letters) / longest[0]!.letters)} of the longest`);
      f.add(`${kind} letters ${Math.min(8, Math.floor(text.letters / text.times / 4))}`);
      f.add(`${kind} different ${Math.floor((3 * text.of.size) / text.times)}`);
      f.add(`${kind} in lines ${Math.floor((4 * text.times) / lines.length)}`);
    }
    for (const [d, name] of [
      [-1, 'before'],
      [1, 'after'],
    ] as const) {
      const other = items[me + d];
      if (!other) continue;
      const joined = Math.abs(d < 0 ? item.x - other.end : other.x - item.end) < 0.75 * row.h;
      if (other.figure) f.add(`${name} a figure${joined ? ' joined' : ''}${other.figure.percent ? ' percent' : ''}`);
      else f.word(`${name}${joined ? '' : ' far'}`, plainWord(other.text), 0.7);
    }
    for (const head of heads.get(row.page) ?? []) {
      const over = head.items.filter((h) => h.x < item.end + 2 && h.end > item.x - 2);
      const beside = over.length > 0 ? over : head.items.filter((h) => near(h.end, item.end, 14) || near(h.left, item.left, 5));
      for (const h of beside.slice(0, 3)) f.word(`head ${kind}`, plainWord(h.text), 0.9);
      speaks(
        f,
        `head ${kind}`,
        beside.slice(0, 3).map((h) => h.text),
      );
      for (const c of head.row.columns) if (c.box.x < item.end + 3 && c.box.x + c.box.w > item.x - 3) f.add(`head is ${c.role}`);
    }
    return {
      item,
      at,
      line,
      first: lines[line]!.row,
      features: f,
      column: `${kind} ${edgeOf(item.figure ? item.end : item.left)} ${off}`,
    };
  });
}
