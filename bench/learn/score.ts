import type { Reading } from '../../core/reading/index.ts';
import { toFormat } from '../../core/reading/format.ts';
import { header, needed } from '../reading/fields.ts';
import type { Sample } from './samples.ts';
import { similarity } from './similarity.ts';

export interface Fault {
  path: string;
  wanted: string | null;
  said: string | null;
  flagged: boolean;
}
/** What of one document is right, as the reading format's scorer counts. */
export interface DocumentScore {
  header: { right: number; all: number };
  rows: { right: number; wanted: number; said: number };
  /** Whether all that a bill cannot be posted without, and every line, is right. */ right: boolean;
  untouched: boolean;
  /** Wrong values that nothing points to. */ silent: number;
  /** How many values were said. */ values: number;
  faults: Fault[];
}

const cells = ['code', 'description', 'quantity', 'unitPrice', 'taxRate', 'amount'] as const;
const rowCells: readonly string[] = ['description', 'quantity', 'unitPrice', 'amount'];
const figures = new Set(['netTotal', 'taxTotal', 'grossTotal', 'quantity', 'unitPrice', 'taxRate', 'amount']);

type Line = Partial<Record<(typeof cells)[number], string | null>>;
const at = (object: unknown, path: string): string | null =>
  (path.split('.').reduce<unknown>((value, key) => (value as Record<string, unknown> | null | undefined)?.[key], object) ?? null) as
    string | null;

/** Whether two values of a path mean the same: names and texts by their letters, figures by their number. */
export function same(path: string, wanted: string | null, said: string | null): boolean {
  if (wanted === null || wanted === '') return said === null || said === '';
  if (said === null || said === '') return false;
  const field = path.split('.').at(-1)!;
  if (figures.has(field)) return Number(wanted) === Number(said);
  if (field === 'description' || field === 'name') return similarity(wanted, said) >= 0.85;
  const squashed = (text: string) => text.replace(/\s+/g, '').toUpperCase();
  return squashed(wanted) === squashed(said);
}

/** Lines of the truth beside those that were said, so that one missing line costs one line. */
function paired(wanted: readonly Line[], said: readonly Line[]): [Line | null, number | null][] {
  const weight = (a: Line, b: Line) =>
    (same('amount', a.amount ?? null, b.amount ?? null) ? 2 : 0) +
    similarity(a.description ?? '', b.description ?? '') +
    (same('quantity', a.quantity ?? null, b.quantity ?? null) ? 0.5 : 0) -
    1;
  const best = Array.from({ length: wanted.length + 1 }, () => new Float64Array(said.length + 1));
  for (let i = wanted.length - 1; i >= 0; i--)
    for (let j = said.length - 1; j >= 0; j--)
      best[i]![j] = Math.max(best[i + 1]![j]!, best[i]![j + 1]!, best[i + 1]![j + 1]! + Math.max(0, weight(wanted[i]!, said[j]!)));
  const pairs: [Line | null, number | null][] = [];
  for (let i = 0, j = 0; i < wanted.length || j < said.length;) {
    const own = i < wanted.length && j < said.length ? weight(wanted[i]!, said[j]!) : 0;
    if (own > 0 && best[i]![j] === best[i + 1]![j + 1]! + own) pairs.push([wanted[i++]!, j++]);
    else if (j < said.length && (i >= wanted.length || best[i]![j] === best[i]![j + 1])) pairs.push([null, j++]);
    else pairs.push([wanted[i++]!, null]);
  }
  return pairs;
}

/** Compares a reading with its document's truth. */
export function scored({ truth, ignore }: Sample, reading: Reading): DocumentScore {
  const said = (toFormat('', [reading]) as { documents: { lines: Line[]; flags: string[] }[] }).documents[0]!;
  const flagged = (path: string) => said.flags.some((f) => f === path || path.startsWith(`${f}.`) || path.startsWith(`${f}[`));
  const ignored = (path: string) => ignore.includes(path) || ignore.includes(path.replace(/\[\d+\]/, '[]'));
  const faults: Fault[] = [];
  const fault = (path: string, wanted: string | null, got: string | null) =>
    faults.push({ path, wanted, said: got, flagged: flagged(path) });
  const s = { header: { right: 0, all: 0 }, rows: { right: 0, wanted: 0, said: 0 } };
  let right = true;
  for (const path of truth.kind === 'other' ? ['kind'] : header) {
    if (ignored(path)) continue;
    s.header.all++;
    if (same(path, at(truth, path), at(said, path))) s.header.right++;
    else {
      fault(path, at(truth, path), at(said, path));
      if (needed.has(path)) right = false;
    }
  }
  if (truth.kind !== 'other' && !ignored('lines')) {
    s.rows.wanted = truth.lines.length;
    s.rows.said = said.lines.length;
    for (const [line, j] of paired(truth.lines, said.lines)) {
      if (line === null) fault(`lines[${j}]`, null, said.lines[j!]!.description ?? said.lines[j!]!.amount ?? '');
      else if (j === null) fault('lines', line.description ?? line.amount ?? '', null);
      else {
        const wrong = cells.filter(
          (cell) =>
            !ignored(`lines.${cell}`) &&
            !ignored(`lines[${truth.lines.indexOf(line as never)}].${cell}`) &&
            !ignored(`lines[].${cell}`) &&
            !same(cell, line[cell] ?? null, said.lines[j]![cell] ?? null),
        );
        for (const cell of wrong) fault(`lines[${j}].${cell}`, line[cell] ?? null, said.lines[j]![cell] ?? null);
        if (!wrong.some((cell) => rowCells.includes(cell))) s.rows.right++;
      }
    }
  }
  right &&= s.rows.right === s.rows.wanted && s.rows.said === s.rows.wanted;
  const silent = faults.filter(
    (f) =>
      !f.flagged &&
      (f.path === 'lines' || f.said) &&
      (needed.has(f.path) || f.path.startsWith('lines')) &&
      !/\.(code|taxRate)$/.test(f.path),
  ).length;
  const values = [...needed].filter((path) => at(said, path) !== null).length + said.lines.length * rowCells.length;
  return { ...s, right, untouched: right && said.flags.length === 0, silent, values, faults };
}
