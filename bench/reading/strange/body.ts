import { chance, type Content, type Random, type TruthLine } from '../content.ts';
import { printDate, printNumber } from '../look.ts';
import type { Sheet } from '../sheet.ts';
import { headings } from './headings.ts';
import { units, word } from './words.ts';
import { drawWorked, workedBodies, workedHead, type WorkedBody } from './worked.ts';

/** What a body prints of a line, as the truth has it: what is not printed is null. */
export type Printed = Pick<TruthLine, 'code' | 'description' | 'quantity' | 'unitPrice' | 'taxRate' | 'discountPercent' | 'amount'>;
/** What is printed of a line where nothing is left out but its code and discount. */
export const printedOf = ({ description, quantity, unitPrice, taxRate, amount }: TruthLine): Printed => ({
  code: null,
  description,
  quantity,
  unitPrice,
  discountPercent: null,
  taxRate,
  amount,
});
export type Cell = { text: string; x: number; right?: boolean; bold?: boolean };

const cells = (s: Sheet, y: number, row: (Cell | null)[]): void => {
  for (const c of row) if (c) s.text(c.text, c.x, y, { align: c.right ? 'right' : 'left', bold: c.bold ?? false });
};

/** Kinds of bodies: by what stands in a printed row and in how many rows a line is printed. */
export const bodies = [
  'columns',
  'figures below',
  'figures above',
  'joined',
  'amount first',
  'tickets',
  'ordered and sent',
  'shifts',
  'bare',
  'gross column',
  'points',
  'noted',
  ...workedBodies,
] as const;
export type Body = (typeof bodies)[number];

const isWorked = (body: Body): body is WorkedBody => (workedBodies as readonly string[]).includes(body);

/** Draws the lines in one structure; what is printed of each is given back. */
export function drawBody(s: Sheet, c: Content, r: Random, body: Body): Printed[] {
  const { look } = s,
    step = look.size * (1.25 + r.next() * 0.6);
  const num = (v: string) => printNumber(v, look);
  const [left, right] = [s.left, s.right],
    width = right - left;
  const at = (share: number) => left + width * share;
  const unit = r.pick(units),
    withRate = chance(r, 0.35),
    withCode = chance(r, 0.5),
    sections = chance(r, 0.3),
    sums = sections && chance(r, 0.5),
    heading = chance(r, 0.8),
    minusBehind = chance(r, 0.2);
  const money = (v: string) => (minusBehind && v.startsWith('-') ? `${num(v.slice(1))}-` : num(v));
  // Where each column stands: figures in an order of their own.
  const swapped = chance(r, 0.3),
    descriptionFirst = chance(r, 0.6);
  const [x1, x2] = swapped ? [0.84, 0.68] : [0.68, 0.84];
  const codeX = descriptionFirst ? 0.48 : 0,
    textX = descriptionFirst ? 0 : withCode ? 0.14 : 0;
  const head = () => {
    if (!heading) return;
    const h = (label: Parameters<typeof word>[1], x: number, toRight = true): Cell => ({
      text: word(r, label),
      x: at(x),
      right: toRight,
      bold: true,
    });
    const worked = isWorked(body)
      ? workedHead(body, r, (text, x, toRight = true) => ({ text, x: at(x), right: toRight, bold: true }))
      : headings(body, h, { textX, x1, x2 });
    if (worked.length === 0) return;
    cells(s, s.y, worked);
    s.y += step * 1.3;
  };
  s.y += 8;
  head();
  const labels = { quantity: word(r, 'quantity'), price: word(r, 'price'), amount: word(r, 'amount') };
  let section = -1,
    sum = 0,
    carried = 0;
  const places = c.currency === 'JPY' ? 0 : 2;
  const total = (label: string, value: number) => {
    cells(s, s.y, [
      { text: label, x: at(0.4) },
      { text: num(value.toFixed(places)), x: body === 'amount first' ? at(0.14) : right, right: true },
    ]);
    s.y += step;
  };
  const printed = c.lines.map((line, i): Printed => {
    if (s.y > s.height - 130) {
      if (chance(r, 0.5)) total(word(r, 'carried'), carried);
      s.nextPage();
      s.y = 60;
      head();
    }
    if (sections && line.section !== section) {
      if (sums && section >= 0) total(`${i} ${word(r, 'section')}`, sum);
      sum = 0;
      section = line.section;
      s.text(word(r, 'section'), left, s.y, { bold: chance(r, 0.5) });
      s.y += step;
    }
    sum += Number(line.amount);
    carried += Number(line.amount);
    const q = line.quantity,
      p = line.unitPrice;
    const rate = withRate && line.taxRate !== null ? `${num(line.taxRate)}%` : null;
    const out: Printed = { ...printedOf(line), taxRate: rate ? line.taxRate : null };
    if (isWorked(body)) {
      const made = drawWorked(body, { s, i, line, at, money, unit, labels, places, step, put: (row) => cells(s, s.y, row) });
      s.y += step * (body === 'labelled' ? 1.35 : 1);
      return made;
    }
    const day = printDate(new Date(Date.parse(c.issueDate) - (40 - i) * 86_400_000).toISOString().slice(0, 10), look);
    const amount: Cell = { text: money(line.amount), x: right, right: true };
    const code = withCode && line.code ? line.code : null;
    const price: Cell | null = p ? { text: num(p), x: at(x2), right: true } : null;
    const rateCell = (x: number): Cell | null => (rate ? { text: rate, x: at(x), right: true } : null);
    switch (body) {
      case 'columns':
        out.code = code;
        cells(s, s.y, [
          code ? { text: code, x: at(codeX) } : null,
          { text: line.description, x: at(textX) },
          q ? { text: num(q), x: at(x1), right: true } : null,
          price,
          rateCell(0.9),
          amount,
        ]);
        break;
      case 'figures below':
        s.text(line.description, left, s.y);
        s.y += step;
        if (q && p)
          cells(s, s.y, [
            { text: r.pick([`${num(q)} ${unit} at ${num(p)}`, `${num(q)} ${unit} @ ${num(p)}`, `${num(q)} × ${num(p)}`]), x: left + 14 },
            rateCell(0.8),
            amount,
          ]);
        else cells(s, s.y, [{ text: unit, x: left + 14 }, amount]);
        break;
      case 'figures above':
        cells(s, s.y, [
          q ? { text: num(q), x: left } : null,
          { text: unit, x: at(0.08) },
          p ? { text: num(p), x: at(0.3), right: true } : null,
          rateCell(0.6),
          amount,
        ]);
        s.y += step;
        s.text(line.description, left + (chance(r, 0.5) ? 0 : 16), s.y);
        break;
      case 'joined':
        cells(s, s.y, [
          { text: line.description, x: left },
          { text: money(line.amount), x: at(0.6), right: true },
          q && p ? { text: `${num(q)} × ${num(p)}`, x: at(0.66) } : null,
          { text: day, x: at(0.84) },
        ]);
        out.taxRate = null;
        break;
      case 'amount first':
        cells(s, s.y, [
          { text: money(line.amount), x: at(0.14), right: true },
          { text: line.description, x: at(0.2) },
          q ? { text: num(q), x: at(0.85), right: true } : null,
          p ? { text: num(p), x: right, right: true } : null,
        ]);
        out.taxRate = null;
        break;
      case 'tickets': {
        out.code = withCode && line.code ? line.code : null;
        const gross = q ? Number(q) + 15.4 : 0;
        cells(s, s.y, [
          { text: day, x: left },
          { text: String(440100 + i * 7), x: at(0.13) },
          out.code ? { text: out.code, x: at(0.22) } : null,
          { text: line.description, x: at(0.32) },
          q ? { text: num(gross.toFixed(2)), x: at(0.66), right: true } : null,
          q ? { text: num(q), x: at(0.74), right: true } : null,
          p ? { text: num(p), x: at(0.86), right: true } : null,
          amount,
        ]);
        out.taxRate = null;
        break;
      }
      case 'ordered and sent': {
        out.code = code;
        const ordered = q && /^\d+$/.test(q) ? String(Number(q) + (i % 3 === 0 ? 2 : 0)) : q;
        cells(s, s.y, [
          { text: line.description, x: left },
          code ? { text: code, x: at(0.34) } : null,
          ordered ? { text: num(ordered), x: at(0.55), right: true } : null,
          q ? { text: num(q), x: at(0.65), right: true } : null,
          { text: unit, x: at(0.67) },
          p ? { text: num(p), x: at(0.82), right: true } : null,
          amount,
        ]);
        out.taxRate = null;
        break;
      }
      case 'shifts':
        cells(s, s.y, [
          { text: day, x: left },
          { text: `${7 + (i % 5)}:00–${15 + (i % 4)}:30`, x: at(0.13) },
          { text: line.description, x: at(0.25) },
          { text: r.pick(['K. Adeyo', 'D. Fenn', 'S. Rahmani']), x: at(0.56) },
          q ? { text: num(q), x: at(0.75), right: true } : null,
          p ? { text: num(p), x: at(0.87), right: true } : null,
          amount,
        ]);
        out.taxRate = null;
        break;
      case 'bare':
        cells(s, s.y, [{ text: line.description, x: left }, amount]);
        out.quantity = out.unitPrice = out.taxRate = null;
        break;
      case 'gross column': {
        const share = Number(line.taxRate ?? 0) / 100,
          tax = Number(line.amount) * share;
        cells(s, s.y, [
          { text: line.description, x: left },
          q ? { text: num(q), x: at(0.5), right: true } : null,
          p ? { text: num(p), x: at(0.64), right: true } : null,
          { text: money(line.amount), x: at(0.78), right: true },
          { text: num(tax.toFixed(places)), x: at(0.88), right: true },
          { text: num((Number(line.amount) + tax).toFixed(places)), x: right, right: true },
        ]);
        out.taxRate = null;
        break;
      }
      case 'points':
      case 'noted': {
        out.code = code;
        cells(s, s.y, [
          code ? { text: code, x: left } : null,
          { text: line.description, x: code ? at(0.14) : left },
          q ? { text: `${num(q)} ${chance(r, 0.5) ? unit : ''}`.trim(), x: at(0.7), right: true } : null,
          p ? { text: num(p), x: at(0.85), right: true } : null,
          amount,
        ]);
        out.taxRate = null;
        const x = code ? at(0.14) : left;
        if (body === 'points')
          for (let k = i % 3; k > 0; k--) {
            const more = word(r, 'more');
            s.y += step;
            s.text('•', x, s.y);
            s.text(more, x + 9, s.y);
            out.description += ` ${more}`;
          }
        else if (i % 2 === 0) {
          s.y += step;
          s.text(word(r, 'note'), x + 6, s.y, { size: look.size - 1 });
        }
        break;
      }
    }
    s.y += step * (body === 'figures below' || body === 'figures above' ? 1.35 : 1);
    return out;
  });
  if (sums) total(word(r, 'section'), sum);
  return printed;
}
