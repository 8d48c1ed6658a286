import { findDates } from '../../dates/index.ts';
import type { Segment, Word } from '../../page/index.ts';
import { Features, plainWord, type Panel } from '../learned/features.ts';
import type { Item, PrintedRow } from './printed.ts';
import { moneyLike } from './rowfeatures.ts';
import { hasLetter, hasWord } from '../letters.ts';

interface PieceSeen {
  /** Words of it that are part of a date, the name of its day with it: "Sat 17 Oct 2026". */ dated: Set<Word>;
  /** It has two words or more. */ worded: boolean;
}
const pieces = new WeakMap<Segment, PieceSeen>();
/** What is seen of a piece of a row, once for all that stands in it. */
function pieceOf(segment: Segment): PieceSeen {
  let seen = pieces.get(segment);
  if (seen) return seen;
  const found = new Set<Word>();
  pieces.set(segment, (seen = { dated: found, worded: segment.words.filter((w) => hasWord(w.text)).length >= 2 }));
  const hits = findDates(segment.text);
  let at = 0;
  for (const word of segment.words) {
    if (hits.some((h) => at < h.index + h.length && at + word.text.length > h.index)) found.add(word);
    at += word.text.length + 1;
  }
  return seen;
}

const ofFigures = Array.from({ length: 8 }, (_, n) => `of figures ${n} from right `);

/** What is seen of a figure by itself. */
function figureAlone(f: Features, item: Item, whole: boolean): void {
  const figure = item.figure!;
  f.of('decimals ', Math.min(4, figure.decimals));
  if (figure.percent) f.add('percent');
  if (figure.money) f.add('money');
  if (figure.unit) f.word('unit', plainWord(figure.unit));
  if (moneyLike(item, whole)) f.add('like an amount');
  const digits = figure.value.replace(/\D/g, '').length;
  f.of('digits ', Math.min(9, digits));
  if (figure.decimals === 0 && digits <= 3) f.add('small and whole');
  if (/^[x×@]|[x×]$/.test(item.text)) f.add('times sign');
}

const capitals = /\p{Lu}+/gu,
  smalls = /\p{Ll}+/gu,
  allSmall = /^\p{Ll}+$/u;

/** What is seen of a word by itself. */
function wordAlone(f: Features, { text }: Item): void {
  f.word('is', plainWord(text), 0.8);
  f.of('length ', Math.min(12, text.length));
  f.add(`shape ${text.replace(capitals, 'A').replace(smalls, 'a').replace(/\d+/g, '9').slice(0, 7)}`);
  if (/\d/.test(text) && hasLetter(text)) f.add('letters and digits');
  if (allSmall.test(text)) f.add('small letters');
}

/** What is seen of a figure or word whatever the lines are: how it is written, its piece of the row and what stands beside it. */
export function itemAlone(
  { row, items }: PrintedRow,
  item: Item,
  width: number,
  whole: boolean,
  panel: Panel | null,
): { alone: Features; dated: boolean; under: Map<string, Features> } {
  const f = new Features(panel);
  const kind = item.figure ? 'fig' : 'word';
  f.add(kind);
  if (item.figure) {
    const figures = items.filter((i) => i.figure),
      k = figures.indexOf(item);
    f.of('from left ', Math.min(6, k));
    f.of(ofFigures[Math.min(7, figures.length)]!, Math.min(6, figures.length - 1 - k));
    if (figures[k - 1]?.figure!.value === item.figure.value) f.add('same as before');
    if (figures[k + 1]?.figure!.value === item.figure.value) f.add('same as next');
    figureAlone(f, item, whole);
  } else wordAlone(f, item);
  const segment = row.segments.find((s) => s.words.includes(item.words[0]!));
  const date = findDates(item.text).length > 0 ? 'date' : segment && pieceOf(segment).dated.has(item.words[0]!) ? 'in a date' : null;
  if (date) f.add(date);
  f.of(item.figure ? 'fig x' : 'word x', Math.floor((item.x / width) * 10));
  f.of(item.figure ? 'fig of ' : 'word of ', Math.min(6, segment?.words.length ?? 1));
  if (segment && segment.words[0] === item.words[0]) f.add(item.figure ? 'fig begins its piece' : 'word begins its piece');
  if (segment && segment.words.at(-1) === item.words.at(-1)) f.add(item.figure ? 'fig ends its piece' : 'word ends its piece');
  f.of(item.figure ? 'fig piece ' : 'word piece ', Math.min(6, row.segments.indexOf(segment!)));
  if (segment && pieceOf(segment).worded) f.add(item.figure ? 'fig among words' : 'word among words');
  const me = items.indexOf(item);
  if (me === 0) f.add(item.figure ? 'fig begins the row' : 'word begins the row');
  if (me === items.length - 1) f.add(item.figure ? 'fig ends the row' : 'word ends the row');
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
  return { alone: f, dated: date !== null, under: new Map() };
}
