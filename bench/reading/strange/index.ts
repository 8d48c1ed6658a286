import { seeded } from '@ledgerline/documents/random';
import { chance, contentOf, type Content, type Random } from '../content.ts';
import { lookOf, printDate, printNumber, type Look } from '../look.ts';
import { Sheet } from '../sheet.ts';
import { bodies, drawBody, type Body, type Printed } from './body.ts';
import { people, word } from './words.ts';

export interface Strange {
  content: Content;
  look: Look;
  sheet: Sheet;
  lines: Printed[];
  /** Documents of one structure have one name. */ family: string;
  /** What stands on the page of the head's facts. */ due: string | null;
}

/** How the facts of the head are printed. */
const heads = ['label over', 'label under', 'label left', 'label far', 'sentence', 'title', 'bare'] as const;
const endings = ['right', 'left', 'box on top', 'table', 'across'] as const;

/** A document of a structure that no list knows, in labels that no lexicon was made from. The same seed gives the same document. */
export function strange(seed: number): Strange {
  const r = seeded(seed * 6007 + 71);
  const content = contentOf(r),
    look = lookOf(r, content),
    sheet = new Sheet(look);
  const body: Body = r.pick(bodies),
    head = r.pick(heads),
    ending = r.pick(endings);
  const due = content.dueDate && chance(r, 0.75) ? content.dueDate : null;
  drawHead(sheet, { ...content, dueDate: due }, r, head, ending === 'box on top');
  const lines = drawBody(sheet, content, r, body);
  drawEnd(sheet, content, r, ending);
  return { content, look, sheet, lines, family: `strange ${body} ${head}`, due };
}

function drawHead(s: Sheet, c: Content, r: Random, head: (typeof heads)[number], box: boolean): void {
  const { look } = s,
    line = look.size * 1.35,
    day = (iso: string) => printDate(iso, look);
  // The word of the logo above, the legal name elsewhere; or the whole name in the letterhead.
  const short = c.supplier.name.split(' ').slice(0, 2).join(' '),
    whole = chance(r, 0.45);
  const logo = whole ? c.supplier.name : chance(r, 0.4) ? short.toUpperCase() : short;
  const logoX = chance(r, 0.6) ? s.left : s.width * 0.6;
  s.text(logo, logoX, 50, { size: look.size + r.int(1, 10), bold: chance(r, 0.6) });
  let y = 66;
  if (chance(r, 0.4)) s.text('made with care since 1911', logoX, y, { size: look.size - 1 });
  if (chance(r, 0.6)) s.text(`${c.supplier.street}, ${c.supplier.town}`, logoX, (y += line));
  if (chance(r, 0.5)) s.text(c.supplier.email, logoX, (y += line));
  const title = look.labels[c.kind === 'credit-note' ? 'creditTitle' : 'title']!;
  const own = word(r, 'number');
  const facts: [string, string][] = [
    [own, c.number],
    [word(r, 'date'), day(c.issueDate)],
  ];
  if (c.dueDate) facts.push([word(r, 'due'), day(c.dueDate)]);
  if (c.order) facts.push([word(r, 'order'), c.order]);
  for (const more of [c.customer, c.delivery]) if (chance(r, 0.6)) facts.push([word(r, 'other'), more]);
  if (chance(r, 0.5)) facts.sort(() => r.next() - 0.5);
  y += 26;
  const buyerX = chance(r, 0.6) ? s.left : s.width * 0.56,
    factX = buyerX === s.left ? s.width * 0.56 : s.left;
  let b = y;
  const who = chance(r, 0.4) ? [r.pick(people)] : [];
  for (const part of [...who, c.buyer.name, c.buyer.street, c.buyer.town]) {
    s.text(part, buyerX, b);
    b += line;
  }
  if (c.kind === 'credit-note' || head !== 'bare')
    s.text(head === 'title' ? `${title} ${c.number}` : title, factX, y - 8, { size: look.size + r.int(1, 6), bold: true });
  if (head === 'title')
    facts.splice(
      facts.findIndex(([l]) => l === own),
      1,
    );
  let f = y + line;
  if (head === 'sentence') {
    s.y = Math.max(b, f) + 16;
    const of = c.order ? `, under your instruction ${c.order}` : '';
    s.text(`This is our ${own.toLowerCase()} ${c.number} of ${day(c.issueDate)} for work at the Long Walk${of};`, s.left, s.y);
    s.y += line;
    s.text(c.dueDate ? `we ask you to let us have the sum at the latest on ${day(c.dueDate)}.` : 'we thank you for it.', s.left, s.y);
    s.y += 20;
  } else if (head === 'label over' || head === 'label under') {
    const top = Math.max(b, f) + 14,
      step = (s.right - s.left) / Math.max(4, facts.length);
    for (const [i, [label, value]] of facts.entries()) {
      s.text(label, s.left + i * step, head === 'label over' ? top : top + line * 1.1, { size: look.size - 1 });
      s.text(value, s.left + i * step, head === 'label over' ? top + line * 1.1 : top, { bold: chance(r, 0.4) });
    }
    s.y = top + line * 3;
  } else {
    for (const [label, value] of facts) {
      if (head === 'bare') s.text(label === own || chance(r, 0.3) ? value : `${label} ${value}`, factX, f);
      else {
        s.text(`${label}${look.colon}`, factX, f);
        if (head === 'label far') s.text(value, factX === s.left ? s.width * 0.46 : s.right, f, { align: 'right' });
        else s.text(value, factX + s.measure(`${label}${look.colon}`) + 5, f);
      }
      f += line;
    }
    s.y = Math.max(b, f) + 16;
  }
  if (box) {
    for (const [label, value] of [
      [word(r, 'net'), c.net],
      [word(r, 'tax'), c.tax],
      [word(r, 'gross'), c.gross],
    ] as const) {
      s.text(label, s.left, s.y);
      s.text(printNumber(value, look), s.left + 190, s.y, { align: 'right' });
      s.y += line;
    }
    s.y += 8;
  }
  const foot = s.height - 40;
  s.text(`${c.supplier.name}${r.pick([', ', ' · ', ' – ', ' '])}${c.supplier.street}, ${c.supplier.town}`, s.left, foot, {
    size: look.size - 1,
  });
  s.text(
    `${c.supplier.taxId ? `${word(r, 'tax')} ${c.supplier.taxId} · ` : ''}IBAN ${c.supplier.iban.replace(/(.{4})/g, '$1 ').trim()}`,
    s.left,
    foot + line,
    { size: look.size - 1 },
  );
}

function drawEnd(s: Sheet, c: Content, r: Random, ending: (typeof endings)[number]): void {
  const { look } = s,
    line = look.size * 1.5,
    num = (v: string) => printNumber(v, look);
  if (s.y > s.height - 170) {
    s.nextPage();
    s.y = 60;
  }
  s.y += 10;
  const rows: [string, string, boolean?][] = c.charges.map((x) => [word(r, 'charge'), x.amount]);
  if (c.pricesIncludeTax)
    rows.push([word(r, 'gross'), c.gross, true], [`${word(r, 'tax')} ${c.taxes[0]!.rate}%`, c.tax], [word(r, 'net'), c.net]);
  else {
    rows.push([word(r, 'net'), c.net]);
    for (const t of c.taxes)
      rows.push([r.pick([`${word(r, 'tax')} ${num(t.rate)}%`, `${word(r, 'tax')} ${num(t.rate)} % / ${num(t.net)}`]), t.tax]);
    rows.push([word(r, 'gross'), c.gross, true]);
  }
  if (ending === 'table' && c.taxes.length > 1) {
    for (const t of c.taxes) {
      for (const [i, text] of [`${num(t.rate)} %`, num(t.net), num(t.tax)].entries())
        s.text(text, s.left + 60 + i * 70, s.y, { align: 'right' });
      s.y += line;
    }
  }
  if (ending === 'across') {
    const step = (s.right - s.left) / rows.length;
    for (const [i, [label, value]] of rows.entries()) {
      s.text(label, s.left + i * step, s.y, { size: look.size - 1 });
      s.text(num(value), s.left + i * step, s.y + line);
    }
    s.y += line * 2;
    return;
  }
  for (const [label, value, bold] of rows) {
    if (ending === 'left') {
      s.text(num(value), s.left + 70, s.y, { align: 'right', bold: bold ?? false });
      s.text(label, s.left + 84, s.y);
    } else {
      s.text(label, s.width * 0.56, s.y);
      s.text(num(value), s.right, s.y, { align: 'right', bold: bold ?? false });
    }
    s.y += line;
  }
}
