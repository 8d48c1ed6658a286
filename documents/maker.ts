import { PDFDocument, rgb, StandardFonts, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import type { Invoice } from './invoice.ts';
import { layoutFor, type Cell, type Layout } from './layouts.ts';

const months = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December'];

export function printDate(iso: string, style: Layout['date']): string {
  const [y, m, d] = iso.split('-') as [string, string, string];
  return {
    long: `${Number(d)} ${months[Number(m) - 1]} ${y}`,
    slashes: `${d}/${m}/${y}`,
    dashes: `${d}-${m}-${y}`,
    points: `${d}.${m}.${y}`,
    us: `${m}/${d}/${y}`,
  }[style];
}

/** Thousands and decimals as the layout's country writes them. */
export function printNumber(value: string, decimal: Layout['decimal']): string {
  const [whole = '', fraction] = value.split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, decimal === '.' ? ',' : '.');
  return fraction ? `${grouped}${decimal}${fraction}` : grouped;
}

interface Sheet {
  page: PDFPage;
  y: number;
  regular: PDFFont;
  bold: PDFFont;
  layout: Layout;
  left: number;
  right: number;
}

function text(
  s: Sheet,
  value: string,
  x: number,
  y: number,
  {
    size = 9.5,
    bold = false,
    align = 'left',
    white = false,
  }: { size?: number; bold?: boolean; align?: 'left' | 'right' | 'centre'; white?: boolean } = {},
): void {
  const font = bold ? s.bold : s.regular;
  const width = font.widthOfTextAtSize(value, size);
  s.page.drawText(value, {
    x: align === 'right' ? x - width : align === 'centre' ? x - width / 2 : x,
    y: s.page.getHeight() - y,
    size,
    font,
    color: white ? rgb(1, 1, 1) : rgb(0.1, 0.1, 0.12),
  });
}

const rightAligned = (cell: Cell): boolean => ['quantity', 'price', 'rate', 'amount'].includes(cell);

/** A PDF of an invoice in its supplier's layout. The same invoice gives the same bytes. */
export async function makePdf(
  invoice: Invoice,
  layout = layoutFor(invoice.supplier.country, invoice.supplier.layout),
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const when = new Date(`${invoice.issueDate}T09:00:00Z`);
  pdf.setCreationDate(when);
  pdf.setModificationDate(when);
  pdf.setTitle(`${invoice.supplier.name} ${invoice.number}`);
  const regular = await pdf.embedFont(layout.font === 'sans' ? StandardFonts.Helvetica : StandardFonts.TimesRoman);
  const bold = await pdf.embedFont(layout.font === 'sans' ? StandardFonts.HelveticaBold : StandardFonts.TimesRomanBold);
  const s: Sheet = { page: pdf.addPage(layout.paper), y: 0, regular, bold, layout, left: 46, right: layout.paper[0] - 46 };
  head(s, invoice);
  table(s, invoice, pdf);
  totals(s, invoice);
  foot(s, invoice);
  return pdf.save();
}

function head(s: Sheet, { supplier, buyer, kind, ...invoice }: Invoice): void {
  const { words, letterhead } = s.layout;
  const x = { left: s.left, right: s.right, centre: (s.left + s.right) / 2 }[letterhead];
  text(s, supplier.name, x, 62, { size: 17, bold: true, align: letterhead });
  text(s, `${supplier.street}, ${supplier.town}`, x, 80, { size: 9, align: letterhead });
  text(s, `Tel ${supplier.phone} - accounts@${supplier.domain}`, x, 93, { size: 9, align: letterhead });
  text(
    s,
    kind === 'credit-note' ? words.credit : words.invoice,
    letterhead === 'right' ? s.left : s.right,
    letterhead === 'centre' ? 130 : 62,
    { size: 18, bold: true, align: letterhead === 'right' ? 'left' : 'right' },
  );
  text(s, words.to, s.left, 138, { size: 8, bold: true });
  for (const [i, line] of [buyer.name, ...buyer.address].entries()) text(s, line, s.left, 152 + i * 13);
  const facts: [string, string][] = [
    [kind === 'credit-note' ? words.creditNumber : words.number, invoice.number],
    [words.date, printDate(invoice.issueDate, s.layout.date)],
    ...(kind === 'credit-note' ? [] : [[words.due, printDate(invoice.dueDate, s.layout.date)] as [string, string]]),
    ...(invoice.purchaseOrder ? [[words.order, invoice.purchaseOrder] as [string, string]] : []),
  ];
  if (s.layout.labels === 'above') {
    const step = (s.right - s.left) / facts.length;
    for (const [i, [label, value]] of facts.entries()) {
      text(s, label, s.left + i * step, 244, { size: 8 });
      text(s, value, s.left + i * step, 258);
    }
    s.y = 292;
  } else {
    for (const [i, [label, value]] of facts.entries()) {
      if (s.layout.labels === 'inline') text(s, `${label} ${value}`, s.left, 240 + i * 15);
      else {
        text(s, label, 350, 152 + i * 15, { size: 9 });
        text(s, value, 455, 152 + i * 15, { size: 9 });
      }
    }
    s.y = s.layout.labels === 'inline' ? 316 : 268;
  }
}

function edges(s: Sheet): { cell: Cell; title: string; x0: number; x1: number }[] {
  const whole = s.layout.columns.reduce((t, c) => t + c.share, 0);
  let x = s.left;
  return s.layout.columns.map(({ cell, title, share }) => {
    const x0 = x;
    x += ((s.right - s.left) * share) / whole;
    return { cell, title, x0: x0 + 3, x1: x - 5 };
  });
}

function heading(s: Sheet): void {
  if (s.layout.band === 'dark')
    s.page.drawRectangle({ x: s.left, y: s.page.getHeight() - s.y - 5, width: s.right - s.left, height: 17, color: rgb(0.16, 0.18, 0.2) });
  for (const { cell, title, x0, x1 } of edges(s))
    text(s, title, rightAligned(cell) ? x1 : x0, s.y, {
      size: 8.5,
      bold: true,
      align: rightAligned(cell) ? 'right' : 'left',
      white: s.layout.band === 'dark',
    });
  if (s.layout.band === 'line')
    s.page.drawLine({
      start: { x: s.left, y: s.page.getHeight() - s.y - 5 },
      end: { x: s.right, y: s.page.getHeight() - s.y - 5 },
      thickness: 0.6,
    });
  s.y += 22;
}

function table(s: Sheet, invoice: Invoice, pdf: PDFDocument): void {
  heading(s);
  for (const line of invoice.lines) {
    if (s.y > s.page.getHeight() - 90) {
      s.page = pdf.addPage(s.layout.paper);
      s.y = 60;
      text(s, `${invoice.supplier.name}  ${invoice.number}`, s.left, 40, { size: 8 });
      heading(s);
    }
    const values: Record<Cell, string> = {
      code: line.code ?? '',
      text: line.text,
      unit: line.unit ?? '',
      quantity: printNumber(line.quantity, s.layout.decimal),
      price: printNumber(line.price, s.layout.decimal),
      rate: `${line.rate}%`,
      amount: printNumber(line.amount, s.layout.decimal),
    };
    for (const { cell, x0, x1 } of edges(s))
      if (values[cell]) text(s, values[cell], rightAligned(cell) ? x1 : x0, s.y, { align: rightAligned(cell) ? 'right' : 'left' });
    s.y += 19;
  }
}

function totals(s: Sheet, invoice: Invoice): void {
  const { words, decimal } = s.layout;
  const sign = { GBP: '£', EUR: 'EUR ', USD: '$', JPY: 'JPY ' }[invoice.currency] ?? '';
  const rows: [string, string][] = [];
  if (invoice.charge)
    rows.push(
      [words.goods, String((Number(invoice.net) - Number(invoice.charge.amount)).toFixed(invoice.currency === 'JPY' ? 0 : 2))],
      [invoice.charge.label, invoice.charge.amount],
    );
  rows.push([words.net, invoice.net]);
  for (const { rate, net, tax } of invoice.taxes)
    rows.push([
      invoice.taxes.length > 1
        ? `${words.tax} ${rate}% ${decimal === ',' ? 'op' : 'on'} ${printNumber(net, decimal)}`
        : `${words.tax} ${rate}%`,
      tax,
    ]);
  s.y += 14;
  for (const [label, value] of rows) {
    text(s, label, s.right - 200, s.y);
    text(s, printNumber(value, decimal), s.right - 5, s.y, { align: 'right' });
    s.y += 16;
  }
  text(s, words.total, s.right - 200, s.y + 2, { size: 11, bold: true });
  text(s, `${sign}${printNumber(invoice.gross, decimal)}`, s.right - 5, s.y + 2, { size: 11, bold: true, align: 'right' });
}

function foot(s: Sheet, { supplier, terms, currency }: Invoice): void {
  const at = s.page.getHeight() - 60;
  text(s, `${s.layout.words.terms}: ${terms}. ${currency === 'GBP' ? '' : `All amounts in ${currency}.`}`, s.left, at, { size: 8.5 });
  if (supplier.iban) text(s, `IBAN ${supplier.iban.replace(/(.{4})/g, '$1 ').trim()}`, s.left, at + 12, { size: 8.5 });
  if (supplier.taxId) text(s, `${s.layout.words.taxId} ${supplier.taxId}`, s.left, at + 24, { size: 8.5 });
}
