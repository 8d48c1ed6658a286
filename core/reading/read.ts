import { dec } from '../money/index.ts';
import type { Page } from '../page/index.ts';
import { calibrate } from './calibration.ts';
import { readCurrency } from './currency.ts';
import { readHead, type Context } from './head/index.ts';
import { dateOrderOf, readTerms } from './header.ts';
import { kindOf } from './kind.ts';
import { layOut, type Layout } from './layout.ts';
import { isIban } from './iban.ts';
import { squash } from './identifiers.ts';
import { emailsOf, supplierIban } from './parties.ts';
import { headerPaths } from './paths.ts';
import type { NamedAmount } from './amounts.ts';
import { chooseLines } from './choose.ts';
import type { Verdict } from './judge.ts';
import { headingsOf } from './table/heading.ts';
import { weighInk } from './secondlook.ts';
import { headerFields, type HeaderField, type Read, type ReadCharge, type Reading, type ReadLine } from './types.ts';

/** Below this measured confidence a value is flagged for a person to look at. */
export const sure = 0.9;

/**
 * Reads one document from its pages: header, lines, charges, totals; every value with its mark, its confidence and the sum that
 * proves it. Values that the page does not show are null. Pure: the same pages give the same reading. With `raw` the lines are
 * read under headings alone and confidences are the rules' own scores, for measuring them. `next`: the lines are read another way, so many places after the best.
 */
export function readDocument(
  pages: Page[],
  { raw = false, next = 0, ...context }: Context & { raw?: boolean; next?: number } = {},
): Reading {
  const layout = layOut(pages);
  const told = kindOf(layout);
  const order = dateOrderOf(layout);
  const { dates, orderMissed, dueMissed, ...head } = readHead(layout, order, context);
  const iban = supplierIban(layout, context.companies?.flatMap((c) => (c.iban ? [squash(c.iban)] : [])) ?? []);
  const currency = readCurrency(layout, [iban, head.supplierTaxId]);
  const { table, taxes: rows, verdict } = chooseLines(layout, currency?.value ?? 'GBP', { raw, next });
  // Without a title of any kind, lines and totals that hold make an invoice, which a person should look at.
  const kind = told.untold && (looksCharged(layout) || verdict.linesHold) ? 'invoice' : told.kind,
    kindSure = told.confidence;
  const paymentTerms = readTerms(layout, (row) => row.index >= table.firstRow && row.index <= table.lastRow);
  const credit = kind === 'credit-note' && verdict.gross?.value.isNegative() === true;
  const totals = totalsOf(verdict, credit);
  const header: Record<HeaderField, Read | null> = {
    ...head,
    ...dates(paymentTerms, kind),
    supplierIban: iban,
    paymentTerms,
    currency,
    ...totals,
  };
  const lines = credit
    ? table.lines.map((l) => ({
        ...l,
        amount: flip(l.amount),
        quantity: l.quantity?.value.startsWith('-') ? flip(l.quantity) : l.quantity,
        unitPrice: l.unitPrice?.value.startsWith('-') ? flip(l.unitPrice) : l.unitPrice,
      }))
    : table.lines;
  const scored: Reading = {
    pages: pages.map((p) => p.number),
    kind,
    kindConfidence: kindSure,
    header,
    supplierEmails: emailsOf(layout, context.companies?.flatMap((c) => c.email ?? []) ?? []),
    pricesIncludeTax: verdict.includesTax,
    lines: proven(lines, verdict),
    charges: verdict.charges.map((c) => chargeOf(c, credit, verdict.proofs.lines)),
    taxBreakdown: rows.map(({ rate, net, tax }) => ({ rate, net, tax })),
    flags: [],
  };
  const reading = raw ? scored : weighInk(calibrate(scored), pages);
  return {
    ...reading,
    flags:
      kind === 'other'
        ? reading.kindConfidence < sure
          ? ['kind']
          : []
        : [
            ...new Set([
              ...flagsOf(reading, verdict, table.missed),
              ...(orderMissed ? ['purchaseOrder'] : []),
              ...(kind === 'invoice' && dueMissed(reading.header.dueDate) ? ['dueDate'] : []),
              ...(pages.some((p) => p.scan) ? gapsOf(reading.lines) : []),
            ]),
          ],
  };
}

/** Pages whose content nothing could read: everything is left to a person. */
export function unread(pages: Page[]): Reading {
  const header = Object.fromEntries(headerFields.map((field) => [field, null])) as Record<HeaderField, Read | null>;
  return {
    pages: pages.map((p) => p.number),
    kind: 'invoice',
    kindConfidence: 0,
    header,
    supplierEmails: [],
    pricesIncludeTax: false,
    lines: [],
    charges: [],
    taxBreakdown: [],
    flags: ['kind', 'supplier.name', 'invoiceNumber', 'issueDate', 'currency', 'grossTotal', 'lines'],
  };
}

/** Whether a page without a title charges for something: a heading of a line table, or a total to pay. */
const looksCharged = (layout: Layout): boolean =>
  headingsOf(layout).length > 0 ||
  layout.rows.some((row) => row.totals.some((t) => t.role === 'gross' || t.role === 'net') && /\d[.,]\d{2}/.test(row.text));

const flip = (read: Read): Read => ({
  ...read,
  value: dec(read.value)
    .negated()
    .toFixed(read.value.split('.')[1]?.length ?? 0),
});

function totalsOf(s: Verdict, credit: boolean): Pick<Record<HeaderField, Read | null>, 'netTotal' | 'taxTotal' | 'grossTotal'> {
  const places = s.gross ? (s.gross.text.split('.')[1]?.length ?? 0) : 2;
  const proof = s.proofs.total ?? s.proofs.lines;
  const confidence = (amount: NamedAmount | null, role: 'net' | 'tax' | 'gross') =>
    proof ? 0.99 : Math.min(0.6, 0.3 + 0.3 * (amount?.roles.get(role) ?? 0));
  const value = (amount: NamedAmount) => (credit ? amount.value.negated() : amount.value).toFixed(amount.text.split('.')[1]?.length ?? 0);
  const read = (amount: NamedAmount | null, role: 'net' | 'tax' | 'gross'): Read | null =>
    amount && { value: value(amount), mark: amount.mark, confidence: confidence(amount, role), proof };
  return {
    netTotal: read(s.net, 'net'),
    taxTotal: s.tax && {
      value: (credit ? s.tax.value.negated().plus(0) : s.tax.value).toFixed(places),
      mark: s.tax.from[0]?.mark ?? null,
      confidence: confidence(s.tax.from[0] ?? null, 'tax'),
      proof,
    },
    grossTotal: read(s.gross, 'gross'),
  };
}

function chargeOf(amount: NamedAmount, credit: boolean, proof: string | null): ReadCharge {
  const value = (credit ? amount.value.negated() : amount.value).toFixed(amount.text.split('.')[1]?.length ?? 0);
  return {
    label: amount.label.replace(/[:\s£$€]+$/, ''),
    amount: { value, mark: amount.mark, confidence: proof ? 0.97 : 0.6, proof: proof },
  };
}

/** Lines that are part of a sum that holds are proven by it. */
function proven(lines: ReadLine[], s: Verdict): ReadLine[] {
  if (!s.linesHold) return lines;
  return lines.map((l) => ({
    ...l,
    amount: { ...l.amount, confidence: Math.max(l.amount.confidence, 0.985), proof: l.amount.proof ?? s.proofs.lines },
  }));
}

const lineCells = ['code', 'description', 'quantity', 'unitPrice', 'discountPercent', 'taxRate'] as const;
const usualCells = ['code', 'quantity', 'unitPrice', 'taxRate'] as const;

/** Cells of a row that are empty where most rows have one: on ink, what was passed over. */
const gapsOf = (lines: ReadLine[]): string[] =>
  usualCells
    .filter((cell) => lines.filter((l) => l[cell]).length > lines.length * 0.5)
    .flatMap((cell) => lines.flatMap((l, i) => (l[cell] ? [] : [`lines[${i}].${cell}`])));

/** The paths a person should look at: what is unsure, what is missing and needed, and what stands in a sum that does not hold. */
function flagsOf(r: Reading, s: Verdict, missed: number): string[] {
  const flags: string[] = [];
  if (r.kindConfidence < sure) flags.push('kind');
  for (const field of Object.keys(headerPaths) as HeaderField[]) {
    const read = r.header[field];
    if (read && read.confidence < sure && field !== 'paymentTerms') flags.push(headerPaths[field]);
  }
  if (r.header.supplierIban && !isIban(r.header.supplierIban.value)) flags.push(headerPaths.supplierIban);
  for (const needed of ['supplierName', 'invoiceNumber', 'issueDate', 'currency', 'grossTotal'] as const)
    if (!r.header[needed]) flags.push(headerPaths[needed]);
  if (r.lines.length === 0 || missed > Math.max(1, r.lines.length * 0.3)) flags.push('lines');
  if (!s.totalHolds) flags.push('netTotal', 'taxTotal', 'grossTotal');
  else if (!s.rateHolds) flags.push('taxTotal', 'grossTotal');
  if (s.totalHolds && !s.linesHold && r.lines.length > 0) flags.push('lines', 'netTotal');
  for (const [i, line] of r.lines.entries()) {
    if (line.quantity && line.unitPrice && !line.quantity.proof) flags.push(`lines[${i}].quantity`, `lines[${i}].unitPrice`);
    if (!line.description) flags.push(`lines[${i}].description`);
    if (!line.amount.proof) flags.push(`lines[${i}].amount`);
    for (const cell of lineCells) {
      const read = line[cell];
      if (read && !read.proof && read.confidence < sure) flags.push(`lines[${i}].${cell}`);
    }
  }
  return [...new Set(flags)];
}
