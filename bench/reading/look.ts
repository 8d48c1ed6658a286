import { chance, type Content, type Random } from './content.ts';
import { wordings, type Wording } from './labels.ts';

export type ColumnKind = 'position' | 'code' | 'description' | 'quantity' | 'unit' | 'price' | 'discount' | 'rate' | 'amount';
export type DateStyle = 'd/m/y' | 'd.m.y' | 'd-m-y' | 'm/d/y' | 'iso' | 'long' | 'short' | 'd/m/yy';

/** How one document looks: every choice that a designer, an office or a producing program makes. */
export interface Look {
  words: Wording;
  paper: [number, number];
  font: 'sans' | 'serif' | 'mono';
  size: number;
  margin: number;
  numbers: '1,234.50' | '1.234,50' | '1 234,50' | "1'234.50" | '1234.50' | '1234,50';
  dates: DateStyle;
  runs: 'cell' | 'word' | 'letter';
  capitals: boolean;
  colon: string;
  letterhead: 'left' | 'right' | 'centre' | 'foot';
  nameSize: number;
  title: 'top' | 'beside' | 'above facts';
  facts: 'right' | 'left' | 'band' | 'grid' | 'lines';
  buyer: 'left' | 'right';
  buyerLabel: boolean;
  delivery: boolean;
  columns: { kind: ColumnKind; title: string; right: boolean }[];
  heading: boolean;
  rows: 'plain' | 'below' | 'inline';
  wrap: boolean;
  gap: number;
  sections: boolean;
  comments: boolean;
  subtotals: boolean;
  carried: boolean;
  repeat: boolean;
  unitInQuantity: boolean;
  sign: 'code' | 'sentence' | 'total' | 'all';
  taxBy: 'rows' | 'codes' | 'none';
  totals: 'right' | 'left' | 'across';
  leader: boolean;
  breakdown: boolean;
  slip: boolean;
  footer: boolean;
  terms: boolean;
  minus: 'before' | 'after';
  labels: { [K in keyof Wording]?: string };
}

const styles: Record<string, Look['numbers'][]> = {
  en: ['1,234.50', '1,234.50', '1234.50'],
  de: ['1.234,50', '1.234,50', '1234,50'],
  fr: ['1 234,50', '1234,50'],
  nl: ['1.234,50', '1234,50'],
  es: ['1.234,50'],
  it: ['1.234,50'],
  sv: ['1 234,50', '1234,50'],
};
const dateStyles: Record<string, DateStyle[]> = {
  en: ['d/m/y', 'long', 'short', 'd/m/yy', 'iso', 'd-m-y'],
  de: ['d.m.y', 'd.m.y', 'long'],
  fr: ['d/m/y', 'long'],
  nl: ['d-m-y', 'long'],
  es: ['d/m/y', 'long'],
  it: ['d/m/y', 'd.m.y'],
  sv: ['iso', 'd.m.y'],
};

/** Chooses a look for a document at random. */
export function lookOf(r: Random, c: Content): Look {
  const words = wordings[c.language];
  const labels: Look['labels'] = {};
  for (const [key, value] of Object.entries(words) as [keyof Wording, unknown][])
    if (Array.isArray(value) && !['months', 'items', 'comments', 'sections', 'units'].includes(key))
      labels[key] = r.pick(value as string[]);
  const american = c.currency === 'USD';
  const has = (kind: keyof Content['lines'][number]) => c.lines.some((l) => l[kind] !== null);
  const mixed = c.taxes.length > 1;
  const taxBy = mixed ? r.pick(['rows', 'rows', 'codes', 'none'] as const) : chance(r, 0.3) ? 'rows' : 'none';
  const right = chance(r, 0.85);
  const column = (kind: ColumnKind, title: string | undefined, aligned: boolean) => ({ kind, title: title ?? '', right: aligned });
  const parts = {
    position: column('position', labels.position, chance(r, 0.3)),
    code: column('code', labels.code, false),
    description: column('description', labels.description, false),
    quantity: column('quantity', labels.quantity, right),
    unit: column('unit', labels.unit, false),
    price: column('price', labels.price, right),
    discount: column('discount', labels.discount, right),
    rate: column('rate', labels.rate, chance(r, 0.5)),
    amount: column('amount', c.pricesIncludeTax && chance(r, 0.6) ? labels.grossAmount : labels.amount, true),
  };
  const order: ColumnKind[] = r.pick([
    ['position', 'code', 'description', 'quantity', 'unit', 'price', 'discount', 'rate', 'amount'],
    ['code', 'description', 'quantity', 'unit', 'price', 'discount', 'amount', 'rate'],
    ['quantity', 'unit', 'code', 'description', 'price', 'discount', 'rate', 'amount'],
    ['description', 'code', 'rate', 'quantity', 'unit', 'price', 'discount', 'amount'],
    ['position', 'description', 'price', 'quantity', 'discount', 'amount', 'rate'],
    ['quantity', 'description', 'rate', 'price', 'discount', 'amount'],
  ] as ColumnKind[][]);
  const withUnit = chance(r, 0.35),
    withCode = chance(r, 0.65);
  const sign = r.pick(['code', 'sentence', 'total', 'total', 'all'] as const);
  if (sign === 'code') {
    labels.total = `${labels.total} ${c.currency}`;
    labels.toPay = `${labels.toPay} ${c.currency}`;
  }
  const columns = order
    .filter((k) =>
      k === 'unit'
        ? withUnit
        : k === 'code'
          ? withCode
          : k === 'price'
            ? has('unitPrice')
            : k === 'discount'
              ? has('discountPercent')
              : k === 'rate'
                ? taxBy !== 'none'
                : true,
    )
    .map((k) => parts[k]);
  if (taxBy !== 'none' && !columns.some((col) => col.kind === 'rate')) columns.push(parts.rate);
  if (has('discountPercent') && !columns.some((col) => col.kind === 'discount')) columns.splice(-1, 0, parts.discount);
  const rows =
    chance(r, 0.1) && has('unitPrice') && !c.lines.some((l) => l.quantity === null) ? r.pick(['below', 'inline'] as const) : 'plain';
  return {
    words,
    labels,
    paper: american ? [612, 792] : chance(r, 0.05) ? [842, 595] : [595, 842],
    font: r.pick(['sans', 'sans', 'sans', 'serif', 'mono']),
    size: r.pick([8, 8.5, 9, 9.5, 10]),
    margin: r.pick([36, 42, 50, 56]),
    numbers: c.currency === 'CHF' ? "1'234.50" : r.pick(styles[c.language]!),
    dates: american ? r.pick(['m/d/y', 'long']) : r.pick(dateStyles[c.language]!),
    runs: r.pick(['cell', 'cell', 'cell', 'word', 'letter']),
    capitals: chance(r, 0.15),
    colon: r.pick(['', ':', ':', ' :']),
    letterhead: r.pick(['left', 'left', 'right', 'right', 'centre', 'foot']),
    nameSize: r.pick([11, 13, 16, 20]),
    title: r.pick(['top', 'beside', 'above facts']),
    facts: r.pick(['right', 'right', 'left', 'band', 'grid', 'lines']),
    buyer: r.pick(['left', 'left', 'right']),
    buyerLabel: chance(r, 0.7),
    delivery: chance(r, 0.25),
    columns,
    heading: chance(r, 0.96) || rows !== 'plain',
    rows,
    wrap: chance(r, 0.15),
    gap: r.pick([1.35, 1.5, 1.7, 2]),
    sections: rows === 'plain' && c.lines.length > 4 && chance(r, 0.12),
    comments: chance(r, 0.12),
    subtotals: chance(r, 0.6),
    carried: chance(r, 0.4),
    repeat: chance(r, 0.85),
    unitInQuantity: !withUnit && chance(r, 0.12),
    sign,
    taxBy,
    totals: r.pick(['right', 'right', 'right', 'left', 'across']),
    leader: chance(r, 0.05),
    breakdown: c.taxes.length > 1 || chance(r, 0.25),
    slip: chance(r, 0.12),
    footer: chance(r, 0.6),
    terms: c.termDays !== null,
    minus: chance(r, 0.85) ? 'before' : 'after',
  };
}

/** A decimal as the look's country prints it. */
export function printNumber(value: string, look: Pick<Look, 'numbers' | 'minus'>): string {
  const negative = value.startsWith('-');
  const [whole = '', fraction] = value.replace('-', '').split('.');
  const thousands = look.numbers.startsWith('1,')
    ? ','
    : look.numbers.startsWith('1.')
      ? '.'
      : look.numbers.startsWith('1 ')
        ? '\u00a0'
        : look.numbers.startsWith("1'")
          ? "'"
          : '';
  const decimal = look.numbers.at(-3)!;
  const text = whole.replace(/\B(?=(\d{3})+$)/g, thousands) + (fraction === undefined ? '' : decimal + fraction);
  return negative ? (look.minus === 'before' ? `-${text}` : `${text}-`) : text;
}

export function printDate(iso: string, look: Look): string {
  const [y, m, d] = iso.split('-') as [string, string, string];
  const month = look.words.months[Number(m) - 1]!;
  const german = look.words === wordings.de;
  return {
    'd/m/y': `${d}/${m}/${y}`,
    'd.m.y': `${d}.${m}.${y}`,
    'd-m-y': `${d}-${m}-${y}`,
    'm/d/y': `${m}/${d}/${y}`,
    iso,
    long: look.paper[0] === 612 ? `${month} ${Number(d)}, ${y}` : `${Number(d)}${german ? '.' : ''} ${month} ${y}`,
    short: `${d} ${month.slice(0, 3)} ${y}`,
    'd/m/yy': `${d}/${m}/${y.slice(2)}`,
  }[look.dates];
}
