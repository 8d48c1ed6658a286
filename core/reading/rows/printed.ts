import type { Word } from '../../page/index.ts';
import type { LabelledRow, Layout } from '../layout.ts';
import { edgesOfPages, straightened } from './edges.ts';
import { isCurrency, parseNumber, type NumberStyle } from '../../numbers/index.ts';

/** Something that stands in a printed row: a figure, or a word. */
export interface Item {
  words: Word[];
  text: string;
  x: number;
  end: number;
  /** Where its piece of the row begins. */ left: number;
  figure: Figure | null;
}
/** A number as it is printed, with what its shape says. */
export interface Figure {
  /** Plain decimal. */ value: string;
  decimals: number;
  percent: boolean;
  /** A sign or code of money stands with it. */ money: boolean;
  /** What it is counted in, where that is written to it: "7kg". */ unit: string;
}
/** A printed row as figures and words. */
export interface PrintedRow {
  row: LabelledRow;
  items: Item[];
}

const halves: Record<string, string> = { '½': '5', '¼': '25', '¾': '75', '⅓': '333', '⅔': '667', '⅛': '125' };
/** A number with what it counts: "7kg". */
const counted = /^([-−–]?[\d.,]*\d)(\p{L}{1,5}\.?|m²|m³|x|×)$/u;
const fraction = /^(\d*)([½¼¾⅓⅔⅛])(.*)$/;

/** The figure that a text is, or null: "1,234.50", "(12.00)", "6½", "20%", "7kg", "£3.20". */
export function figureOf(text: string, style: NumberStyle): Figure | null {
  const bare = text
    .replace(/^[*]+|[*:;]+$/g, '')
    .replace(/(?<=\d)[.,]$/, '')
    // Producers write a half as one sign or as three.
    .replace(/1⁄2/, '½')
    .replace(/1⁄4/, '¼')
    .replace(/3⁄4/, '¾');
  const part = fraction.exec(bare);
  if (part) return { value: `${part[1] || '0'}.${halves[part[2]!]}`, decimals: 0, percent: false, money: false, unit: part[3]! };
  const percent = /^[-−–(+]?\s*[\d.,]+\s*%\)?$/.test(bare);
  const unit = percent ? null : counted.exec(bare);
  const body = percent
    ? bare.replace(/[%()+]/g, '')
    : unit && !isCurrency(unit[2]!) && !/^CR$/i.test(unit[2]!)
      ? unit[1]!
      : bare.replace(/^[x×@+]/i, '');
  const value = parseNumber(body.trim(), style);
  if (value === null) return null;
  const decimals = /[.,](\d+)\D*$/.exec(body)?.[1]?.length ?? 0;
  return {
    value,
    decimals: value.includes('.') ? decimals : 0,
    percent,
    money: /[£$€¥円]|\b(EUR|GBP|USD|JPY|kr|CHF|NOK|SEK|DKK|PLN|AUD|INR)\b/i.test(bare),
    unit: unit && body === unit[1] ? unit[2]! : '',
  };
}

/** Words that are one figure together: digits parted by spaces, a currency, minus or percent sign beside them. */
function joins(words: Word[], from: number, to: number): boolean {
  for (let i = from + 1; i <= to; i++) {
    const [a, b] = [words[i - 1]!, words[i]!];
    const gap = (b.x - (a.x + a.w)) / Math.max(a.size, b.size);
    const sign = /^[£$€¥−-]$/.test(a.text) || isCurrency(a.text) || /^(%|[−-]|CR)$/i.test(b.text) || isCurrency(b.text);
    if (gap > (sign ? 1.3 : 0.5)) return false;
    if (sign) continue;
    if (!/^[-−(£$€¥]*\d{1,3}$/.test(a.text) && !(i - 1 > from && /^\d{3}$/.test(a.text))) return false;
    if (!/^\d{3}([.,]\d+)?[)%€-]?$/.test(b.text)) return false;
  }
  return true;
}

/** Every printed row of a document with its figures and words, left to right. */
export function printedRows(layout: Layout): PrintedRow[] {
  const edges = edgesOfPages(layout);
  return layout.rows.map((asPrinted) => {
    const of = edges(asPrinted.page),
      row = layout.pages.some((p) => p.scan) ? straightened(asPrinted, of) : asPrinted;
    const items: Item[] = [];
    for (const segment of row.segments)
      for (let i = 0; i < segment.words.length; i++) {
        let length = 1,
          figure: Figure | null = null;
        for (const n of [4, 3, 2, 1]) {
          if (i + n > segment.words.length || (n > 1 && !joins(segment.words, i, i + n - 1))) continue;
          const found = figureOf(
            segment.words
              .slice(i, i + n)
              .map((w) => w.text)
              .join(' '),
            layout.style,
          );
          if (!found) continue;
          [length, figure] = [n, found];
          break;
        }
        const words = segment.words.slice(i, i + length),
          last = words.at(-1)!;
        items.push({
          words,
          text: words.map((w) => w.text).join(' '),
          x: i === 0 ? segment.x : words[0]!.x,
          end: of.right(last.x + last.w),
          left: segment.x,
          figure,
        });
        i += length - 1;
      }
    // A currency in a piece of its own belongs to the figure behind it.
    const joined: Item[] = [];
    for (const item of items) {
      const before = joined.at(-1);
      if (before && item.figure && !before.figure && /^[£$€¥]$/.test(before.text) && item.x - before.end < 6 * row.h) {
        joined[joined.length - 1] = {
          ...item,
          words: [...before.words, ...item.words],
          text: `${before.text} ${item.text}`,
          figure: { ...item.figure, money: true },
        };
      } else joined.push(item);
    }
    return { row, items: joined };
  });
}
