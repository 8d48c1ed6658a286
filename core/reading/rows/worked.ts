import type { Weighed } from './described.ts';

/** Columns of figures are compared in threes: more are not looked at. */
const mostColumns = 10;
/** In this share of the lines that have them, figures have to make each other; by chance they do in one. */
const mostly = 0.8,
  fewest = 2;

const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.0051;
const valueOf = (w: Weighed): number => Number(w.item.figure!.value);

/** Figures of each line's own row by their column, of those columns that most lines have. */
function columnsOf(own: readonly (readonly Weighed[])[]): Map<string, Map<number, Weighed>> {
  const columns = new Map<string, Map<number, Weighed>>();
  for (const [line, items] of own.entries())
    for (const w of items)
      if (w.item.figure && !w.item.figure.percent && w.at === w.first)
        (columns.get(w.column) ?? columns.set(w.column, new Map()).get(w.column)!).set(line, w);
  return new Map([...columns].filter(([, of]) => of.size >= Math.max(fewest, 0.6 * own.length)).slice(0, mostColumns));
}

/**
 * Figures that others of their line are worked out from, in most lines: both readings of a meter whose difference is the quantity, work to
 * date and work billed before, net and tax beside gross, the days of a week that add up to its hours. They are neither price nor quantity
 * nor code. A factor of a product is none of them.
 */
export function workedFrom(own: readonly (readonly Weighed[])[]): Set<Weighed> {
  const found = new Set<Weighed>();
  if (own.length < fewest) return found;
  const columns = columnsOf(own);
  const free = [...columns].filter(([, of]) => [...of.values()].filter((w) => w.makes).length < 0.5 * of.size);
  for (const [a, whole] of free)
    for (const [b, less] of free) {
      if (a === b) continue;
      for (const [c, rest] of columns) {
        if (c === a || c === b) continue;
        let holds = 0,
          all = 0;
        for (const [line, w] of whole) {
          const [x, y] = [less.get(line), rest.get(line)];
          // What comes of it stands last.
          if (!x || !y || y.item.x < x.item.x || valueOf(x) === 0 || valueOf(y) === 0) continue;
          all++;
          if (near(valueOf(w) - valueOf(x), valueOf(y))) holds++;
        }
        if (holds >= fewest && holds >= mostly * all) for (const of of [whole, less]) for (const w of of.values()) found.add(w);
      }
    }
  for (const w of addends(own)) found.add(w);
  return found;
}

/** Runs of whole numbers side by side that add up to the next figure, in most lines. */
function addends(own: readonly (readonly Weighed[])[]): Weighed[] {
  const runs = own.map((items) => {
    const figures = items.filter((w) => w.item.figure && w.at === w.first).sort((a, b) => a.item.x - b.item.x);
    for (let from = 0; from < figures.length; from++) {
      let sum = 0;
      for (let to = from; to < figures.length - 1 && figures[to]!.item.figure!.decimals === 0 && valueOf(figures[to]!) > 0; to++) {
        sum += valueOf(figures[to]!);
        if (to > from + 1 && near(sum, valueOf(figures[to + 1]!))) return figures.slice(from, to + 1);
      }
    }
    return [];
  });
  const some = runs.filter((run) => run.length > 0);
  return some.length >= fewest && some.length >= 0.6 * own.length ? some.flat() : [];
}
