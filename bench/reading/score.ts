import type { HeaderField, Reading, Read } from '@ledgerline/core/reading';
import { headerPaths } from '../../core/reading/paths.ts';
import { make, type Made } from './draw.ts';
import { needed } from './fields.ts';

export interface Miss {
  seed: number;
  path: string;
  expected: string | null;
  got: string | null;
  flagged: boolean;
}
export interface Judged {
  path: string;
  confidence: number;
  right: boolean;
}
export interface Score {
  documents: number;
  headerRight: number;
  headerAll: number;
  rowsRight: number;
  rowsTruth: number;
  rowsSaid: number;
  right: number;
  untouched: number;
  silent: number;
  values: number;
  misses: Miss[];
  judged: Judged[];
}

const squash = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '');
const number = (text: string | null): string | null => (text === null || text === '' ? null : String(Number(text)));
/** The header that a made document truly has, by path of the reading format. */
function truth({ content: c }: Made): Record<string, string | null> {
  return {
    kind: c.kind,
    'supplier.name': c.supplier.name,
    'supplier.taxId': c.supplier.taxId,
    'supplier.iban': c.supplier.iban,
    'buyer.name': c.buyer.name,
    invoiceNumber: c.number,
    issueDate: c.issueDate,
    dueDate: c.dueDate,
    currency: c.currency,
    purchaseOrder: c.order,
    netTotal: c.net,
    taxTotal: c.tax,
    grossTotal: c.gross,
  };
}

const said = (r: Reading): Record<string, Read | null> => ({
  kind: { value: r.kind, confidence: r.kindConfidence, mark: null, proof: null },
  ...Object.fromEntries(Object.entries(headerPaths).map(([field, path]) => [path, r.header[field as HeaderField]])),
});

/** True where two values of a path are the same: names and texts by their letters, figures by their number. */
export function same(path: string, expected: string | null, got: string | null): boolean {
  if (expected === null || got === null) return expected === got;
  if (/(Total|quantity|unitPrice|discountPercent|taxRate|amount)$/.test(path)) return number(expected) === number(got);
  return (
    squash(expected) === squash(got) ||
    (/name|description/.test(path) &&
      Math.abs(squash(expected).length - squash(got).length) <= squash(expected).length * 0.15 &&
      (squash(expected).includes(squash(got)) || squash(got).includes(squash(expected))))
  );
}

/** Compares readings of made documents with what was printed. */
export function score(seeds: Iterable<number>, read: (made: Made) => Reading, from: (seed: number) => Made = make): Score {
  const s: Score = {
    documents: 0,
    headerRight: 0,
    headerAll: 0,
    rowsRight: 0,
    rowsTruth: 0,
    rowsSaid: 0,
    right: 0,
    untouched: 0,
    silent: 0,
    values: 0,
    misses: [],
    judged: [],
  };
  for (const seed of seeds) scoreOne(s, from(seed), read);
  return s;
}

function scoreOne(s: Score, made: Made, read: (made: Made) => Reading): void {
  const reading = read(made),
    flags = reading.flags;
  const flagged = (path: string) => flags.some((f) => f === path || path.startsWith(`${f}[`) || path.startsWith(`${f}.`));
  let right = true;
  const miss = (path: string, expected: string | null, got: string | null, counts: boolean) => {
    s.misses.push({ seed: made.seed, path, expected, got, flagged: flagged(path) });
    if (counts) right = false;
    if (counts && got !== null && !flagged(path)) s.silent++;
  };
  const header = said(reading);
  for (const [path, expected] of Object.entries(truth(made))) {
    const value = header[path] ?? null,
      ok = same(path, expected, value?.value ?? null);
    s.headerAll++;
    if (ok) s.headerRight++;
    else miss(path, expected, value?.value ?? null, needed.has(path));
    if (value) {
      s.judged.push({ path, confidence: value.confidence, right: ok });
      if (needed.has(path)) s.values++;
    }
  }
  const lines = made.content.lines,
    columns = new Set(made.look.columns.map((c) => c.kind));
  s.documents++;
  s.rowsTruth += lines.length;
  s.rowsSaid += reading.lines.length;
  if (lines.length !== reading.lines.length) miss('lines', String(lines.length), String(reading.lines.length), true);
  let j = 0;
  for (const line of lines) {
    // Rows are paired by amount, in order, so that one missing row costs one row.
    const at = reading.lines.findIndex((l, k) => k >= j && number(l.amount.value) === number(line.amount));
    const got = at < 0 || at > j + 3 ? reading.lines[j] : reading.lines[at];
    if (at >= 0 && at <= j + 3) j = at + 1;
    else j++;
    if (!got) continue;
    let row = true;
    for (const [cell, expected] of Object.entries({
      description: line.description,
      quantity: columns.has('quantity') ? line.quantity : null,
      unitPrice: line.unitPrice,
      amount: line.amount,
      code: columns.has('code') ? line.code : null,
      discountPercent: line.discountPercent,
      taxRate: columns.has('rate') ? line.taxRate : null,
    })) {
      const value = got[cell as 'description'] ?? null,
        ok = same(cell, expected, value?.value ?? null),
        needed = ['description', 'quantity', 'unitPrice', 'amount'].includes(cell);
      if (value && needed) s.values++;
      if (value) s.judged.push({ path: `lines.${cell}`, confidence: value.confidence, right: ok });
      if (!ok) {
        if (needed) row = false;
        miss(`lines[${reading.lines.indexOf(got)}].${cell}`, expected, value?.value ?? null, needed);
      }
    }
    if (row) s.rowsRight++;
  }
  if (right) {
    s.right++;
    if (flags.length === 0) s.untouched++;
  }
}
