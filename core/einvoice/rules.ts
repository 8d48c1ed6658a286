import { decOrNull, grouped, roundTo, sum, zero, type Decimal } from '../money/index.ts';
import type { EInvoice } from './types.ts';

/** A rule of EN 16931-1 (6.4) that an e-invoice breaks: its name, the sentence for people, the fields concerned. */
export interface Broken {
  rule: string;
  sentence: string;
  paths: string[];
}

const amount = (text: string | null): Decimal => decOrNull(text) ?? zero;
const same = (a: Decimal, b: string | null): boolean => a.eq(amount(b));
const show = (d: Decimal): string => grouped(d.toFixed());
const said = (text: string | null, none: string): string => (text === null ? none : grouped(text));
/** Profiles that carry totals only. */
const withoutLines = (profile: string | null): boolean => /minimum|basicwl/i.test(profile ?? '');

interface Category {
  code: string;
  rule: string;
  called: string;
  taxed: boolean;
  explained: boolean;
}
const categories: Category[] = [
  { code: 'S', rule: 'S', called: 'standard rated', taxed: true, explained: false },
  { code: 'Z', rule: 'Z', called: 'zero rated', taxed: false, explained: false },
  { code: 'E', rule: 'E', called: 'exempt', taxed: false, explained: true },
  { code: 'AE', rule: 'AE', called: 'reverse charge', taxed: false, explained: true },
  { code: 'K', rule: 'IC', called: 'supply within the EU', taxed: false, explained: true },
  { code: 'G', rule: 'G', called: 'export', taxed: false, explained: true },
  { code: 'O', rule: 'O', called: 'outside the scope of tax', taxed: false, explained: true },
];

/** Checks an e-invoice against the calculation and co-occurrence rules of EN 16931. An empty list: nothing is broken. */
export function check(e: EInvoice): Broken[] {
  const broken: Broken[] = [];
  const need = (holds: boolean, rule: string, sentence: string, ...paths: string[]) => {
    if (!holds) broken.push({ rule, sentence, paths });
  };
  present(e, need);
  totals(e, need);
  for (const category of categories) taxCategory(e, category, need);
  return broken;
}

type Need = (holds: boolean, rule: string, sentence: string, ...paths: string[]) => void;

function present(e: EInvoice, need: Need): void {
  need(e.number !== null, 'BR-02', 'The invoice number is missing.', 'invoiceNumber');
  need(e.issueDate !== null, 'BR-03', 'The invoice date is missing.', 'issueDate');
  need(e.typeCode !== null, 'BR-04', 'It does not say whether it is an invoice or a credit note.', 'kind');
  need(e.currency !== null, 'BR-05', 'The currency is missing.', 'currency');
  need(e.seller.name !== null, 'BR-06', 'The supplier’s name is missing.', 'supplier.name');
  need(e.buyer.name !== null, 'BR-07', 'The buyer’s name is missing.', 'buyer.name');
  need(e.totals.net !== null, 'BR-13', 'The total before tax is missing.', 'netTotal');
  need(e.totals.gross !== null, 'BR-14', 'The total with tax is missing.', 'grossTotal');
  need(e.totals.payable !== null, 'BR-15', 'The amount to pay is missing.', 'grossTotal');
  need(e.lines.length > 0 || withoutLines(e.profile), 'BR-16', 'It has no lines.', 'lines');
  for (const [i, line] of e.lines.entries()) {
    const row = `Line ${line.id ?? i + 1}`;
    need(line.quantity !== null, 'BR-22', `${row} has no quantity.`, `lines[${i}].quantity`);
    need(line.amount !== null, 'BR-24', `${row} has no amount.`, `lines[${i}].amount`);
    need(line.name !== null, 'BR-25', `${row} has no item name.`, `lines[${i}].description`);
    need(line.price !== null, 'BR-26', `${row} has no price.`, `lines[${i}].unitPrice`);
    need(line.price === null || !amount(line.price).isNegative(), 'BR-27', `${row} has a negative price.`, `lines[${i}].unitPrice`);
    need(line.category !== null, 'BR-CO-4', `${row} has no tax category.`, `lines[${i}].taxRate`);
    for (const a of line.adjustments)
      need(
        a.reason !== null,
        a.charge ? 'BR-CO-24' : 'BR-CO-23',
        `${row} has ${a.charge ? 'a charge' : 'an allowance'} without a reason.`,
        `lines[${i}].amount`,
      );
  }
  for (const party of [e.seller, e.buyer])
    need(
      party.taxId === null || /^[A-Z]{2}/.test(party.taxId),
      'BR-CO-9',
      `The tax number ${party.taxId} does not begin with its country’s letters.`,
      party === e.seller ? 'supplier.taxId' : 'buyer.name',
    );
  for (const a of e.adjustments)
    need(
      a.reason !== null,
      a.charge ? 'BR-CO-22' : 'BR-CO-21',
      `The document has ${a.charge ? 'a charge' : 'an allowance'} without a reason.`,
      'charges',
    );
  need(e.taxes.length > 0 || /minimum/i.test(e.profile ?? ''), 'BR-CO-18', 'It has no tax breakdown.', 'taxTotal');
  need(
    !amount(e.totals.payable).isPositive() ||
      amount(e.totals.payable).isZero() ||
      e.kind === 'credit-note' ||
      e.dueDate !== null ||
      e.terms !== null ||
      withoutLines(e.profile),
    'BR-CO-25',
    'There is something to pay, but neither a due date nor payment terms.',
    'dueDate',
  );
  need(
    e.seller.taxId !== null || e.seller.registration !== null,
    'BR-CO-26',
    'The supplier has neither a tax number nor a registration number.',
    'supplier.taxId',
  );
  for (const [path, value] of [
    ['netTotal', e.totals.net],
    ['taxTotal', e.totals.tax],
    ['grossTotal', e.totals.gross],
  ] as const)
    need((decOrNull(value)?.decimalPlaces() ?? 0) <= 2, 'BR-DEC', `The amount ${value} has more than two decimals.`, path);
}

function totals(e: EInvoice, need: Need): void {
  const t = e.totals;
  const lines = sum(e.lines.map((l) => amount(l.amount))),
    of = (charge: boolean) => sum(e.adjustments.filter((a) => a.charge === charge).map((a) => amount(a.amount)));
  if (e.lines.length > 0)
    need(
      same(lines, t.lines),
      'BR-CO-10',
      `The lines add up to ${show(lines)}, but the sum of lines says ${said(t.lines, 'nothing')}.`,
      'lines',
      'netTotal',
    );
  need(
    same(of(false), t.allowances),
    'BR-CO-11',
    `The allowances add up to ${show(of(false))}, but their sum says ${said(t.allowances, 'nothing')}.`,
    'charges',
  );
  need(
    same(of(true), t.charges),
    'BR-CO-12',
    `The charges add up to ${show(of(true))}, but their sum says ${said(t.charges, 'nothing')}.`,
    'charges',
  );
  if (t.lines !== null) {
    const net = amount(t.lines).minus(amount(t.allowances)).plus(amount(t.charges));
    need(
      same(net, t.net),
      'BR-CO-13',
      `Lines ${grouped(t.lines)} − allowances ${said(t.allowances, '0')} + charges ${said(t.charges, '0')} is ${show(net)}, but the total before tax says ${said(t.net, 'nothing')}.`,
      'netTotal',
    );
  }
  const tax = sum(e.taxes.map((x) => amount(x.tax)));
  if (e.taxes.length > 0)
    need(same(tax, t.tax), 'BR-CO-14', `The taxes add up to ${show(tax)}, but the tax total says ${said(t.tax, 'nothing')}.`, 'taxTotal');
  const gross = amount(t.net).plus(amount(t.tax));
  need(
    same(gross, t.gross),
    'BR-CO-15',
    `${said(t.net, '0')} + ${said(t.tax, '0')} is ${show(gross)}, but the total with tax says ${said(t.gross, 'nothing')}.`,
    'grossTotal',
  );
  const payable = amount(t.gross).minus(amount(t.prepaid)).plus(amount(t.rounding));
  need(
    same(payable, t.payable),
    'BR-CO-16',
    `Total ${said(t.gross, '0')} − paid ${said(t.prepaid, '0')} + rounding ${said(t.rounding, '0')} is ${show(payable)}, but the amount to pay says ${said(t.payable, 'nothing')}.`,
    'grossTotal',
  );
  for (const x of e.taxes) {
    const made = roundTo(amount(x.base).times(amount(x.rate)).div(100), 'EUR');
    need(
      made.minus(amount(x.tax)).abs().lte('0.01') || x.tax === null,
      'BR-CO-17',
      `${x.rate ?? 0}% of ${x.base ?? 0} is ${show(made)}, but the tax says ${said(x.tax, 'nothing')}.`,
      'taxTotal',
    );
  }
}

function taxCategory(e: EInvoice, { code, rule, called, taxed, explained }: Category, need: Need): void {
  const lines = e.lines.map((line, index) => ({ line, index })).filter(({ line }) => line.category === code);
  const adjusted = e.adjustments.filter((a) => a.category === code),
    shares = e.taxes.filter((t) => t.category === code);
  const used = lines.length > 0 || adjusted.length > 0;
  if (!used && shares.length === 0) return;
  if (used)
    need(
      taxed ? shares.length > 0 : shares.length === 1,
      `BR-${rule}-1`,
      `Something is ${called}, but the tax breakdown ${shares.length === 0 ? 'does not have it' : 'has it more than once'}.`,
      'taxTotal',
    );
  if (code !== 'O')
    need(
      e.seller.taxId !== null || e.seller.registration !== null,
      `BR-${rule}-2`,
      `What is ${called} needs the supplier’s tax number.`,
      'supplier.taxId',
    );
  if (code === 'AE' || code === 'K')
    need(
      e.buyer.taxId !== null || (code === 'AE' && e.buyer.registration !== null),
      `BR-${rule}-2`,
      `What is ${called} needs the buyer’s tax number.`,
      'buyer.name',
    );
  for (const { line, index } of lines) {
    const rate = decOrNull(line.rate);
    need(
      taxed ? rate !== null && rate.gt(0) : code === 'O' ? rate === null || rate.isZero() : rate !== null && rate.isZero(),
      `BR-${rule}-5`,
      `Line ${line.id ?? index + 1} is ${called}, but its rate is ${line.rate ?? 'missing'}.`,
      `lines[${index}].taxRate`,
    );
  }
  for (const a of adjusted) {
    const rate = decOrNull(a.rate);
    need(
      taxed ? rate !== null && rate.gt(0) : rate === null || rate.isZero(),
      `BR-${rule}-${a.charge ? 7 : 6}`,
      `${a.charge ? 'A charge' : 'An allowance'} is ${called}, but its rate is ${a.rate ?? 'missing'}.`,
      'charges',
    );
  }
  for (const share of shares) {
    const own = (rate: string | null): boolean => !taxed || amount(rate).eq(amount(share.rate));
    const base = sum(lines.filter(({ line }) => own(line.rate)).map(({ line }) => amount(line.amount))).plus(
      sum(adjusted.filter((a) => own(a.rate)).map((a) => (a.charge ? amount(a.amount) : amount(a.amount).negated()))),
    );
    if (e.lines.length > 0)
      need(
        same(base, share.base),
        `BR-${rule}-8`,
        `What is ${called}${taxed ? ` at ${share.rate ?? '?'}%` : ''} adds up to ${show(base)}, but the tax breakdown says ${said(share.base, 'nothing')}.`,
        'taxTotal',
      );
    if (!taxed)
      need(amount(share.tax).isZero(), `BR-${rule}-9`, `What is ${called} has a tax of ${share.tax}, which must be 0.`, 'taxTotal');
    need(
      explained ? share.reason !== null : share.reason === null,
      `BR-${rule}-10`,
      explained ? `What is ${called} gives no reason for it.` : `What is ${called} gives a reason for exemption.`,
      'taxTotal',
    );
  }
  if (code === 'O' && shares.length > 0)
    need(
      e.taxes.every((t) => t.category === 'O'),
      'BR-O-11',
      'Something is outside the scope of tax, but other tax categories stand beside it.',
      'taxTotal',
    );
  if (code === 'K' && shares.length > 0)
    need(e.deliveryDate !== null, 'BR-IC-11', 'A supply within the EU needs the date of delivery.', 'taxTotal');
}
