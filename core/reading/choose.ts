import { findDates } from '../dates/index.ts';
import { sameLines, together } from './agree.ts';
import { namedAmounts, placeOf, type Learned } from './amounts.ts';
import { surroundingsOf } from './head/around.ts';
import { calibrateLines } from './calibration.ts';
import { judge, type Verdict } from './judge.ts';
import type { Layout } from './layout.ts';
import type { Features } from './learned/features.ts';
import type { Item } from './rows/printed.ts';
import { RowsSeen } from './rows/index.ts';
import { totalShares } from './rows/models.ts';
import { totalFeatures } from './totals/features.ts';
import { readTable, type Table } from './table/index.ts';
import { legendOf, taxRows, type TaxRow } from './taxtable.ts';
import { hasLetters } from './letters.ts';

/** The lines of a document as they are read, with the totals that go with them. */
export interface Chosen {
  table: Table;
  taxes: TaxRow[];
  verdict: Verdict;
}

/** What a way to read the lines is worth: what its rows look like, and how much of what is printed it explains. */
interface Weighed extends Chosen {
  worth: number;
  /** Of how many lines quantity and price make the amount. */ multiply: number;
}

/** The rows in which the amounts of a table's lines stand. */
const rowsOf = (layout: Layout, table: Table): number[] =>
  table.lines.flatMap(({ amount: { mark } }) => {
    const row =
      mark &&
      layout.rows.find(
        (r) =>
          r.page === mark.page &&
          r.y < mark.y + 1 &&
          r.y + r.h > mark.y - 1 &&
          r.words.some((w) => Math.abs(w.x - mark.x) < 0.5 && Math.abs(w.y - mark.y) < 0.5),
      );
    return row ? [row.index] : [];
  });

/**
 * What it says that lines add up to a printed figure: the larger the figure, the less it happens by chance, and the more sets of
 * rows were tried, the more. Natural logarithm of the odds.
 */
function saysSum({ gross }: Verdict, lines: number, tried: number): number {
  const figure = Math.abs(Number(gross?.value ?? 0)) * 100;
  const odds = Math.min(9, Math.log(Math.max(100, figure)) - 2.3 - Math.log(tried));
  // One line is its own sum, and of two one is easily the tax.
  return lines === 1 ? 2.5 : lines === 2 ? 0.7 * odds : odds;
}

function weighed(layout: Layout, table: Table, likely: number, multiply: number, learned: Learned, tried = 1): Weighed {
  const taxes = taxRows(layout, table);
  const verdict = judge(namedAmounts(layout, table, learned), taxes, table.lines);
  // Sums find badly and judge well: one that holds is worth a few rows that look otherwise.
  const worth =
    (table.lines.length === 0 ? -20 : likely) +
    (verdict.linesHold ? saysSum(verdict, table.lines.length, tried) - 0.7 * verdict.charges.length : 0) +
    (verdict.totalHolds && verdict.net ? (verdict.tax && verdict.net !== verdict.gross ? (verdict.linesHold ? 5 : 2.5) : 1) : 0) +
    (table.lines.length
      ? (-3 * table.lines.filter((l) => !l.description || !hasLetters(withoutDates(l.description.value))).length) / table.lines.length
      : 0);
  return { table, taxes, verdict, worth, multiply };
}

/** A text without its dates, which say of a line nothing. */
const withoutDates = (text: string): string =>
  findDates(text).reduceRight((rest, d) => rest.slice(0, d.index) + rest.slice(d.index + d.length), text);

/** A heading of so many known columns is trusted. */
const wellHeaded = 5;

/**
 * Of all ways to read the lines, by headings and by what the rows look like, the one that explains most. `raw`: by headings alone, as their
 * rules score it. `next`: so many better ones are passed over; the best where there are not so many.
 */
export function chooseLines(layout: Layout, currency: string, { raw = false, next = 0 }: { raw?: boolean; next?: number } = {}): Chosen {
  const legend = legendOf(layout);
  const seen = new RowsSeen(layout);
  const all = surroundingsOf(layout);
  const alone = new Map<Item, Features>();
  const learned: Learned = (table) => {
    const total = table.lines.reduce((a, l) => a + Number(l.amount.value), 0);
    const inLines = { has: (row: number) => row >= table.firstRow && row <= table.lastRow, sum: total, last: table.lastRow };
    return new Map(
      totalFeatures(all, seen.rows, inLines, alone).map(({ item, at, features }) => {
        const { net, tax, gross, charge } = totalShares(features);
        const word = item.words[0]!;
        return [
          placeOf(layout.rows[at]!.page, word.x, Math.min(...item.words.map((w) => w.y))),
          { net: Math.exp(net), tax: Math.exp(tax), gross: Math.exp(gross), charge: Math.exp(charge) },
        ];
      }),
    );
  };
  const table = readTable(layout, currency, legend);
  const under = rowsOf(layout, table);
  const headed = { ...table, missed: seen.missed(under) };
  const multiply = headed.lines.filter((l) => l.amount.proof).length;
  // A heading whose words are known tells more than what its rows look like; else what they look like does, where both explain the same.
  const told = new Set(headed.columns.map((c) => c.role)).size >= wellHeaded && headed.columns.some((c) => c.role === 'description');
  const likely = seen.likely(under) + (told ? 1 : 0.3);
  // To measure the rules under headings nothing else is read.
  if (raw) return weighed(layout, headed, likely, multiply, learned);
  const ways: Weighed[] = [];
  for (const way of seen.read(currency, legend, under)) {
    ways.push(weighed(layout, { columns: [], rest: [], product: null, ...way }, way.likely, way.multiply, learned, way.tried));
    // What the rows look like most and what explains net, tax and total leaves nothing to look for.
    const { verdict } = ways.at(-1)!;
    if (way.likely < 0 || !verdict.linesHold || !verdict.totalHolds || verdict.charges.length > 0) continue;
    if (verdict.tax && verdict.net && verdict.net !== verdict.gross) break;
  }
  const byHeading = weighed(layout, { ...headed, lines: calibrateLines(headed.lines) }, likely, multiply, learned);
  // What multiplies out in one way and is left out in another speaks against that one.
  const most = Math.max(1, ...[...ways, byHeading].map((way) => way.multiply));
  // A line that names a sum and nothing else cannot multiply out: it speaks for half.
  const factored = ({ table: { lines } }: Weighed) => lines.reduce((n, l) => n + ((l.quantity ?? l.unitPrice) ? 1 : 0.5), 0);
  const worthOf = (way: Weighed) => way.worth + (5 * way.multiply) / Math.max(1, factored(way), most);
  const ranked = [...ways, byHeading].sort((a, b) => worthOf(b) - worthOf(a));
  const best = ranked[next] ?? ranked[0]!;
  const alike = ways.find((way) => sameLines(way.table.lines, byHeading.table.lines));
  if (!alike || (best !== byHeading && best !== alike)) return best;
  return {
    ...best,
    table: { ...best.table, lines: together(best.table.lines, (best === byHeading ? alike : byHeading).table.lines, best === byHeading) },
  };
}
