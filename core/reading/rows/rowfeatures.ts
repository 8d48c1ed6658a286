import { findDates } from '../../dates/index.ts';
import type { Layout } from '../layout.ts';
import { Features, plainWord, type Panel } from '../learned/features.ts';
import { speaks } from '../head/around.ts';
import { bodySize } from '../head/tokens.ts';
import type { Item, PrintedRow } from './printed.ts';
import { beginsSmall, hasLetter, hasLetters } from '../letters.ts';

/** A figure that may be an amount: with the decimals of money, a sign of it, or thousands that are parted; any where amounts are written without. */
export const moneyLike = ({ figure, text }: Item, loose: boolean): boolean =>
  figure !== null &&
  !figure.percent &&
  !figure.unit &&
  (figure.decimals === 2 || figure.money || /\d[,.'’ ]\d{3}\D*$/.test(text) || (loose && figure.decimals < 2));

/** Whether a page's amounts need not have two decimals: yen, or figures as a spreadsheet shows them. */
export function countsWhole(rows: readonly PrintedRow[]): boolean {
  let whole = wholes.get(rows);
  if (whole === undefined) {
    const last = rows.flatMap((r) => r.items.findLast((i) => i.figure && !i.figure.percent)?.figure ?? []);
    const exact = last.filter((f) => f.decimals === 2).length;
    wholes.set(rows, (whole = exact < 3 || exact < 0.2 * last.length));
  }
  return whole;
}
const wholes = new WeakMap<readonly PrintedRow[], boolean>();

const round = (n: number) => Math.round(n * 1e4) / 1e4;

/** Whether a number is the product of two others, by piece, hundred or thousand. */
export function hasProduct(values: readonly number[]): boolean {
  if (values.length < 3) return false;
  const known = values.map(round);
  for (let i = 0; i < values.length; i++)
    for (let j = i + 1; j < values.length; j++) {
      const [a, b] = [values[i]!, values[j]!];
      if (a === 0 || b === 0 || a === 1 || b === 1) continue;
      const whole = Number.isInteger(a) && Number.isInteger(b);
      for (let per = 1; per <= 1000; per = per === 1 ? 100 : per * 10) {
        const c = (a * b) / per,
          [exact, cents, one] = [round(c), Math.round(c * 100) / 100, whole ? Math.round(c) : NaN];
        for (const x of known) if ((x === exact || x === cents || x === one) && x !== known[i] && x !== known[j]) return true;
      }
    }
  return false;
}

/** The figures of a row without their signs; looked at from the rows round it too. */
export function valuesOf(row: PrintedRow | undefined): readonly number[] {
  if (!row) return [];
  let values = valuesIn.get(row);
  if (!values) valuesIn.set(row, (values = row.items.flatMap((i) => (i.figure ? [Math.abs(Number(i.figure.value))] : []))));
  return values;
}
const valuesIn = new WeakMap<PrintedRow, number[]>();

/** Right edges on which amounts stand, the most frequent first. */
export function amountEdges(rows: readonly PrintedRow[], whole: boolean): number[] {
  const count = new Map<number, number>();
  for (const r of rows)
    for (const i of r.items) if (moneyLike(i, whole)) count.set(Math.round(i.end / 3), (count.get(Math.round(i.end / 3)) ?? 0) + 1);
  return [...count].sort((a, b) => b[1] - a[1]).map(([edge]) => edge);
}

/** What is seen of a row by itself. */
function seen(
  layout: Layout,
  rows: readonly PrintedRow[],
  at: number,
  all: {
    whole: boolean;
    edges: number[];
    body: number;
    starts: Map<number, number>;
    times: Map<string, number>;
    fonts: string;
    far: Map<number, number>;
    /** How far a page's rows reach, by its number. */ right: Map<number, number>;
  },
): Features {
  const f = new Features();
  const { row, items } = rows[at]!;
  const page = layout.pages.find((p) => p.number === row.page)!;
  const figures = items.filter((i) => i.figure),
    amounts = items.filter((i) => moneyLike(i, all.whole)),
    words = items.filter((i) => !i.figure && hasLetter(i.text));
  f.of('figures ', Math.min(6, figures.length));
  f.of('amounts ', Math.min(5, amounts.length));
  f.of('words ', Math.min(8, words.length));
  f.of('segments ', Math.min(7, row.segments.length));
  for (const [k, edge] of all.edges.slice(0, 4).entries()) if (amounts.some((a) => Math.abs(a.end / 3 - edge) <= 1)) f.of('on edge ', k);
  const last = amounts.at(-1);
  if (last) {
    f.add(last.end > all.right.get(row.page)! - 8 ? 'amount at the right' : 'amount inside');
    f.of('amount x', Math.floor((last.end / page.width) * 8));
    f.of('value times ', Math.min(3, all.times.get(last.figure!.value) ?? 0));
    if (items.at(-1) === last) f.add('ends with an amount');
  }
  f.of('x', Math.floor((row.x / page.width) * 8));
  f.of('y', Math.floor((row.y / page.height) * 8));
  f.of('starts here ', Math.min(5, (all.starts.get(Math.round(row.x / 3)) ?? 0) >> 1));
  const values = valuesOf(rows[at]);
  if (hasProduct(values)) f.add('product');
  else if (hasProduct([...values, ...valuesOf(rows[at - 1])]) && values.length) f.add('product with the row above');
  else if (hasProduct([...values, ...valuesOf(rows[at + 1])]) && values.length) f.add('product with the row below');
  for (const w of words.slice(0, 8)) f.word('w', plainWord(w.text), 0.5);
  speaks(
    f,
    'row',
    words.slice(0, 8).map((w) => w.text),
  );
  const first = words[0];
  if (first) speaks(f, 'first', [first.text]);
  if (first) f.word('first', plainWord(first.text), 0.6);
  if (runsOn(rows, at, all.far)) f.add('runs on');
  if (runsOn(rows, at + 1, all.far)) f.add('does not end');
  if (/^[–—-]+$/.test(items.at(-1)?.text ?? '')) f.add('ends with a dash');
  const over = under(rows, at);
  f.add(over ? `under ${over.inner ? 'an inner' : 'the first'} piece ${over.alike ? 'alike' : 'other'}` : 'under nothing');
  if (over?.open) f.add('text above is open');
  if (items[0] && bullet.test(items[0].text)) f.add('bullet');
  if (items[0]?.figure) f.add('begins with a figure');
  if (figures.some((i) => i.figure!.percent)) f.add('percent');
  if (figures.some((i) => i.figure!.value.startsWith('-'))) f.add('negative');
  if (figures.some((i) => i.figure!.decimals > 2)) f.add('many decimals');
  if (figures.some((i) => i.figure!.decimals === 0 && !i.figure!.percent && i.figure!.value.length <= 4)) f.add('a small whole figure');
  if (findDates(row.text).length > 0) f.add('date');
  if (first && beginsSmall(items[0]!.text)) f.add('begins small');
  if (row.text === row.text.toUpperCase() && words.length) f.add('capitals');
  if (/:$/.test(row.segments[0]!.text)) f.add('ends with a colon');
  for (const t of row.totals) f.of('total ', t.role);
  if (row.columns.length >= 2) f.of('heads ', Math.min(5, row.columns.length));
  for (const l of row.fields.slice(0, 2)) f.of('field ', l.role);
  const size = row.segments[0]!.size / all.body;
  f.of('size ', Math.round(Math.min(4, size * 4)));
  if (row.words[0]!.font !== all.fonts) f.add('another face');
  const before = rows[at - 1],
    next = rows[at + 1];
  if (before && before.row.page === row.page) {
    f.of('gap above ', Math.max(-1, Math.min(6, Math.floor(((row.y - before.row.y - before.row.h) / all.body) * 2))));
    f.add(row.x > before.row.x + 4 ? 'indented' : row.x < before.row.x - 4 ? 'outdented' : 'in line');
  } else f.add('top of the page');
  if (next && next.row.page === row.page)
    f.of('gap below ', Math.max(-1, Math.min(6, Math.floor(((next.row.y - row.y - row.h) / all.body) * 2))));
  return f;
}

/** Rows that bear the document's largest amount with a sign or the decimals of money: its total, mostly. */
export function rowsOfLargest(rows: readonly PrintedRow[], whole: boolean): number[] {
  let most = 0;
  const amounts = rows.map((r) =>
    r.items.flatMap((i) => (moneyLike(i, whole) && i.figure!.decimals !== 3 ? [Number(i.figure!.value)] : [])),
  );
  for (const own of amounts) for (const a of own) if (a < 1e7) most = Math.max(most, a);
  return amounts.flatMap((own, i) => (most > 0 && own.includes(most) ? [i] : []));
}

/** How far text reaches that begins at an edge and has another piece behind it: the width of a table's column, as it is used. */
export function reaches(rows: readonly PrintedRow[]): Map<number, number> {
  const far = new Map<number, number>();
  for (const { row } of rows)
    for (const s of row.segments.slice(0, -1))
      for (const d of [-1, 0, 1]) {
        const edge = Math.round(s.x / 3) + d;
        far.set(edge, Math.max(far.get(edge) ?? 0, s.x + s.w));
      }
  return far;
}

/** Whether text of a row runs on from the piece over it: that one ends where its next word would not have fitted any more. */
export function runsOn(rows: readonly PrintedRow[], at: number, far: ReadonlyMap<number, number>): boolean {
  const row = rows[at]?.row,
    above = rows[at - 1]?.row;
  if (!row || !above || above.page !== row.page || row.segments.length > 2) return false;
  return row.segments.some((s) => {
    const over = above.segments.find((o) => Math.abs(o.x - s.x) < 3 && o.words.length > 1 && Math.abs(o.size - s.size) < 0.6);
    const next = over && above.segments[above.segments.indexOf(over) + 1];
    // The column ends where its longest text does, or before what stands beside it.
    const reach = Math.max(far.get(Math.round(s.x / 3)) ?? 0, next ? next.x - 2.5 * s.size : 0);
    return (
      over !== undefined && reach > 0 && over.x + over.w < reach + 3 * s.size && over.x + over.w + 0.25 * s.size + s.words[0]!.w > reach - 1
    );
  });
}

/** A text that is left open: with a comma, or a small word that nothing ends with. */
const open =
  /[,&(–-]$|\s(and|with|of|the|for|to|in|by|und|mit|von|für|der|die|et|de|du|la|le|avec|pour|en|van|met|voor|het|e|di|con|per|del|y|para|och|med|i|z|do)$/iu;

/** The piece of the row above, or of the one over that, under which a row begins; whether it is printed alike; and whether its text is left open. */
export function under(rows: readonly PrintedRow[], at: number): { at: number; inner: boolean; alike: boolean; open: boolean } | null {
  const { row } = rows[at]!,
    first = row.segments[0]!;
  for (let i = at - 1; i >= Math.max(0, at - 2); i--) {
    const above = rows[i]!.row;
    if (above.page !== row.page || row.y - above.y > 3.2 * first.size) return null;
    const over = above.segments.find((s) => Math.abs(s.x - first.x) < 2.5 && hasLetters(s.text));
    if (!over) continue;
    const [a, b] = [over.words[0]!, first.words[0]!];
    return {
      at: i,
      inner: over !== above.segments[0],
      alike: a.font === b.font && Math.abs(a.size - b.size) < 0.3,
      open: open.test(over.text),
    };
  }
  return null;
}

/** A sign that begins a point of a list. */
export const bullet = /^[•·▪◦‣●○■□–*-]$/;

/** Where a row begins, in which face and size, and whether a sign begins it: rows that are alike in this mean the same kind of thing. */
export const printedAs = ({ row, items }: PrintedRow): string =>
  `${Math.round(row.x / 3)} ${row.words[0]!.font} ${Math.round(row.words[0]!.size * 2)} ${bullet.test(items[0]?.text ?? '')}`;

const carried = /^(figures|amounts|words|segments|on edge|product|x\d|total|heads|date|ends with|field|first=|first says|gap|begins)/;

const isCarried = (name: string): boolean => carried.test(name);

/** What is seen of each printed row and of those round it: whether it is a line's row, belongs to one, or is something else. */
export function rowFeatures(layout: Layout, rows: readonly PrintedRow[], panel: Panel | null = null): Features[] {
  const whole = countsWhole(rows);
  const starts = new Map<number, number>(),
    times = new Map<string, number>(),
    fonts = new Map<string, number>(),
    right = new Map<number, number>();
  for (const r of rows) {
    right.set(r.row.page, Math.max(right.get(r.row.page) ?? 0, r.row.x + r.row.w));
    starts.set(Math.round(r.row.x / 3), (starts.get(Math.round(r.row.x / 3)) ?? 0) + 1);
    for (const i of r.items) if (i.figure) times.set(i.figure.value, (times.get(i.figure.value) ?? 0) + 1);
    for (const w of r.row.words) fonts.set(w.font, (fonts.get(w.font) ?? 0) + 1);
  }
  const usual = [...fonts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? '';
  const all = {
    whole,
    edges: amountEdges(rows, whole),
    body: bodySize(layout),
    starts,
    times,
    fonts: usual,
    far: reaches(rows),
    right,
  };
  const alone = rows.map((_, at) => seen(layout, rows, at, all));
  return alone.map((f, at) => {
    const whole = new Features(panel);
    whole.take(f);
    for (const o of [-2, -1, 1, 2]) {
      const other = alone[at + o];
      if (!other || rows[at + o]!.row.page !== rows[at]!.row.page) continue;
      whole.carry(String(o), other, isCarried, 0.7);
    }
    return whole;
  });
}
