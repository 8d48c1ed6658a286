import type { Layout } from '../layout.ts';
import type { ReadLine } from '../types.ts';
import { grouped, sureOf } from './group.ts';
import type { ItemsKnown } from './itemfeatures.ts';
import { linesOf } from './lines.ts';
import { rowsInContext, type LogShares } from './models.ts';
import { printedRows, type PrintedRow } from './printed.ts';
import { countsWhole, rowFeatures } from './rowfeatures.ts';
import { costOf, edgesOf, innerEdge, likeliest, marginOf, sets } from './sets.ts';
import { panelOf } from '../learned/model.ts';
import { learned } from '../learned/weights.ts';
import type { RowTag } from './tags.ts';

/** One way to read the lines of a document. */
export interface LinesRead {
  lines: ReadLine[];
  firstRow: number;
  lastRow: number;
  /** Rows elsewhere that look like lines. */ missed: number;
  /** What its rows look like, as a logarithm of certainty: 0 is what they look like most. */ likely: number;
  /** Of how many lines quantity and price make the amount. */ multiply: number;
  /** Among how many sets of rows it was found. */ tried: number;
}

/** What each printed row of a document looks like. */
export class RowsSeen {
  readonly rows: PrintedRow[];
  readonly shares: LogShares<RowTag>[];
  private readonly items: ItemsKnown = new Map();

  constructor(readonly layout: Layout) {
    this.rows = printedRows(layout);
    this.shares = rowsInContext(this.rows, rowFeatures(layout, this.rows, panelOf(learned().row)), countsWhole(this.rows));
  }

  /** How unlikely it is that just these rows are lines: 0 for those that look like it, less the more has to be thought otherwise. */
  likely(set: readonly number[]): number {
    const own = new Set(set);
    // Rows that are alike err together.
    const against = new Map<string, number[]>();
    for (const [i, s] of this.shares.entries()) {
      const margin = marginOf(s);
      if (margin > 0 === own.has(i)) continue;
      const last = this.rows[i]!.items.filter((x) => x.figure).at(-1);
      const key = `${own.has(i)} ${Math.round((last?.end ?? 0) / 4)} ${Math.round(this.rows[i]!.row.x / 4)}`;
      (against.get(key) ?? against.set(key, []).get(key)!).push(Math.min(7, Math.abs(margin)));
    }
    return -[...against.values()].reduce((all, margins) => all + costOf(margins), 0);
  }

  /** How many rows look like lines and are none of these. */
  missed = (set: readonly number[]): number => this.shares.filter((s, i) => !set.includes(i) && s.line > Math.log(0.5)).length;

  /** The most likely ways to read the lines: what the rows look like, what adds up, and the rows that were found otherwise. */
  *read(currency: string, legend: ReadonlyMap<string, string>, other: readonly number[], most = 4): Generator<LinesRead> {
    const edges = edgesOf(this.rows, this.shares);
    const first = likeliest(this.rows, this.shares, edges[0]!);
    const way = (set: readonly number[], tried: number, edge: number | null) => this.way(set, tried, edge, currency, legend);
    // Mostly that is enough: the others are looked for when it is asked for more.
    const looksSo = first.length > 0 ? way(first, 1, null) : null;
    if (looksSo) yield looksSo;
    const own = edges
      .flatMap((edge, k) =>
        sets(this.rows, this.shares, most, edge)
          // Of the inner columns only what adds up.
          .filter((f) => k === 0 || f.adds)
          .map((f) => ({ ...f, edge: k === 0 ? null : edge, cost: f.cost + k * innerEdge, tried: f.tried * (k + 1) })),
      )
      .sort((a, b) => a.cost - b.cost)
      .slice(0, most);
    const known = own.some((f) => f.rows.join() === other.join());
    const all = known || other.length === 0 ? own : [...own, { rows: [...other], tried: 1, edge: null }];
    for (const { rows: set, tried, edge } of all) {
      if (edge === null && set.join() === first.join()) continue;
      const read = way(set, tried, edge);
      if (read) yield read;
    }
  }

  /** The lines where just these rows have their amounts. */
  private way(
    set: readonly number[],
    tried: number,
    edge: number | null,
    currency: string,
    legend: ReadonlyMap<string, string>,
  ): LinesRead | null {
    const lines = grouped(this.rows, this.shares, set);
    const read = linesOf(this.layout, this.rows, lines, currency, legend, edge, this.items, sureOf(this.rows, this.shares, lines));
    if (!read) return null;
    const of = lines.flatMap((l) => [l.row, ...l.parts]);
    return {
      lines: read.lines,
      firstRow: Math.min(...of),
      lastRow: Math.max(...of),
      missed: this.missed(set),
      likely: this.likely(set),
      multiply: read.multiply,
      tried,
    };
  }
}
