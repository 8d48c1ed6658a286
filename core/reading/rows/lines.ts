import { union, type Word } from '../../page/index.ts';
import type { Layout } from '../layout.ts';
import { panelOf } from '../learned/model.ts';
import { learned } from '../learned/weights.ts';
import { countNear } from '../near.ts';
import { rateOf } from '../table/rates.ts';
import { explaining } from '../taxtable.ts';
import type { Read, ReadLine } from '../types.ts';
import {
  behindLabel,
  describedBy,
  cutIn,
  describingColumns,
  labelsIn,
  openedAbove,
  piecesOf,
  startsIn,
  unlabelled,
  type Weighed,
} from './described.ts';
import { furtherOf } from './further.ts';
import { byLine, itemFeatures, type ItemsKnown, type LineRows } from './itemfeatures.ts';
import { itemMeasured, itemsInContext, type LogShares } from './models.ts';
import { agreed, partsOf, plain, together } from './products.ts';
import type { PrintedRow } from './printed.ts';
import { countsWhole, moneyLike } from './rowfeatures.ts';
import { itemTags, type ItemTag } from './tags.ts';
import { workedFrom } from './worked.ts';

const likeliestOf = (shares: LogShares<ItemTag>): ItemTag => itemTags.reduce((a, b) => (shares[b] > shares[a] ? b : a));

/** Every item of the lines with how sure it is what it is. */
function weigh(layout: Layout, rows: readonly PrintedRow[], lines: readonly LineRows[], known: ItemsKnown): Weighed[] {
  const seen = itemFeatures(layout, rows, lines, known, panelOf(learned().item));
  const shares = itemsInContext(seen);
  // Objects are not copied: there are many.
  return seen.map((s, i) => Object.assign(s, { shares: shares[i]!, best: likeliestOf(shares[i]!) }));
}

/** Words that say that a price is for many. On ink a lost point makes the same figures: there they have to be printed. */
const saysMany = /\b(per|pro|par|pour|je|p)\.? ?\d*(10|100|1[,. ]?000|c|m|mille|thousand|hundred)\b|‰|\b\d+p\b|pence/i;

const shareOf = (w: Weighed, tag: ItemTag): number => itemMeasured(Math.exp(w.shares[tag]));
/** What several words make is right where all of them are. */
const leastOf = (list: readonly Weighed[], tag: ItemTag): number => Math.min(...list.map((w) => shareOf(w, tag)));
const wordsOf = (list: readonly Weighed[]): Word[] => list.flatMap((w) => w.item.words);

const trimmed = (text: string): string => text.replace(/^[\s:;,·•–—-]+|[\s:;,·•–—]+$/g, '');

/** The column of most lines in which a sign or two stand that the page explains as a rate of tax, wherever it is not a figure among others. */
function explainedColumn(own: readonly Weighed[][], isExplained: (text: string) => boolean): string | null {
  const times = new Map<string, number>();
  for (const items of own)
    for (const w of items)
      if (w.at === w.first && w.item.text.length <= 2 && w.item.words.length === 1 && isExplained(w.item.text))
        times.set(w.column, (times.get(w.column) ?? 0) + 1);
  const [best] = [...times].filter(([, n]) => n > 1 && n >= 0.6 * own.length).sort((a, b) => b[1] - a[1]);
  return best?.[0] ?? null;
}

/** Lines from their printed rows: what each item is, so that most of them multiply out, and how many do. Null where a row has no amount. */
export function linesOf(
  layout: Layout,
  rows: readonly PrintedRow[],
  lines: readonly LineRows[],
  currency: string,
  legend: ReadonlyMap<string, string>,
  /** The right edge of the amounts, where it is known. */ column: number | null = null,
  /** What was seen of items before. */ known: ItemsKnown = new Map(),
  /** How sure it is that just these rows are a line's own. */ sure: readonly number[] = [],
): { lines: ReadLine[]; multiply: number } | null {
  const weighed = weigh(layout, rows, lines, known);
  const whole = countsWhole(rows);
  const inLines = new Set(lines.flatMap((l) => [l.row, ...l.parts]));
  const meaningOf = explaining(layout, (row) => inLines.has(row));
  const rateSaid = ({ item }: Weighed): { value: string; confidence: number } | null => {
    if (!item.figure?.percent && item.text.length <= 2) {
      const value = meaningOf(item.text);
      if (value) return { value, confidence: 0.93 };
      // A code that nothing explains is no rate.
      if (item.text.length === 1 && !legend.has(item.text.toUpperCase())) return null;
    }
    return rateOf(item.words, item.figure?.value ?? null, legend);
  };
  const own = byLine(weighed, lines.length);
  const rateColumn = explainedColumn(own, (text) => meaningOf(text) !== null);
  // Amounts stand under each other: the edge on which most of them do decides where one line has several figures.
  const edges = own.flatMap((items, line) => {
    let top: Weighed | null = null;
    for (const i of items)
      if (i.item.figure && i.at === lines[line]!.row && (!top || i.shares.amount > top.shares.amount) && moneyLike(i.item, whole)) top = i;
    return top ? [top.item.end] : [];
  });
  const near = countNear(edges, 4);
  const edge = column ?? edges.find((e) => near(e) > edges.length * 0.6) ?? null;
  const bulk = !layout.pages.some((p) => p.scan || p.words.some((w) => w.sure !== undefined)) || saysMany.test(layout.text);
  const labels = labelsIn(own),
    starts = startsIn(own, rows),
    pieces = own.map((items) => piecesOf(items, starts)),
    describing = describingColumns(pieces);
  const page = (w: Weighed) => rows[w.at]!.row.page;
  let multiply = 0;
  const found: ReadLine[] = [];
  const used: Set<Weighed>[] = [];
  const worked = workedFrom(own);
  const all = agreed(
    own.map((items, line) => partsOf(items, lines[line]!.row, currency, whole, edge, bulk, worked)),
    own,
  );
  const takenBy = all.map((p) => new Set(p ? [p.amount, p.quantity, p.price, ...p.discounts] : []));
  const takenOf = (line: number) => takenBy[line]!;
  const cut = cutIn(pieces, takenOf, describing);
  const describeds = unlabelled(
    own.map((items, line) => openedAbove(behindLabel(describedBy(pieces[line]!, takenOf(line), describing, cut), labels), items)),
  );
  for (const [line, items] of own.entries()) {
    const parts = all[line];
    if (!parts) return null;
    const { amount, quantity, price, discounts, per, pence, tax } = parts;
    if (parts.holds) multiply++;
    const proof = parts.holds
      ? `${plain(quantity!)} × ${plain(price!)}${pence ? ' p' : ''}${per > 1 ? ` ÷ ${per}` : ''}${discounts.map((d) => ` − ${plain(d).replace('-', '')}%`).join('')}${tax ? ` + ${plain(tax)}%` : ''} = ${plain(amount)}`
      : null;
    const read = (value: string, of: Weighed[], words: Word[], confidence: number, proven = false): Read => ({
      value,
      mark: { page: page(of[0]!), ...union(words) },
      confidence: proven ? 0.995 : Math.min(0.99, confidence),
      proof: proven ? proof : null,
    });
    const figure = (w: Weighed | null, tag: ItemTag): Read | null => w && read(plain(w), [w], w.item.words, shareOf(w, tag), parts.holds);
    const taken = takenOf(line);
    const codes = items.filter((w) => w.best === 'code' && !taken.has(w) && !worked.has(w));
    const code = codes.filter((w) => w.at === codes[0]!.at);
    const described = describeds[line]!;
    const rate =
      items.filter((w) => !taken.has(w) && w.best === 'rate').sort((a, b) => b.shares.rate - a.shares.rate)[0] ??
      items.find((w) => !taken.has(w) && w.column === rateColumn && meaningOf(w.item.text) !== null);
    const said = rate && rateSaid(rate);
    const after =
      quantity &&
      items.find((w) => w.at === quantity.at && w.item.x > quantity.item.end && w.item.x - quantity.item.end < 2 * rows[w.at]!.row.h);
    const unit = quantity?.item.figure?.unit
      ? read(quantity.item.figure.unit, [quantity], quantity.item.words, 0.9)
      : after && !after.item.figure && after.best === 'other' && /^\p{L}[\p{L}.²³-]{0,9}$/u.test(after.item.text)
        ? read(after.item.text, [after], after.item.words, 0.9)
        : null;
    const less = together(discounts);
    found.push({
      code: code.length ? read(trimmed(code.map((w) => w.item.text).join(' ')), code, wordsOf(code), leastOf(code, 'code')) : null,
      description: described.length
        ? read(
            trimmed(described.map((w) => w.item.text).join(' ')),
            described,
            wordsOf(described.filter((w) => page(w) === page(described[0]!))),
            Math.min(leastOf(described, 'description'), sure[line] ?? 1),
          )
        : null,
      quantity: figure(quantity, 'quantity'),
      unit,
      unitPrice: figure(price, 'price'),
      priceQuantity: per > 1 ? String(per) : null,
      discountPercent:
        less === null ? null : read(less, [...discounts], wordsOf([...discounts]), leastOf([...discounts], 'discount'), parts.holds),
      taxRate:
        said && rate
          ? read(said.value.replace(/\.0+$/, ''), [rate], rate.item.words, Math.min(said.confidence, shareOf(rate, 'rate')))
          : null,
      amount: read(plain(amount), [amount], amount.item.words, shareOf(amount, 'amount'), parts.holds),
      further: [],
    });
    used.push(new Set([...taken, ...code, ...described, rate, unit && after].filter((w) => w !== null && w !== undefined)));
  }
  for (const [line, further] of furtherOf(own, used, rows).entries()) found[line]!.further = further;
  return { lines: found, multiply };
}
