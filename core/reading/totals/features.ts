import { around, type Surroundings } from '../head/around.ts';
import { markOf } from '../head/tokens.ts';
import { Features } from '../learned/features.ts';
import type { Item, PrintedRow } from '../rows/printed.ts';
import { countsWhole, moneyLike } from '../rows/rowfeatures.ts';

/** A figure outside the lines with what is seen of it. */
export interface SeenTotal {
  item: Item;
  at: number;
  features: Features;
}

const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.006;

/** What is seen of a figure whatever the lines are: the words near it, what it is called, how it is printed. */
function seenAlone(all: Surroundings, rows: readonly PrintedRow[], item: Item, at: number): Features {
  const f = new Features();
  const { row, tokens } = all.rows[at]!;
  const from = Math.max(
      0,
      tokens.findIndex((t) => t.word === item.words[0]),
    ),
    to = Math.min(tokens.length, from + item.words.length);
  around(f, all, { at, from, to, text: item.text, mark: markOf(all.rows[at]!, tokens.slice(from, to)) });
  for (const label of row.totals) if (label.box.x < item.end) f.of('label ', label.role);
  const up = rows[at - 1];
  if (up)
    for (const label of up.row.totals)
      if (label.box.x < item.end + 3 && label.box.x + label.box.w > item.x - 3) f.of('label above ', label.role);
  for (const word of item.words) if (word.size > 1.12 * all.body) f.add('large');
  if (item.figure!.money) f.add('money');
  return f;
}

/** Every figure outside a document's lines that may be an amount; `lines`: their rows, and what their amounts add up to. */
export function totalFeatures(
  all: Surroundings,
  rows: readonly PrintedRow[],
  lines: { has(row: number): boolean; sum: number; last: number },
  /** What was seen of figures before, for other ways to read the same document's lines. */ known = new Map<Item, Features>(),
): SeenTotal[] {
  const loose = countsWhole(rows);
  const figures = rows.flatMap((r, at) => (lines.has(at) ? [] : r.items.flatMap((item) => (moneyLike(item, loose) ? [{ item, at }] : []))));
  const values = figures.map(({ item }) => Math.abs(Number(item.figure!.value)));
  const rates = [
    ...new Set(rows.flatMap((r) => r.items.flatMap((i) => (i.figure?.percent ? [Math.abs(Number(i.figure.value))] : [])))),
  ].filter((r) => r > 0 && r < 40);
  const distinct = [...new Set(values)];
  const largest = Math.max(0, ...values);
  return figures.map(({ item, at }, i) => {
    const f = new Features();
    const { row } = all.rows[at]!;
    const mine = values[i]!;
    let alone = known.get(item);
    if (!alone) known.set(item, (alone = seenAlone(all, rows, item, at)));
    f.take(alone);
    if (mine === 0) f.add('nothing');
    if (near(mine, lines.sum)) f.add('sum of the lines');
    if (mine === largest) f.add('largest');
    else if (mine > lines.sum) f.add('more than the lines');
    f.of('times ', Math.min(4, values.filter((v) => v === mine).length));
    const below = at - lines.last;
    f.of('below the lines ', below < 0 ? 'above' : below < 2 ? 1 : below < 4 ? 3 : below < 8 ? 7 : 'far');
    const onRow = figures.filter((o) => o.at === at);
    f.add(
      `on the row ${Math.min(4, onRow.length)} at ${Math.min(
        3,
        onRow.findIndex((o) => o.item === item),
      )}`,
    );
    if (row.words.some((w) => w.text.includes('%'))) f.add('percent beside');
    let whole = false,
      part = false,
      taxOf = false,
      taxed = false;
    for (const a of distinct) {
      if (a === 0 || a === mine) continue;
      for (const b of distinct) if (b !== 0 && b <= a && near(a + b, mine)) whole = true;
      if (mine !== 0 && distinct.some((b) => b !== mine && near(mine + a, b))) part = true;
      for (const r of rates) {
        if (near((a * r) / 100, mine) || Math.abs((a * r) / 100 - mine) < 0.0111) taxOf = true;
        if (Math.abs((mine * r) / 100 - a) < 0.0111) taxed = true;
      }
    }
    if (whole) f.add('is two together');
    if (part) f.add('is part of another');
    if (taxOf) f.add('is a rate of another');
    if (taxed) f.add('has a rate of it');
    if (mine !== 0 && distinct.some((b) => near(lines.sum + mine, b))) f.add('with the lines makes another');
    return { item, at, features: f };
  });
}
