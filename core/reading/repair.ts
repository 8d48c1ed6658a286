import { dec, minorUnits } from '../money/index.ts';
import type { Mark, Page, Word } from '../page/index.ts';
import { sameLines } from './agree.ts';
import { misreadings } from './confusions.ts';
import { decideStyle, parseNumber, type NumberStyle } from '../numbers/index.ts';
import { wordsOn } from './secondlook.ts';
import { holds } from './table/values.ts';
import type { Read, Reading, ReadLine } from './types.ts';

interface Option {
  word: Word;
  text: string;
  value: string;
  /** What it takes to believe it: nothing for what was read, least for what a second look saw. */
  cost: number;
}

/** Every way to read a figure: as it was read, as a second look saw it, or with a usual confusion. */
function optionsFor(read: Read | null, pages: Page[], style: NumberStyle, places: number | null): Option[] {
  if (!read?.mark) return [];
  const words = wordsOn(pages, read.mark).filter((w) => /\d/.test(w.text));
  const [word] = words;
  if (!word || words.length > 1 || word.sure === undefined) return word ? [{ word, text: word.text, value: read.value, cost: 0 }] : [];
  const out: Option[] = [{ word, text: word.text, value: read.value, cost: 0 }];
  const add = (text: string, cost: number) => {
    const value = parseNumber(text, style);
    if (value !== null && !out.some((o) => dec(o.value).eq(value))) out.push({ word, text, value, cost });
  };
  for (const other of word.others ?? []) add(other, 1);
  for (const { text, cost } of misreadings(word.text, places)) add(text, cost);
  for (const other of word.others ?? []) for (const { text, cost } of misreadings(other, places)) add(text, cost + 0.8);
  return out;
}

type Cell = 'quantity' | 'unitPrice' | 'amount';
type Places = Record<Cell, number | null>;

/** How many decimals each column prints, where most of its rows agree. */
function placesOf(lines: ReadLine[]): Places {
  const of = (cell: Cell): number | null => {
    const counts = new Map<number, number>();
    const values = lines.flatMap((l) => (l[cell] ? [l[cell].value.split('.')[1]?.length ?? 0] : []));
    for (const places of values) counts.set(places, (counts.get(places) ?? 0) + 1);
    const [most] = [...counts].sort((a, b) => b[1] - a[1]);
    return most && values.length > 2 && most[1] > values.length * 0.55 ? most[0] : null;
  };
  return { quantity: of('quantity'), unitPrice: of('unitPrice'), amount: of('amount') };
}

/** The one cheapest way to read a row so that its own sum holds; null where there is none, or two are as cheap. */
function repairLine(line: ReadLine, pages: Page[], style: NumberStyle, currency: string, places: Places): Option[] | null {
  if (!line.quantity || !line.unitPrice) return null;
  const discount = line.discountPercent?.value ?? null,
    per = Number(line.priceQuantity ?? 1);
  let best: Option[][] = [],
    least = 3.4;
  for (const q of optionsFor(line.quantity, pages, style, places.quantity))
    for (const p of optionsFor(line.unitPrice, pages, style, places.unitPrice))
      for (const a of optionsFor(line.amount, pages, style, places.amount)) {
        const cost = q.cost + p.cost + a.cost;
        if (cost === 0 || cost > least || !holds(q.value, p.value, discount, per, a.value, currency)) continue;
        if (cost < least) best = [];
        least = cost;
        best.push([q, p, a].filter((o) => o.cost > 0));
      }
  return best.length === 1 ? best[0]! : null;
}

/** Reads pages anew; `next`: their lines another way, so many places after the best. */
type Again = (pages: Page[], next?: number) => Reading;

/** Words of rows whose own sum allows exactly one other reading, with what they are then. */
function repairsOf(reading: Reading, pages: Page[], style: NumberStyle): Map<Word, string> {
  const places = placesOf(reading.lines),
    currency = reading.header.currency?.value ?? 'GBP';
  const chosen = new Map<Word, string>();
  for (const line of reading.lines)
    if (line.quantity && line.unitPrice && !line.quantity.proof)
      for (const { word, text } of repairLine(line, pages, style, currency, places) ?? []) chosen.set(word, text);
  return chosen;
}

/** Other ways to read the lines that are tried where the best does not come out. */
const otherWays = [1, 2] as const;

/**
 * Pages with misread figures put right where a row's own sum allows exactly one reading, or where the totals do. Nothing is computed
 * into place: only what ink may be is tried. Where no sum holds in the end, the same is tried with the lines read the next likely ways:
 * a misread figure makes the right way look wrong. `again` reads the pages anew.
 */
export function repaired(pages: Page[], reading: Reading, again: Again): { pages: Page[]; reading: Reading } {
  const style = decideStyle(pages.flatMap((p) => p.words));
  const best = repairedAs(pages, reading, style, again);
  if (!broken(best.reading) || best.reading.kind === 'other') return best;
  for (const next of otherWays) {
    const other = again(pages, next);
    if (sameLines(other.lines, reading.lines)) continue;
    const found = repairedAs(pages, other, style, again);
    if (found.pages !== pages && !broken(found.reading) && proofs(found.reading) > proofs(best.reading)) return found;
  }
  return best;
}

/** What comes of putting right what one way to read the lines finds; the way itself where nothing does. */
function repairedAs(pages: Page[], way: Reading, style: NumberStyle, again: Again) {
  const chosen = repairsOf(way, pages, style);
  const words = chosen.size > 0 ? put(pages, chosen) : pages,
    reading = words === pages ? way : again(words);
  return proofs(reading) > proofs(way) ? repairTotals(words, reading, style, again) : repairTotals(pages, way, style, again);
}

const broken = (r: Reading): boolean => r.flags.some((f) => ['netTotal', 'taxTotal', 'grossTotal'].includes(f));
const tries = 40;

/** One figure among the totals and the rows that no sum proves, read otherwise, if that alone makes the document's sums hold. */
function repairTotals(pages: Page[], reading: Reading, style: NumberStyle, again: Again) {
  if (!broken(reading) || pages.length > 4) return { pages, reading };
  const currencyPlaces = minorUnits(reading.header.currency?.value ?? 'GBP');
  const figures = [
    reading.header.netTotal,
    reading.header.taxTotal,
    reading.header.grossTotal,
    ...reading.charges.map((c) => c.amount),
    ...reading.lines.filter((l) => !l.quantity?.proof).map((l) => l.amount),
  ];
  const options = figures
    .flatMap((f) => optionsFor(f, pages, style, currencyPlaces))
    .filter((o) => o.cost > 0)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, tries);
  const found: { pages: Page[]; reading: Reading; cost: number }[] = [];
  for (const { word, text, cost } of options) {
    if (found.length > 0 && cost > found[0]!.cost) break;
    const pages2 = put(pages, new Map([[word, text]])),
      reading2 = again(pages2);
    if (!broken(reading2) && proofs(reading2) > proofs(reading)) found.push({ pages: pages2, reading: reading2, cost });
  }
  const same = found.every((f) => f.reading.header.grossTotal?.value === found[0]!.reading.header.grossTotal?.value);
  return found.length > 0 && same ? { pages: found[0]!.pages, reading: found[0]!.reading } : { pages, reading };
}

const put = (pages: Page[], chosen: Map<Word, string>): Page[] =>
  pages.map((page) => ({
    ...page,
    words: page.words.map((w) => (chosen.has(w) ? { ...w, text: chosen.get(w)!, was: w.was ?? w.text } : w)),
  }));

/** How many values a reading has that a sum proves. */
export const proofs = (r: Reading): number =>
  [r.header.netTotal, r.header.taxTotal, r.header.grossTotal, ...r.lines.flatMap((l) => [l.amount, l.quantity])].filter((v) => v?.proof)
    .length;

/** Says of each value whose ink was read otherwise what was read first, and which sum chose. */
export function tellRepairs(reading: Reading, pages: Page[]): Reading {
  const was = (mark: Mark | null) => (mark ? wordsOn(pages, mark).find((w) => w.was !== undefined) : undefined);
  const tell = <R extends Read | null>(read: R): R => {
    const word = read && was(read.mark);
    return read && word
      ? { ...read, repaired: `read ${word.was}, ${word.text}${read.proof ? ` makes ${read.proof}` : ' is likelier'}` }
      : read;
  };
  const { netTotal, taxTotal, grossTotal } = reading.header;
  return {
    ...reading,
    header: { ...reading.header, netTotal: tell(netTotal), taxTotal: tell(taxTotal), grossTotal: tell(grossTotal) },
    charges: reading.charges.map((c) => ({ ...c, amount: tell(c.amount) })),
    lines: reading.lines.map((l) => ({ ...l, quantity: tell(l.quantity), unitPrice: tell(l.unitPrice), amount: tell(l.amount) })),
  };
}
