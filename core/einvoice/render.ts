import { union, type Mark, type Page, type Word } from '../page/index.ts';
import type { HeaderField, Read, Reading } from '../reading/index.ts';
import { Paper, type Face } from './paper.ts';
import type { EInvoice } from './types.ts';
import { unitWord } from './units.ts';

const left = 48,
  right = 547,
  middle = 310;
const marked = (words: Word[], page: number): Mark | null => (words.length ? { page, ...union(words) } : null);

/** A readable page of an e-invoice's data, as paper has it, and the reading with marks on that page. */
export function render(e: EInvoice, reading: Reading): { pages: Page[]; reading: Reading } {
  const paper = new Paper();
  const header = { ...reading.header };
  const field = (name: HeaderField, words: Word[]) => {
    const read = header[name];
    if (read) header[name] = { ...read, mark: marked(words, paper.page) };
  };
  head(paper, e, reading, field);
  const lines = drawLines(paper, reading);
  const charges = reading.charges.map((c) => {
    paper.down(13);
    paper.text(c.label, middle + 60, paper.y);
    return { ...c, amount: on(c.amount, paper.text(c.amount.value, right, paper.y, { align: 'right' }), paper.page) };
  });
  totals(paper, e, reading, field);
  foot(paper, e, field);
  return { pages: paper.pages(), reading: { ...reading, pages: paper.pages().map((p) => p.number), header, lines, charges } };
}

const on = (read: Read, words: Word[], page: number): Read => ({ ...read, mark: marked(words, page) });

function head(paper: Paper, e: EInvoice, reading: Reading, field: (name: HeaderField, words: Word[]) => void): void {
  const h = reading.header;
  paper.y = 56;
  const title = e.kind === 'credit-note' ? 'Credit note' : 'Invoice';
  const width = paper.width(`${title} `, { size: 17, bold: true });
  paper.text(title, left, paper.y, { size: 17, bold: true });
  field('invoiceNumber', paper.text(e.number ?? '', left + width, paper.y, { size: 17, bold: true }));
  paper.down(16);
  paper.text(`E-invoice (${e.syntax}), shown from its data`, left, paper.y, { size: 8.5 });
  paper.down(26);
  const top = paper.y;
  paper.text('From', left, top, { size: 8.5, bold: true });
  paper.text('To', middle, top, { size: 8.5, bold: true });
  field('supplierName', paper.text(e.seller.name ?? '', left, top + 15, { bold: true }));
  field('buyerName', paper.text(e.buyer.name ?? '', middle, top + 15, { bold: true }));
  for (const [i, line] of [...e.seller.address, e.seller.country ?? ''].entries()) paper.text(line, left, top + 29 + i * 13);
  for (const [i, line] of [...e.buyer.address, e.buyer.country ?? ''].entries()) paper.text(line, middle, top + 29 + i * 13);
  paper.y = top + 29 + Math.max(e.seller.address.length, e.buyer.address.length) * 13 + 16;
  if (e.seller.taxId) {
    paper.text('Tax number', left, paper.y);
    field('supplierTaxId', paper.text(e.seller.taxId, left + 100, paper.y));
  }
  if (e.buyer.taxId) {
    paper.text('Tax number', middle, paper.y);
    paper.text(e.buyer.taxId, middle + 100, paper.y);
  }
  paper.down(22);
  const facts: [string, string | null | undefined, HeaderField | null][] = [
    [e.kind === 'credit-note' ? 'Date' : 'Invoice date', e.issueDate, 'issueDate'],
    ['Due date', h.dueDate?.value, 'dueDate'],
    ['Order', e.orderReference, 'purchaseOrder'],
    ['Your reference', e.buyerReference, null],
    ['Delivered', e.deliveryDate, null],
    ['Refers to invoice', e.precedingInvoice, null],
    ['Terms', e.terms, 'paymentTerms'],
    ['Currency', e.currency, 'currency'],
  ];
  for (const [label, value, name] of facts) {
    if (!value) continue;
    paper.text(label, left, paper.y);
    const words = paper.lines(value, left + 100, right).flat();
    if (name) field(name, words);
    paper.down(14);
  }
  paper.down(12);
}

interface Column {
  key: 'code' | 'description' | 'quantity' | 'unit' | 'unitPrice' | 'discountPercent' | 'taxRate' | 'amount';
  title: string;
  x: number;
  align: Face['align'];
}
const columns: Column[] = [
  { key: 'code', title: 'Item', x: left, align: 'left' },
  { key: 'description', title: 'Description', x: 118, align: 'left' },
  { key: 'quantity', title: 'Quantity', x: 338, align: 'right' },
  { key: 'unit', title: 'Unit', x: 346, align: 'left' },
  { key: 'unitPrice', title: 'Price', x: 426, align: 'right' },
  { key: 'discountPercent', title: 'Less %', x: 460, align: 'right' },
  { key: 'taxRate', title: 'Tax %', x: 494, align: 'right' },
  { key: 'amount', title: 'Amount', x: right, align: 'right' },
];

function drawLines(paper: Paper, reading: Reading): Reading['lines'] {
  const used = columns.filter((c) => c.key !== 'discountPercent' || reading.lines.some((l) => l.discountPercent));
  const heading = () => {
    for (const c of used) paper.text(c.title, c.x, paper.y, { size: 8.5, bold: true, align: c.align });
    paper.down(17);
  };
  if (reading.lines.length > 0) heading();
  return reading.lines.map((line) => {
    if (paper.full(40)) {
      paper.next();
      heading();
    }
    const y = paper.y,
      page = paper.page;
    const out = { ...line };
    for (const c of used) {
      const read = line[c.key];
      if (!read) continue;
      const shown =
        c.key === 'unitPrice' && line.priceQuantity
          ? `${read.value} / ${line.priceQuantity}`
          : c.key === 'unit'
            ? unitWord(read.value)
            : read.value;
      const words =
        c.key === 'description'
          ? paper.lines(shown, c.x, 285).flat()
          : paper.text(c.key === 'code' ? paper.fit(shown, 66) : shown, c.x, y, { align: c.align });
      Object.assign(out, { [c.key]: on(read, c.key === 'unitPrice' && line.priceQuantity ? words.slice(0, 1) : words, page) });
    }
    paper.y = Math.max(paper.y, y) + 15;
    return out;
  });
}

function totals(paper: Paper, e: EInvoice, reading: Reading, field: (name: HeaderField, words: Word[]) => void): void {
  if (paper.full(120)) paper.next();
  paper.down(22);
  const row = (label: string, value: string | null | undefined, name: HeaderField | null, bold = false) => {
    if (!value) return;
    paper.text(label, middle + 60, paper.y, { bold });
    const words = paper.text(value, right, paper.y, { align: 'right', bold });
    if (name) field(name, words);
    paper.down(15);
  };
  row('Total before tax', reading.header.netTotal?.value, 'netTotal');
  for (const t of e.taxes)
    row(
      `Tax ${t.rate ?? '0'}% on ${t.base ?? '0'}${t.category && t.category !== 'S' ? ` (${t.category})` : ''}`,
      e.taxes.length > 1 ? t.tax : null,
      null,
    );
  row(e.taxes.length === 1 ? `Tax ${e.taxes[0]!.rate ?? '0'}%` : 'Tax', reading.header.taxTotal?.value, 'taxTotal');
  row(`Total ${e.currency ?? ''}`, reading.header.grossTotal?.value, 'grossTotal', true);
  row('Paid already', e.totals.prepaid, null);
  row('Rounding', e.totals.rounding, null);
  if (e.totals.payable !== e.totals.gross) row('To pay', e.totals.payable, null, true);
  for (const t of e.taxes)
    if (t.reason) {
      paper.lines(t.reason, middle + 60, right);
      paper.down(15);
    }
}

function foot(paper: Paper, e: EInvoice, field: (name: HeaderField, words: Word[]) => void): void {
  paper.down(16);
  if (paper.full(90)) paper.next();
  if (e.payment.iban) {
    paper.text('Bank account', left, paper.y);
    field('supplierIban', paper.text(e.payment.iban, left + 100, paper.y));
    if (e.payment.bic) paper.text(e.payment.bic, left + 300, paper.y);
    paper.down(14);
  }
  if (e.payment.reference) {
    paper.text('Payment reference', left, paper.y);
    paper.text(e.payment.reference, left + 100, paper.y);
    paper.down(14);
  }
  for (const note of e.notes) {
    if (paper.full(40)) paper.next();
    paper.lines(note.slice(0, 2000), left, right);
    paper.down(14);
  }
  for (const file of e.attachments) {
    if (paper.full(40)) paper.next();
    paper.text('Attached', left, paper.y);
    paper.text(paper.fit(file.name, 380), left + 100, paper.y);
    paper.down(14);
  }
}
