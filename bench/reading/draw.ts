import { seeded } from '@ledgerline/documents/random';
import { chance, contentOf, type Content, type Random } from './content.ts';
import { lookOf, printDate, printNumber, type Look } from './look.ts';
import { Sheet, type Style } from './sheet.ts';
import { drawTable } from './table.ts';

export interface Made {
  seed: number;
  content: Content;
  look: Look;
  sheet: Sheet;
}

const signs: Record<string, string> = { GBP: '£', EUR: '€', USD: '$', JPY: '¥', CHF: 'CHF', SEK: 'kr' };

/** An amount with the currency's sign in front or behind, as the country does. */
export function money(value: string, c: Content, look: Look, signed: boolean): string {
  const text = printNumber(value, look);
  if (!signed) return text;
  const sign = signs[c.currency]!;
  return look.numbers.endsWith(',50') || c.currency === 'SEK'
    ? `${text} ${sign}`
    : c.currency === 'CHF'
      ? `CHF ${text}`
      : text.startsWith('-')
        ? `-${sign}${text.slice(1)}`
        : `${sign}${text}`;
}

const caps = (look: Look, text: string): string => (look.capitals ? text.toUpperCase() : text);

/** A whole made-up document: its content, its look, and its pages. The same seed gives the same document. */
export function make(seed: number): Made {
  const r = seeded(seed * 7919 + 13);
  const content = contentOf(r),
    look = lookOf(r, content),
    sheet = new Sheet(look);
  head(sheet, content, r);
  drawTable(sheet, content, r);
  totals(sheet, content, r);
  foot(sheet, content, r);
  return { seed, content, look, sheet };
}

function contact(c: Content, r: Random): string[] {
  return [
    c.supplier.street,
    c.supplier.town,
    ...(chance(r, 0.6) ? [`Tel ${c.supplier.phone}`] : []),
    ...(chance(r, 0.6) ? [c.supplier.email] : []),
  ];
}

function factsOf(s: Sheet, c: Content, r: Random): [string, string][] {
  const l = s.look.labels,
    date = (iso: string) => printDate(iso, s.look);
  const facts: [string, string][] = [
    [(c.kind === 'credit-note' ? l.creditNumber : l.number)!, c.number],
    [l.date!, date(c.issueDate)],
  ];
  if (c.showDue && c.dueDate) facts.push([l.due!, date(c.dueDate)]);
  if (c.order) facts.push([l.order!, c.order]);
  if (chance(r, 0.5)) facts.push([l.customer!, c.customer]);
  if (chance(r, 0.3)) facts.push([l.delivery!, c.delivery]);
  if (chance(r, 0.2)) facts.push([l.deliveryDate!, date(c.deliveryDate)]);
  if (c.order && chance(r, 0.15)) facts.push([l.orderDate!, date(c.orderDate)]);
  if (chance(r, 0.35)) facts.sort(() => r.next() - 0.5);
  return facts.map(([label, value]) => [caps(s.look, label), value]);
}

function head(s: Sheet, c: Content, r: Random): void {
  const { look } = s,
    line = look.size * 1.35;
  const at = look.letterhead === 'right' ? s.right : look.letterhead === 'centre' ? s.width / 2 : s.left;
  const align: Style['align'] = look.letterhead === 'right' ? 'right' : look.letterhead === 'centre' ? 'centre' : 'left';
  s.text(c.supplier.name, at, 54, { size: look.nameSize, bold: true, align });
  let y = 54 + look.nameSize;
  if (look.letterhead !== 'foot')
    for (const part of contact(c, r)) {
      s.text(part, at, y, { size: look.size - 0.5, align });
      y += line;
    }
  const title = (c.kind === 'credit-note' ? look.labels.creditTitle : look.labels.title)!;
  const titleX = look.letterhead === 'right' ? s.left : s.right;
  if (look.title === 'beside' && look.letterhead !== 'centre')
    s.text(title, titleX, 54, { size: 18, bold: true, align: look.letterhead === 'right' ? 'left' : 'right' });
  else if (look.title === 'top') {
    y += 14;
    s.text(title, s.left, y, { size: 15, bold: true });
    y += 12;
  }
  y = Math.max(y, 90) + 24;
  const blockX = look.buyer === 'left' ? s.left : s.width * 0.55,
    factX = look.buyer === 'left' ? s.width * 0.56 : s.left;
  let left = y;
  if (look.buyerLabel) {
    s.text(caps(look, look.labels.to!) + look.colon, blockX, left, { size: look.size - 1, bold: chance(r, 0.5) });
    left += line;
  }
  for (const part of [c.buyer.name, c.buyer.street, c.buyer.town]) {
    s.text(part, blockX, left);
    left += line;
  }
  if (look.delivery) {
    left += line * 0.6;
    s.text(look.labels.deliverTo! + look.colon, blockX, left, { size: look.size - 1 });
    left += line;
    for (const part of ['Marrowby Botanic Gardens', 'North Gate, Service Road']) {
      s.text(part, blockX, left);
      left += line;
    }
  }
  if (look.title === 'above facts' || (look.title === 'beside' && look.letterhead === 'centre')) {
    s.text(title, factX, y, { size: 14, bold: true });
    y += 22;
  }
  s.y = facts(s, factsOf(s, c, r), { x: factX, y, below: left, line });
}

function facts(s: Sheet, list: [string, string][], { x, y, below, line }: { x: number; y: number; below: number; line: number }): number {
  const { look } = s;
  if (look.facts === 'right' || look.facts === 'left') {
    const widest = Math.max(...list.map(([label]) => s.measure(label + look.colon, look.size, true)));
    for (const [i, [label, value]] of list.entries()) {
      s.text(label + look.colon, x, y + i * line * 1.1, { bold: look.facts === 'left' });
      if (look.facts === 'right') s.text(value, x + widest + 14, y + i * line * 1.1);
      else s.text(value, s.width * 0.56 === x ? s.right : s.width * 0.5, y + i * line * 1.1, { align: 'right' });
    }
    return Math.max(below, y + list.length * line * 1.1) + 22;
  }
  if (look.facts === 'lines') {
    for (const [i, [label, value]] of list.entries()) s.text(`${label}${look.colon} ${value}`, x, y + i * line * 1.15);
    return Math.max(below, y + list.length * line * 1.15) + 22;
  }
  let at = Math.max(below, y) + 14;
  const perRow = look.facts === 'band' ? Math.min(list.length, s.width > 600 ? 6 : 5) : 3;
  for (let i = 0; i < list.length; i += perRow) {
    const part = list.slice(i, i + perRow),
      step = (s.right - s.left) / perRow;
    for (const [k, [label, value]] of part.entries()) {
      s.text(label, s.left + k * step, at, { size: look.size - 1, bold: true, white: look.facts === 'band' });
      s.text(value, s.left + k * step, at + line * 1.2);
    }
    at += line * 2.8;
  }
  return at + 10;
}

function totals(s: Sheet, c: Content, r: Random): void {
  const { look } = s,
    l = look.labels,
    signed = look.sign === 'total' || look.sign === 'all';
  const rows: { label: string; value: string; bold?: boolean }[] = [];
  const goods = () => {
    const n = c.lines.reduce((t, x) => t + Math.round(Number(x.amount) * 100), 0);
    return (n / 100).toFixed(c.currency === 'JPY' ? 0 : 2);
  };
  if (c.charges.length > 0) rows.push({ label: l.goods!, value: goods() });
  for (const charge of c.charges) rows.push({ label: (charge.kind === 'carriage' ? l.carriage : l.rebate)!, value: charge.amount });
  const percent = (rate: string) => rate.replace('.', look.numbers.at(-3)!);
  if (c.pricesIncludeTax) {
    rows.push({ label: l.total!, value: c.gross, bold: true });
    rows.push(
      {
        label: `${look.words === undefined ? '' : ({ 20: '', 19: '' }[c.taxes[0]!.rate] ?? '')}${l.tax!} ${percent(c.taxes[0]!.rate)}%`,
        value: c.tax,
      },
      { label: l.net!, value: c.net },
    );
  } else {
    rows.push({ label: l.net!, value: c.net });
    if (look.breakdown && c.taxes.length > 1)
      for (const t of c.taxes)
        rows.push({
          label: r.pick([
            `${l.tax} ${percent(t.rate)}%`,
            `${l.tax} ${percent(t.rate)} % (${printNumber(t.net, look)})`,
            `${l.tax} @ ${percent(t.rate)}%`,
          ]),
          value: t.tax,
        });
    else rows.push({ label: c.taxes.length === 1 ? `${l.tax} ${percent(c.taxes[0]!.rate)}%` : l.tax!, value: c.tax });
    rows.push({ label: l.total!, value: c.gross, bold: true });
  }
  if (c.deposit)
    rows.push(
      { label: l.deposit!, value: `-${c.deposit}` },
      { label: l.toPay!, value: (Number(c.gross) - Number(c.deposit)).toFixed(c.currency === 'JPY' ? 0 : 2), bold: true },
    );
  if (s.y > s.height - 60 - rows.length * 16) {
    s.nextPage();
    s.y = 70;
  }
  s.y += 12;
  if (look.totals === 'across' && rows.length <= 5) {
    const step = (s.right - s.left) / rows.length;
    for (const [i, row] of rows.entries()) {
      s.text(caps(look, row.label), s.left + i * step, s.y, { size: look.size - 1 });
      s.text(money(row.value, c, look, signed && row.bold === true), s.left + i * step, s.y + look.size * 1.5, { bold: row.bold ?? false });
    }
    s.y += look.size * 3;
    return;
  }
  const labelX =
      look.totals === 'left'
        ? s.left
        : s.right -
          Math.max(
            170,
            ...rows.map(
              (row) =>
                s.measure(caps(look, row.label) + look.colon, look.size + 1, true) +
                s.measure(`${row.value}00000`, look.size + 1, true) +
                24,
            ),
          ),
    valueX = look.totals === 'left' ? s.left + 280 : s.right - 2;
  for (const row of rows) {
    s.text(caps(look, row.label) + look.colon, labelX, s.y, { bold: row.bold ?? false, size: look.size + (row.bold ? 1 : 0) });
    s.text(money(row.value, c, look, look.sign === 'all' || (signed && row.bold === true)), valueX, s.y, {
      align: 'right',
      bold: row.bold ?? false,
      size: look.size + (row.bold ? 1 : 0),
    });
    s.y += look.size * 1.65;
  }
}

function foot(s: Sheet, c: Content, r: Random): void {
  const { look } = s;
  s.y += 14;
  if (c.taxes.length === 1 && look.breakdown && !c.pricesIncludeTax && s.y < s.height - 140) {
    for (const [i, head] of [`${look.labels.tax} %`, look.labels.net!, look.labels.tax!].entries())
      s.text(head, s.left + i * 90, s.y, { size: look.size - 1, bold: true });
    for (const [i, value] of [`${c.taxes[0]!.rate}%`, printNumber(c.taxes[0]!.net, look), printNumber(c.taxes[0]!.tax, look)].entries())
      s.text(value, s.left + i * 90, s.y + look.size * 1.5);
    s.y += look.size * 4;
  }
  if (look.taxBy === 'codes')
    for (const [i, t] of c.taxes.entries()) {
      s.text(`${'ABCD'[i]} = ${t.rate}%`, s.left, s.y, { size: look.size - 1 });
      s.y += look.size * 1.3;
    }
  if (look.sign === 'sentence') {
    s.text(r.pick([`${c.currency}`, `(${c.currency})`, `* ${c.currency} *`]), s.right, s.y, { align: 'right' });
  }
  if (c.termDays !== null) {
    s.text(`${look.labels.terms}: ${look.words.days(c.termDays)}`, s.left, s.y, { size: look.size - 0.5 });
    s.y += look.size * 1.5;
  }
  if (look.slip && c.kind === 'invoice' && s.y < s.height - 150) {
    s.y += 20;
    s.text('- - - - - - - - - - - - - - - - - - - - - - - - - - - - - -', s.left, s.y);
    s.y += 16;
    s.text(c.number, s.left, s.y);
    s.text(
      money(c.deposit ? (Number(c.gross) - Number(c.deposit)).toFixed(c.currency === 'JPY' ? 0 : 2) : c.gross, c, look, true),
      s.right,
      s.y,
      { align: 'right' },
    );
  }
  if (s.y > s.height - 62) s.nextPage();
  const base = s.height - 44,
    small = { size: 7 };
  const bits = [
    `IBAN ${chance(r, 0.7) ? c.supplier.iban.replace(/(.{4})/g, '$1 ').trim() : c.supplier.iban}`,
    `BIC ${c.supplier.bic}`,
    ...(c.supplier.taxId ? [`${look.labels.taxId} ${c.supplier.taxId}`] : []),
  ];
  if (look.letterhead === 'foot') s.text(`${c.supplier.name}, ${c.supplier.street}, ${c.supplier.town}`, s.left, base - 11, small);
  if (look.footer) s.text(bits.join('  |  '), s.left, base, small);
  else for (const [i, bit] of bits.entries()) s.text(bit, s.left + i * 180, base, small);
}
