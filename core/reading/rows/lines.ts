import { union, type Word } from '../../page/index.ts';
import type { Layout } from '../layout.ts';
import { isCurrency } from '../numbers.ts';
import { rateOf } from '../table/rates.ts';
import { explained } from '../taxtable.ts';
import { holds } from '../table/values.ts';
import type { Read, ReadLine } from '../types.ts';
import { itemFeatures, type LineRows, type SeenItem } from './itemfeatures.ts';
import { itemMeasured, itemsInContext, type LogShares } from './models.ts';
import type { PrintedRow } from './printed.ts';
import { bullet, countsWhole, moneyLike } from './rowfeatures.ts';
import { itemTags, type ItemTag } from './tags.ts';

type Weighed = SeenItem & { shares: LogShares<ItemTag> };

/** Every item of the lines with how sure it is what it is. */
function weigh(layout: Layout, rows: readonly PrintedRow[], lines: readonly LineRows[]): Weighed[] {
  const seen = itemFeatures(layout, rows, lines);
  const shares = itemsInContext(seen);
  return seen.map((s, i) => ({ ...s, shares: shares[i]! }));
}

interface Parts {
  amount: Weighed;
  quantity: Weighed | null;
  price: Weighed | null;
  discount: Weighed | null;
  per: number;
  pence: boolean;
  holds: boolean;
  score: number;
}

const plain = (w: Weighed): string => w.item.figure!.value;

/** A price may be for so many pieces, or in pence. */
const perMany = [
  [100, false],
  [1000, false],
  [10, false],
  [1, true],
] as const;
/** Words that say so. On ink a lost point makes the same figures: there they have to be printed. */
const saysMany = /\b(per|pro|par|pour|je|p)\.? ?\d*(10|100|1[,. ]?000|c|m|mille|thousand|hundred)\b|‰|\b\d+p\b|pence/i;

/** A quick look whether it can hold, before it is computed exactly: floats are good for that and for nothing else. */
function nearly(q: Weighed, p: Weighed, d: Weighed | null, per: number, amount: Weighed): boolean {
  const made = (Math.abs(Number(plain(q)) * Number(plain(p))) / per) * (d ? 1 - Math.abs(Number(plain(d))) / 100 : 1);
  return Math.abs(made - Math.abs(Number(plain(amount)))) < 0.6;
}

/** A line's amount, quantity and price: what the items look like, and what multiplies to what is printed. */
function partsOf(items: Weighed[], row: number, currency: string, whole: boolean, edge: number | null, bulk: boolean): Parts | null {
  const figures = items.filter((i) => i.item.figure);
  const amounts = figures.filter((i) => i.at === row && (moneyLike(i.item, whole) || i.shares.amount > -1));
  const onEdge = edge === null ? [] : amounts.filter((i) => Math.abs(i.item.end - edge) < 5);
  const usable = (onEdge.length > 0 ? onEdge : amounts.length > 0 ? amounts : figures.filter((i) => i.at === row))
    .sort((a, b) => b.shares.amount - a.shares.amount)
    .slice(0, 3);
  let best: Parts | null = null;
  for (const amount of usable) {
    const rest = figures.filter((i) => i !== amount && !i.item.figure!.percent);
    const gain = (i: Weighed, tag: ItemTag) => i.shares[tag] - Math.max(i.shares.other, i.shares.description);
    const quantities = [...rest].sort((a, b) => b.shares.quantity - a.shares.quantity).slice(0, 4),
      prices = [...rest].sort((a, b) => b.shares.price - a.shares.price).slice(0, 4);
    const discounts = figures.filter((i) => i !== amount && i.shares.discount > -1.2);
    const put = (quantity: Weighed | null, price: Weighed | null, discount: Weighed | null, per: number, pence: boolean, fits: boolean) => {
      const score =
        amount.shares.amount * 1.5 +
        (quantity ? Math.max(fits ? -2.5 : -9, gain(quantity, 'quantity')) : 0) +
        (price ? Math.max(fits ? -2.5 : -9, gain(price, 'price')) : 0) +
        // The more digits an amount has, the less it is made by chance.
        (fits
          ? 3 + 0.8 * plain(amount).replace(/\D/g, '').length - (per > 1 ? 0.7 : 0) - (pence ? 1 : 0) - (plain(quantity!) === '1' ? 1.5 : 0)
          : quantity && price
            ? -1
            : 0) +
        (discount && !fits ? -0.5 : 0);
      if (!best || score > best.score) best = { amount, quantity, price, discount, per, pence, holds: fits, score };
    };
    put(null, null, null, 1, false, false);
    for (const q of quantities) put(q, null, null, 1, false, false);
    for (const p of prices) put(null, p, null, 1, false, false);
    for (const q of quantities)
      for (const p of prices) {
        if (q === p) continue;
        let fitting = false;
        for (const d of [null, ...discounts.filter((x) => x !== q && x !== p)])
          for (const [per, pence] of [[1, false], ...(bulk ? perMany : [])] as const)
            if (
              nearly(q, p, d, pence ? 100 : per, amount) &&
              holds(plain(q), plain(p), d ? plain(d).replace('-', '') : null, pence ? 100 : per, plain(amount), currency)
            ) {
              put(q, p, d, per, pence, true);
              fitting = true;
            }
        if (!fitting) put(q, p, discounts.find((x) => x !== q && x !== p) ?? null, 1, false, false);
      }
  }
  return best;
}

/** In points. */
const columnSlack = 1.5;

/** Where columns begin inside pieces that stand too close to be told apart: a word begins there in nearly all lines, behind a gap wider than between words. */
function startsIn(own: readonly Weighed[][], rows: readonly PrintedRow[]): number[] {
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
const cut = 1.8;

/** How much a word looks more like a description than like anything else; none that is something else already. */
function gainOf(w: Weighed): number {
  if (isCurrency(w.item.text)) return -Infinity;
  const rest = Math.max(...itemTags.filter((t) => t !== 'description').map((t) => w.shares[t]));
  return Math.max(-4, Math.min(4, w.shares.description - rest));
}

/** Pieces of a line's rows, cut where columns begin. */
function piecesOf(items: readonly Weighed[], starts: readonly number[]): { key: string; words: Weighed[] }[] {
  const pieces = new Map<string, { key: string; words: Weighed[] }>();
  for (const w of items) {
    const column = starts.findLast((x) => x <= w.item.x + columnSlack && x > w.item.left + columnSlack) ?? w.item.left;
    const id = `${w.at} ${column}`;
    (pieces.get(id) ?? pieces.set(id, { key: `${Math.round(column / 4)} ${w.at - w.first}`, words: [] }).get(id)!).words.push(w);
  }
  return [...pieces.values()];
}

/** The column of the lines' own rows that says what they are: by what its words look like in all lines together. */
function describingColumn(own: readonly Weighed[][], starts: readonly number[]): string | null {
  const sums = new Map<string, number>();
  for (const items of own)
    for (const { key, words } of piecesOf(items, starts)) {
      if (!key.endsWith(' 0')) continue;
      const gains = words.map(gainOf).filter(Number.isFinite);
      const gain = gains.reduce((a, g) => a + g, 0) / Math.max(1, Math.sqrt(gains.length));
      sums.set(key, (sums.get(key) ?? 0) + gain);
    }
  const best = [...sums].sort((a, b) => b[1] - a[1])[0];
  return best && best[1] > 0 ? best[0] : null;
}

/** The words of a line's description: of the piece in the describing column, and of those in its other rows, the run that looks like it most; the likeliest piece where none does. */
function describedBy(
  items: readonly Weighed[],
  taken: ReadonlySet<Weighed | null>,
  starts: readonly number[],
  column: string | null,
): Weighed[] {
  const found: Weighed[] = [];
  let fallback: { run: Weighed[]; score: number } | null = null;
  const pieces = piecesOf(items, starts);
  const inColumn = pieces.some((p) => p.key === column);
  const beside = new Map<number, { run: Weighed[]; score: number }>();
  for (const { key, words: piece } of pieces) {
    // Words of two columns side by side are not one description.
    if (inColumn && key.endsWith(' 0') && key !== column) continue;
    const gains = piece.map((w) => (taken.has(w) || (w === piece[0] && bullet.test(w.item.text)) ? -Infinity : gainOf(w)));
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
    } else if (/\p{L}{3}/u.test(run.map((w) => w.item.text).join(' ')) && (!fallback || best.score > fallback.score))
      fallback = { run, score: best.score };
  }
  return found.length > 0 ? found : (fallback?.run ?? []);
}

/** Words with a colon that stand in most lines: labels of what follows them, "Article: K7 Description: Cedar board". */
function labelsIn(own: readonly Weighed[][]): Set<string> {
  const times = new Map<string, number>();
  for (const items of own)
    for (const text of new Set(items.flatMap((w) => (/\p{L}.*:$/u.test(w.item.text) ? [w.item.text] : []))))
      times.set(text, (times.get(text) ?? 0) + 1);
  return new Set([...times].filter(([, n]) => n > 1 && n >= 0.7 * own.length).map(([text]) => text));
}

/** A description without the labels that stand before it, and what these label. */
function behindLabel(described: Weighed[], labels: ReadonlySet<string>): Weighed[] {
  const last = described.findLastIndex((w) => labels.has(w.item.text));
  return last < described.length - 1 ? described.slice(last + 1) : described;
}

const trimmed = (text: string): string => text.replace(/^[\s:;,·•–—-]+|[\s:;,·•–—]+$/g, '');

/** Lines from their printed rows: what each item is, so that most of them multiply out, and how many do. Null where a row has no amount. */
export function linesOf(
  layout: Layout,
  rows: readonly PrintedRow[],
  lines: readonly LineRows[],
  currency: string,
  legend: ReadonlyMap<string, string>,
  /** The right edge of the amounts, where it is known. */ column: number | null = null,
): { lines: ReadLine[]; multiply: number } | null {
  const weighed = weigh(layout, rows, lines);
  const whole = countsWhole(rows);
  const inLines = new Set(lines.flatMap((l) => [l.row, ...l.parts]));
  // A code's meaning is looked up once.
  const meanings = new Map<string, string | null>();
  const rateSaid = ({ item }: Weighed): { value: string; confidence: number } | null => {
    if (!item.figure?.percent && item.text.length <= 2) {
      if (!meanings.has(item.text))
        meanings.set(
          item.text,
          explained(layout, item.text, (row) => inLines.has(row)),
        );
      const value = meanings.get(item.text);
      if (value) return { value, confidence: 0.93 };
      // A code that nothing explains is no rate.
      if (item.text.length === 1 && !legend.has(item.text.toUpperCase())) return null;
    }
    return rateOf(item.words, item.figure?.value ?? null, legend);
  };
  const own = lines.map((_, line) => weighed.filter((w) => w.line === line));
  // Amounts stand under each other: the edge on which most of them do decides where one line has several figures.
  const edges = own.flatMap((items, line) => {
    const top = items
      .filter((i) => i.item.figure && i.at === lines[line]!.row && moneyLike(i.item, whole))
      .sort((a, b) => b.shares.amount - a.shares.amount)[0];
    return top ? [top.item.end] : [];
  });
  const edge = column ?? edges.find((e) => edges.filter((o) => Math.abs(o - e) < 4).length > edges.length * 0.6) ?? null;
  const bulk = !layout.pages.some((p) => p.scan || p.words.some((w) => w.sure !== undefined)) || saysMany.test(layout.text);
  const labels = labelsIn(own),
    starts = startsIn(own, rows),
    describing = describingColumn(own, starts);
  let multiply = 0;
  const found: ReadLine[] = [];
  for (const [line, items] of own.entries()) {
    const parts = partsOf(items, lines[line]!.row, currency, whole, edge, bulk);
    if (!parts) return null;
    const { amount, quantity, price, discount, per, pence } = parts;
    if (parts.holds) multiply++;
    const proof = parts.holds
      ? `${plain(quantity!)} × ${plain(price!)}${pence ? ' p' : ''}${per > 1 ? ` ÷ ${per}` : ''}${discount ? ` − ${plain(discount).replace('-', '')}%` : ''} = ${plain(amount)}`
      : null;
    const page = (w: Weighed) => rows[w.at]!.row.page;
    const read = (value: string, of: Weighed[], words: Word[], confidence: number, proven = false): Read => ({
      value,
      mark: { page: page(of[0]!), ...union(words) },
      confidence: proven ? 0.995 : Math.min(0.99, confidence),
      proof: proven ? proof : null,
    });
    const shareOf = (w: Weighed, tag: ItemTag) => itemMeasured(Math.exp(w.shares[tag]));
    const figure = (w: Weighed | null, tag: ItemTag): Read | null => w && read(plain(w), [w], w.item.words, shareOf(w, tag), parts.holds);
    const taken = new Set([amount, quantity, price, discount]);
    const best = (w: Weighed): ItemTag => itemTags.reduce((a, b) => (w.shares[b] > w.shares[a] ? b : a));
    const text = (tag: ItemTag) => items.filter((w) => !taken.has(w) && best(w) === tag);
    const codes = text('code');
    const code = codes.filter((w) => w.at === codes[0]!.at);
    const described = behindLabel(describedBy(items, taken, starts, describing), labels);
    const rate = items.filter((w) => !taken.has(w) && best(w) === 'rate').sort((a, b) => b.shares.rate - a.shares.rate)[0];
    const said = rate && rateSaid(rate);
    // What several words make is right where all of them are.
    const least = (list: Weighed[], tag: ItemTag) => Math.min(...list.map((w) => shareOf(w, tag)));
    const after =
      quantity &&
      items.find((w) => w.at === quantity.at && w.item.x > quantity.item.end && w.item.x - quantity.item.end < 2 * rows[w.at]!.row.h);
    const unit = quantity?.item.figure?.unit
      ? read(quantity.item.figure.unit, [quantity], quantity.item.words, 0.9)
      : after && !after.item.figure && best(after) === 'other' && /^\p{L}[\p{L}.²³-]{0,9}$/u.test(after.item.text)
        ? read(after.item.text, [after], after.item.words, 0.9)
        : null;
    const words = (list: Weighed[]) => list.flatMap((w) => w.item.words);
    found.push({
      code: code.length ? read(trimmed(code.map((w) => w.item.text).join(' ')), code, words(code), least(code, 'code')) : null,
      description: described.length
        ? read(
            trimmed(described.map((w) => w.item.text).join(' ')),
            described,
            words(described.filter((w) => page(w) === page(described[0]!))),
            least(described, 'description'),
          )
        : null,
      quantity: figure(quantity, 'quantity'),
      unit,
      unitPrice: figure(price, 'price'),
      priceQuantity: per > 1 ? String(per) : null,
      discountPercent:
        discount && read(plain(discount).replace('-', ''), [discount], discount.item.words, shareOf(discount, 'discount'), parts.holds),
      taxRate:
        said && rate
          ? read(said.value.replace(/\.0+$/, ''), [rate], rate.item.words, Math.min(said.confidence, shareOf(rate, 'rate')))
          : null,
      amount: read(plain(amount), [amount], amount.item.words, shareOf(amount, 'amount'), parts.holds),
    });
  }
  return { lines: found, multiply };
}
