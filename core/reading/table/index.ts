import { dec, sum, zero } from '../../money/index.ts';
import { textOf, union, type Word } from '../../page/index.ts';
import type { Layout } from '../layout.ts';
import { cellOf } from '../rows/further.ts';
import type { FurtherCell, Read, ReadLine } from '../types.ts';
import type { Cells } from './cells.ts';
import { headingsOf, type Column, type Heading } from './heading.ts';
import { isTotalRow, recordsOf, rowsBelow, type TableRecord, type TableRow } from './records.ts';
import { refineEdges, settleText } from './refine.ts';
import { productOf, type Product } from './roles.ts';
import { rateOf } from './rates.ts';
import { holds, numberCell, printedAmount } from './values.ts';
import { hasLetter } from '../letters.ts';

export interface Table {
  lines: ReadLine[];
  columns: Column[];
  /** Rows that follow the last line. */ rest: TableRow[];
  product: Product | null;
  firstRow: number;
  lastRow: number;
  /** Rows elsewhere that look like lines. */ missed: number;
}

const none: Table = { lines: [], columns: [], rest: [], product: null, firstRow: Infinity, lastRow: -1, missed: 0 };

/** Reads the line table: of all headings on the document, the one under which most rows multiply out and add up. */
export function readTable(layout: Layout, currency: string, legend: ReadonlyMap<string, string>): Table {
  const headings = headingsOf(layout);
  let best = none,
    most = -1;
  const read = new Set<string>();
  for (const heading of headings.slice(0, 8)) {
    // A heading that is repeated on a later page is read with the first.
    const signature = heading.columns.map((c) => c.role).join();
    if (read.has(signature)) continue;
    const table = readUnder(layout, heading, headings, currency, legend);
    if (table.lines.length === 0) continue;
    if (table.product?.proven) read.add(signature);
    const score = table.lines.length + 2 * (table.product?.proven ?? 0) + heading.score * 0.5;
    if (score > most) {
      best = table;
      most = score;
    }
  }
  return best;
}

function readUnder(layout: Layout, heading: Heading, headings: Heading[], currency: string, legend: ReadonlyMap<string, string>): Table {
  const coarse = rowsBelow(layout, heading, headings, heading.columns);
  // Rows with three filled cells and a price are surely lines; totals have two.
  const telling = (cells: Cells): boolean =>
    cells.filter((words) => words.length > 0).length >= 3 && cells.some((words) => numberCell(words, layout.style)?.decimals ?? false);
  const priced = coarse.filter((r) => telling(r.cells));
  const refined = refineEdges(heading.columns, priced);
  const rows = rowsBelow(layout, heading, headings, refined);
  const columns = settleText(refined, rows.map((r) => r.cells).filter(telling));
  const product = productOf(
    columns,
    sample(
      rows.map((r) => r.cells),
      telling,
    ),
    layout.style,
    currency,
  );
  if (!product) return none;
  if (heading.doubtful) product.doubtful = true;
  const number = (r: TableRow, i: number | null) => (i === null ? null : numberCell(r.cells[i]!, layout.style));
  const amountOf = (r: TableRow) => {
    const cell = number(r, product.amount);
    return cell && !cell.percent && (cell.decimals || currency === 'JPY') ? cell : null;
  };
  const multiplies = (r: TableRow): boolean => {
    const q = number(r, product.quantity),
      p = number(r, product.price),
      a = amountOf(r);
    if (!q || !p || !a) return false;
    return holds(
      q.value,
      p.value,
      number(r, product.discount)?.value.replace('-', '') ?? null,
      perOf(r, product, layout) * (p.pence ? 100 : 1),
      a.value,
      currency,
    );
  };
  const lastProven = rows.findLastIndex((r) => multiplies(r) && !isTotalRow(r, product));
  let end = rows.length;
  const open: string[] = [];
  for (const [i, r] of rows.entries()) {
    const amount = amountOf(r);
    // Without prices no line proves that the table goes on: a subtotal ends it only if no further line comes before the totals.
    if (
      lastProven < 0 &&
      amount &&
      isSubtotal(r) &&
      goesOn(
        rows.slice(i + 1),
        (next) => amountOf(next) !== null && !isTotalRow(next, product) && next.cells.filter((c) => c.length > 0).length > 2,
      )
    )
      continue;
    if (
      i > lastProven &&
      ((isTotalRow(r, product) && amount) || (endsTable(r) && (lastProven >= 0 || isTotalRow(r, product))) || headsTotals(r, rows[i + 1]))
    ) {
      end = i;
      break;
    }
    // A bare amount that is the sum of the rows above it is their total, whatever it is called.
    if (i > lastProven && amount && open.length > 1 && !number(r, product.quantity) && sum(open.map((v) => dec(v))).eq(amount.value)) {
      end = i;
      break;
    }
    if (amount && !isTotalRow(r, product)) open.push(amount.value);
  }
  const body = rows.slice(0, end);
  const sums = runningSums(body, amountOf, (r) => number(r, product.quantity) !== null || number(r, product.price) !== null);
  const described = columns.findIndex((c) => c.role === 'description');
  const isAnchor = (r: TableRow): boolean =>
    amountOf(r) !== null &&
    !isTotalRow(r, product) &&
    !sums.has(r) &&
    (multiplies(r) ||
      number(r, product.price) !== null ||
      described < 0 ||
      r.cells[described]!.length > 0 ||
      r.cells.filter((c) => c.length > 0).length > 2);
  const records = recordsOf(body, columns, product, isAnchor);
  const lines = records.map((record) => lineOf(record, columns, product, layout, currency, legend));
  const lastLine = records[records.length - 1]?.anchor.row.index ?? heading.last;
  return {
    lines,
    columns,
    rest: rows.filter((r) => r.row.index > lastLine),
    product,
    firstRow: heading.first,
    lastRow: lastLine,
    missed: 0,
  };
}

/** Rows to find the roles of columns from: on a long table some of the telling ones do. */
const sample = (rows: Cells[], telling: (cells: Cells) => boolean): Cells[] =>
  rows.length <= 80 ? rows : rows.filter(telling).filter((_, i, all) => i % Math.ceil(all.length / 40) === 0);

const totalRoles = new Set(['net', 'gross', 'tax', 'goods']);

/** Rows whose amount is the sum of all rows before, or since the last such row: carried forward and subtotals, whatever they are called. */
function runningSums(
  body: TableRow[],
  amountOf: (r: TableRow) => { value: string } | null,
  isLine: (r: TableRow) => boolean,
): Set<TableRow> {
  const sums = new Set<TableRow>();
  let all = zero,
    section = zero,
    count = 0;
  for (const r of body) {
    const amount = amountOf(r);
    if (!amount) continue;
    const value = dec(amount.value);
    if (!isLine(r) && ((count > 1 && value.eq(section)) || (all.gt(section) && value.eq(all)) || (count > 1 && value.eq(all)))) {
      sums.add(r);
      section = zero;
      count = 0;
      continue;
    }
    all = all.plus(value);
    section = section.plus(value);
    count++;
  }
  return sums;
}

/** A row that is called a subtotal and nothing more. */
const isSubtotal = ({ row }: TableRow): boolean =>
  row.totals.length > 0 && row.totals.every((t) => t.role === 'goods' || t.role === 'carried');

/** Whether a line comes before the next row of totals. */
function goesOn(rows: TableRow[], isLine: (r: TableRow) => boolean): boolean {
  for (const r of rows) {
    if (isLine(r)) return true;
    if (r.row.totals.some((t) => t.role === 'net' || t.role === 'gross' || t.role === 'tax')) return false;
  }
  return false;
}

/** A total whose amount stands under no column of the table: "Totaal excl. btw   83.166,63" in a block of its own. */
const endsTable = ({ row }: TableRow): boolean =>
  row.words.some((w) => printedAmount.test(w.text)) && row.totals.some((t) => totalRoles.has(t.role) && t.from === 0);

/** A row of headings over boxes of totals. */
const headsTotals = ({ row }: TableRow, next: TableRow | undefined): boolean =>
  row.totals.filter((t) => totalRoles.has(t.role)).length >= 2 &&
  !row.words.some((w) => printedAmount.test(w.text) && !w.text.startsWith('(')) &&
  next !== undefined &&
  next.row.page === row.page &&
  next.row.y - row.y < 2.6 * row.h &&
  next.row.words.filter((w) => printedAmount.test(w.text)).length >= 2;

function perOf(r: TableRow, product: Product, layout: Layout): number {
  if (product.perColumn === null) return product.per;
  return Number(numberCell(r.cells[product.perColumn]!, layout.style)?.value ?? 1) || 1;
}

function lineOf(
  record: TableRecord,
  columns: Column[],
  product: Product,
  layout: Layout,
  currency: string,
  legend: ReadonlyMap<string, string>,
): ReadLine {
  const { anchor } = record;
  const page = anchor.row.page;
  const cell = (i: number | null) => (i === null || i < 0 ? null : numberCell(anchor.cells[i]!, layout.style));
  const read = (value: string, words: Word[], confidence: number): Read => ({
    value,
    mark: words.length ? { page, ...union(words) } : null,
    confidence,
    proof: null,
  });
  const text = (words: Word[], confidence: number): Read | null => (words.length ? read(textOf(words), words, confidence) : null);
  const quantity = cell(product.quantity),
    price = cell(product.price),
    amount = cell(product.amount)!,
    discount = cell(product.discount);
  const per = perOf(anchor, product, layout);
  const rebate = discount?.value.replace('-', '') ?? null;
  const proven =
    quantity && price ? holds(quantity.value, price.value, rebate, per * (price.pence ? 100 : 1), amount.value, currency) : false;
  const sentence = proven
    ? `${quantity!.value} × ${price!.value}${price!.pence ? ' p' : ''}${per > 1 ? ` ÷ ${per}` : ''}${rebate ? ` − ${rebate}%` : ''} = ${amount.value}`
    : null;
  const own = (r: Read | null): Read | null => (r && proven && !product.doubtful ? { ...r, confidence: 0.995, proof: sentence } : r);
  const unitColumn = columns.findIndex((c, i) => c.role === 'unit' && i !== product.quantity);
  const unitWords = unitColumn >= 0 ? anchor.cells[unitColumn]! : (quantity?.unitWords ?? []);
  const codeWords = record.code;
  const taxColumn = columns.findIndex((c, i) => c.role === 'taxRate' && i !== product.price);
  const taxWords = taxColumn >= 0 ? anchor.cells[taxColumn]! : [];
  const rate = rateOf(taxWords, cell(taxColumn)?.value ?? null, legend);
  return {
    code: text(codeWords, 0.95),
    description: text(record.description, 0.94),
    quantity: quantity ? own(read(quantity.value, quantity.words, proven && !product.doubtful ? 0.99 : 0.75)) : null,
    unit:
      unitWords.length && hasLetter(textOf(unitWords))
        ? text(unitWords, 0.9)
        : quantity?.unit
          ? read(quantity.unit, quantity.words, 0.9)
          : null,
    unitPrice: price ? own(read(price.value, price.words, proven && !product.doubtful ? 0.99 : 0.75)) : null,
    priceQuantity: per > 1 ? String(per) : null,
    discountPercent: rebate ? own(read(rebate, discount!.words, 0.9)) : null,
    taxRate: rate && read(rate.value.replace(/\.0+$/, ''), taxWords, rate.confidence),
    amount: proven ? { ...read(amount.value, amount.words, 0.995), proof: sentence } : read(amount.value, amount.words, 0.9),
    further: furtherCells(anchor, columns, [product.quantity, product.price, product.amount, product.discount, product.perColumn]),
  };
}

/** What stands under headings that no figure of the line is read from. */
function furtherCells({ row, cells }: TableRow, columns: Column[], read: readonly (number | null)[]): FurtherCell[] {
  return columns.flatMap((c, i) => {
    const words = cells[i]!;
    if (read.includes(i) || !['other', 'otherQuantity', 'otherPrice', 'grossAmount'].includes(c.role) || words.length === 0) return [];
    return [cellOf(c.text, textOf(words), row.page, words)];
  });
}
