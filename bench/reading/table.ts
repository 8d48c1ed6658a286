import { chance, type Content, type Random, type TruthLine } from './content.ts';
import { printNumber, type ColumnKind } from './look.ts';
import type { Sheet } from './sheet.ts';

interface Placed {
  kind: ColumnKind;
  title: string;
  right: boolean;
  x0: number;
  x1: number;
}

const shares: Record<ColumnKind, number> = {
  position: 5,
  code: 13,
  description: 38,
  quantity: 10,
  unit: 8,
  price: 12,
  discount: 9,
  rate: 8,
  amount: 15,
};

/** Columns side by side: each at least as wide as its heading and its widest value, the description takes what is left. */
function placed(s: Sheet, c: Content): Placed[] {
  const { look } = s,
    gap = 8;
  const need = (kind: ColumnKind, title: string): number =>
    Math.max(
      s.measure(look.capitals ? title.toUpperCase() : title, look.size - 0.5, true),
      ...(kind === 'description' ? [60] : c.lines.map((l, i) => s.measure(valueOf(s, c, l, kind, i)))),
    ) + gap;
  const least = look.columns.map((col) =>
    col.kind === 'description'
      ? need(col.kind, col.title)
      : Math.max(need(col.kind, col.title), ((s.right - s.left) * shares[col.kind]) / 130),
  );
  const spare = s.right - s.left - least.reduce((t, w) => t + w, 0);
  let x = s.left;
  return look.columns.map((col, i) => {
    const x0 = x;
    x += least[i]! + (col.kind === 'description' ? spare : 0);
    return { ...col, x0: x0 + 2, x1: x - 6 };
  });
}

function put(s: Sheet, c: Placed, text: string, style: { bold?: boolean; white?: boolean; size?: number } = {}): void {
  s.text(text, c.right ? c.x1 : c.x0, s.y, { ...style, align: c.right ? 'right' : 'left' });
}

function fit(s: Sheet, text: string, width: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(' ')) {
    const last = lines[lines.length - 1];
    if (last !== undefined && s.measure(`${last} ${word}`) <= width) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

function valueOf(s: Sheet, c: Content, line: TruthLine, kind: ColumnKind, index: number): string {
  const { look } = s;
  switch (kind) {
    case 'position':
      return String(index + 1);
    case 'code':
      return line.code ?? '';
    case 'description':
      return line.description;
    case 'quantity':
      return line.quantity === null
        ? ''
        : `${printNumber(line.quantity, { ...look, numbers: look.numbers })}${look.unitInQuantity ? ` ${line.unit}` : ''}`;
    case 'unit':
      return line.unit ?? '';
    case 'price':
      return line.unitPrice === null ? '' : printNumber(line.unitPrice, look);
    case 'discount':
      return line.discountPercent === null ? '' : `${printNumber(line.discountPercent, look)}%`;
    case 'rate':
      return look.taxBy === 'codes'
        ? 'ABCD'[c.taxes.findIndex((t) => t.rate === line.taxRate)]!
        : `${(line.taxRate ?? '0').replace('.', look.numbers.at(-3)!)}${look.labels.rate?.includes('%') ? '' : '%'}`;
    case 'amount':
      return printNumber(line.amount, look);
  }
}

function heading(s: Sheet, columns: Placed[]): void {
  if (!s.look.heading) return;
  for (const c of columns) put(s, c, s.look.capitals ? c.title.toUpperCase() : c.title, { bold: true, size: s.look.size - 0.5 });
  s.y += s.look.size * 1.9;
}

/** Draws the line table over as many pages as it takes. */
export function drawTable(s: Sheet, c: Content, r: Random): void {
  const { look } = s,
    columns = placed(s, c);
  const description = columns.find((x) => x.kind === 'description')!,
    amount = columns.find((x) => x.kind === 'amount')!;
  s.y += 10;
  heading(s, columns);
  let running = 0,
    section = 0;
  const exact = (n: number) => (n / 100).toFixed(c.currency === 'JPY' ? 0 : 2);
  for (const [index, line] of c.lines.entries()) {
    if (s.y > s.height - 96) {
      if (look.carried) {
        s.text(look.words.carried, description.x0, s.y);
        put(s, amount, printNumber(exact(running), look));
      }
      s.text(look.words.page(s.page, s.page + 1), s.right, s.height - 28, { size: 7, align: 'right' });
      s.nextPage();
      s.text(`${c.supplier.name}  ${c.number}`, s.left, 36, { size: 7.5 });
      s.y = 64;
      if (look.repeat) heading(s, columns);
      if (look.carried) {
        s.text(look.words.brought, description.x0, s.y);
        put(s, amount, printNumber(exact(running), look));
        s.y += look.size * look.gap;
      }
    }
    if (look.sections && index % 4 === 0) {
      s.text(look.words.sections[section++ % look.words.sections.length]!, s.left, s.y, { bold: true });
      s.y += look.size * look.gap;
    }
    row(s, c, line, index, columns, description);
    running += Math.round(Number(line.amount) * 100);
    if (look.comments && chance(r, 0.3)) {
      s.text(r.pick(look.words.comments), description.x0, s.y, { size: look.size - 1 });
      s.y += look.size * look.gap;
    }
    if (look.sections && look.subtotals && (index % 4 === 3 || index === c.lines.length - 1)) {
      const of = c.lines.slice(index - (index % 4), index + 1).reduce((t, l) => t + Math.round(Number(l.amount) * 100), 0);
      s.text(look.words.subtotal, description.x0, s.y, { bold: true });
      put(s, amount, printNumber(exact(of), look), { bold: true });
      s.y += look.size * look.gap * 1.2;
    }
  }
}

function row(s: Sheet, c: Content, line: TruthLine, index: number, columns: Placed[], description: Placed): void {
  const { look } = s,
    step = look.size * look.gap;
  if (look.rows !== 'plain') {
    const code = columns.find((x) => x.kind === 'code');
    if (look.rows === 'inline' && code) s.text(`${code.title}: ${line.code} ${description.title}: ${line.description}`, s.left, s.y);
    else {
      if (code) put(s, code, line.code ?? '');
      put(s, description, line.description);
    }
    s.y += look.size * 1.25;
    for (const x of columns) if (x.kind !== 'code' && x.kind !== 'description') put(s, x, valueOf(s, c, line, x.kind, index));
    s.y += step;
    return;
  }
  const long = look.wrap ? `${line.description}, ${look.words.comments[0]}` : line.description;
  const lines = fit(s, long, description.x1 - description.x0);
  line.description = long;
  for (const x of columns) if (x.kind !== 'description') put(s, x, valueOf(s, c, line, x.kind, index));
  for (const [i, part] of lines.entries()) {
    if (i > 0) s.y += look.size * 1.18;
    s.text(part, description.x0, s.y);
  }
  s.y += step;
}
