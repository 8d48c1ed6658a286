import { chance, type Content, type Random } from '../content.ts';
import { printDate, printNumber } from '../look.ts';
import type { Sheet } from '../sheet.ts';
import { people, sayings, trades, word } from './words.ts';

/** How the facts of the head are printed. */
export const headStyles = ['label over', 'label under', 'label left', 'label far', 'sentence', 'title', 'bare', 'strip', 'side'] as const;
export type HeadStyle = (typeof headStyles)[number];

/** Order numbers as buyers write them. */
const orderOf = (r: Random): string =>
  r.pick([
    () => `${r.pick(['PS', 'CT', 'SW', 'MBG', 'KEW', 'GH'])}-${r.pick(['LIME', 'GAS', 'ROOF', 'SEED', 'PALM'])}-${r.int(2, 30)}`,
    () => `${r.pick(['T', 'G', 'N'])}/${r.int(100, 9999)}`,
    () => `${r.int(20, 29)}/${r.pick(['W', 'G', 'S'])}/0${r.int(100, 999)}`,
    () => `0${r.int(100, 999)}`,
    () => String(r.int(1000, 99999)),
    () => `${r.pick(['HGW', 'MNT'])}-BATCH-26/${r.int(1, 12)}`,
    () => `PO ${r.int(10000, 99999)}`,
    () => `PO-${r.int(1000, 9999)}`,
    () => `45000${r.int(10000, 99999)}`,
    () => `${r.pick(['Lawn', 'House', 'Bed'])} ${r.int(2, 19)}`,
    () => `COM/26/${r.int(100, 999)}`,
  ])();

/** A firm's name without a legal form, as trades and institutions have it. */
const bareName = (r: Random): string =>
  r.pick([
    () => `${r.pick(['Jos.', 'Wm', 'A. & M.', 'H.', 'Geo.'])} ${r.pick(['Hebblewick', 'Tarrowby', 'Cobbold', 'Fennimore', 'Askwith'])}`,
    () => `${r.pick(['Crust', 'Anvil', 'Thistle', 'Bell', 'Otter'])} and ${r.pick(['Ember', 'Oak', 'Fern', 'Stone'])} ${r.pick(trades)}`,
    () => `University of ${r.pick(['Wrenford', 'Aldermere', 'Castlebeck'])}`,
    () => `${r.pick(['Pikehall', 'Saltby', 'Long Marton', 'Dunsop'])} ${r.pick(trades)}`,
    () => `The ${r.pick(['Pikehall', 'Saltby', 'Dunsop'])} ${r.pick(trades)} Company`,
    () =>
      `${r.pick(['Brandt', 'Lindqvist', 'Moreau', 'Ferrante', 'Kowalczyk'])} & ${r.pick(['Sohn', 'Zonen', 'Fils', 'figli', 'synowie'])}`,
  ])();

/** A content whose supplier has no legal form to be told by, one time in three, and an order number of a shape of its own. */
export const namesOf = (c: Content, r: Random): Content => ({
  ...c,
  supplier: chance(r, 0.35) ? { ...c.supplier, name: bareName(r) } : c.supplier,
  order: c.order && chance(r, 0.7) ? orderOf(r) : c.order,
});

/** The letterhead: the name in one row or two, whole or the word of a logo, with a saying below it that is no part of it. */
function drawLetterhead(s: Sheet, c: Content, r: Random): number {
  const { look } = s,
    line = look.size * 1.35;
  const words = c.supplier.name.split(' ');
  const short = words.slice(0, 2).join(' '),
    whole = chance(r, 0.5);
  const logo = whole ? c.supplier.name : chance(r, 0.4) ? short.toUpperCase() : short;
  const x = chance(r, 0.6) ? s.left : s.width * 0.6,
    size = look.size + r.int(0, 10),
    bold = chance(r, 0.6);
  let y = 50;
  if (whole && words.length > 2 && chance(r, 0.3)) {
    const half = Math.ceil(words.length / 2);
    s.text(words.slice(0, half).join(' '), x, y, { size, bold });
    s.text(words.slice(half).join(' '), x, (y += size * 1.2), { size, bold });
  } else s.text(chance(r, 0.2) ? logo.toUpperCase() : logo, x, y, { size, bold });
  y += 4 + line;
  if (chance(r, 0.5)) {
    s.text(r.pick(sayings), x, y, { size: chance(r, 0.3) ? size : look.size - 1, bold: chance(r, 0.2) });
    y += line;
  }
  if (chance(r, 0.25)) s.text(`${c.supplier.name}, ${c.supplier.street}, ${c.supplier.town}, 01632 960 ${r.int(100, 999)}`, x, (y += line));
  else if (chance(r, 0.6)) s.text(`${c.supplier.street}, ${c.supplier.town}`, x, (y += line));
  if (chance(r, 0.4)) s.text(c.supplier.email, x, (y += line));
  return y;
}

/** The facts as labels with values; of the order's the label may be that of several things. */
function factsOf(c: Content, r: Random, day: (iso: string) => string): { own: string; facts: [string, string][] } {
  const own = word(r, 'number');
  const facts: [string, string][] = [
    [own, c.number],
    [word(r, 'date'), day(c.issueDate)],
  ];
  if (c.dueDate) facts.push([word(r, 'due'), day(c.dueDate)]);
  if (c.order) facts.push([word(r, 'order'), c.order]);
  for (const more of [c.customer, c.delivery]) if (chance(r, 0.6)) facts.push([word(r, 'other'), more]);
  if (chance(r, 0.3)) facts.push([word(r, 'otherDate'), day(c.deliveryDate)]);
  if (chance(r, 0.5)) facts.sort(() => r.next() - 0.5);
  return { own, facts };
}

export function drawHead(s: Sheet, c: Content, r: Random, head: HeadStyle, box: boolean): void {
  const { look } = s,
    line = look.size * 1.35,
    day = (iso: string) => printDate(iso, look);
  const title = look.labels[c.kind === 'credit-note' ? 'creditTitle' : 'title']!;
  const { own, facts } = factsOf(c, r, day);
  const y = drawLetterhead(s, c, r) + 22;
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
  } else if (head === 'strip') {
    // One row over the page, label and value beside each other.
    const top = Math.max(b, f) + 14,
      step = (s.right - s.left) / Math.max(4, facts.length);
    for (const [i, [label, value]] of facts.entries()) s.text(`${label} ${value}`, s.left + i * step, top, { size: look.size - 1 });
    s.y = top + line * 2;
  } else if (head === 'side') {
    // Each label over its value, one under the other.
    for (const [label, value] of facts) {
      s.text(label, factX, f, { size: look.size - 1 });
      s.text(value, factX, f + line * 0.95, { bold: chance(r, 0.4) });
      f += line * 2.3;
    }
    s.y = Math.max(b, f) + 16;
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
  if (box) drawBox(s, c, r, line);
  drawFoot(s, c, r, line);
}

function drawBox(s: Sheet, c: Content, r: Random, line: number): void {
  for (const [label, value] of [
    [word(r, 'net'), c.net],
    [word(r, 'tax'), c.tax],
    [word(r, 'gross'), c.gross],
  ] as const) {
    s.text(label, s.left, s.y);
    s.text(printNumber(value, s.look), s.left + 190, s.y, { align: 'right' });
    s.y += line;
  }
  s.y += 8;
}

function drawFoot(s: Sheet, c: Content, r: Random, line: number): void {
  const foot = s.height - 40,
    size = s.look.size - 1;
  s.text(`${c.supplier.name}${r.pick([', ', ' · ', ' – ', ' '])}${c.supplier.street}, ${c.supplier.town}`, s.left, foot, { size });
  s.text(
    `${c.supplier.taxId ? `${word(r, 'tax')} ${c.supplier.taxId} · ` : ''}IBAN ${c.supplier.iban.replace(/(.{4})/g, '$1 ').trim()}`,
    s.left,
    foot + line,
    { size },
  );
}
