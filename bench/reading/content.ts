import { dec, roundTo, sum, zero, type Decimal } from '@ledgerline/core/money';
import type { seeded } from '@ledgerline/documents/random';
import { wordings, type Language } from './labels.ts';
import { buyers, countries, firsts, seconds } from './world.ts';

export type Random = ReturnType<typeof seeded>;
export interface TruthLine {
  code: string | null;
  description: string;
  quantity: string | null;
  unit: string | null;
  unitPrice: string | null;
  discountPercent: string | null;
  taxRate: string | null;
  amount: string;
  section: number;
}
export interface Content {
  language: Language;
  currency: string;
  kind: 'invoice' | 'credit-note';
  supplier: { name: string; street: string; town: string; taxId: string | null; iban: string; bic: string; email: string; phone: string };
  buyer: { name: string; street: string; town: string };
  number: string;
  issueDate: string;
  dueDate: string | null;
  termDays: number | null;
  showDue: boolean;
  order: string | null;
  customer: string;
  delivery: string;
  deliveryDate: string;
  orderDate: string;
  pricesIncludeTax: boolean;
  lines: TruthLine[];
  charges: { kind: 'carriage' | 'rebate'; amount: string }[];
  taxes: { rate: string; net: string; tax: string }[];
  net: string;
  tax: string;
  gross: string;
  deposit: string | null;
}

export const chance = (r: Random, share: number): boolean => r.next() < share;
const addDays = (iso: string, days: number): string =>
  new Date(Date.parse(`${iso}T00:00:00Z`) + days * 86400000).toISOString().slice(0, 10);

/** An IBAN with right check digits (ISO 13616, mod 97) of a bank code that does not exist. */
function iban(r: Random, country: string): string {
  const digits9 = () => String(r.int(100000000, 999999999));
  const number = (length: number) => `${digits9()}${digits9()}${digits9()}`.slice(0, length);
  const body =
    {
      GB: `ZZZZ${number(14)}`,
      NL: `ZZZZ${number(10)}`,
      DE: number(18),
      FR: number(23),
      ES: number(20),
      IT: `X${number(22)}`,
      SE: number(20),
    }[country] ?? number(18);
  const digits = [...`${body}${country}00`].map((c) => (/[A-Z]/.test(c) ? String(c.charCodeAt(0) - 55) : c)).join('');
  const rest = [...digits].reduce((m, d) => (m * 10 + Number(d)) % 97, 0);
  return `${country}${String(98 - rest).padStart(2, '0')}${body}`;
}

function quantityOf(r: Random, whole: boolean): string {
  if (whole || chance(r, 0.7)) return String(chance(r, 0.1) ? r.int(100, 1500) : r.int(1, 40));
  return (r.int(1, 400) / (chance(r, 0.5) ? 4 : 10)).toFixed(chance(r, 0.5) ? 2 : 1);
}

/** A made-up document's content, with sums that hold to the minor unit. */
export function contentOf(r: Random): Content {
  const language: Language = chance(r, 0.4) ? 'en' : r.pick(['de', 'fr', 'nl', 'es', 'it', 'sv'] as const);
  const land = countries[language],
    words = wordings[language];
  const currency = r.pick(land.currency);
  const places = currency === 'JPY' ? 0 : 2;
  const show = (d: Decimal) => d.toFixed(places);
  const first = r.pick(firsts);
  const name = `${first} ${r.pick(seconds)} ${r.pick(land.forms)}`;
  const issueDate = addDays('2025-01-06', r.int(0, 660));
  const termDays = chance(r, 0.75) ? r.pick([7, 10, 14, 21, 30, 30, 30, 45, 60]) : null;
  const kind = chance(r, 0.1) ? ('credit-note' as const) : ('invoice' as const);
  const showDue = kind === 'invoice' && chance(r, 0.6);
  const untaxed = chance(r, 0.05);
  const mixed = !untaxed && chance(r, 0.3);
  const pricesIncludeTax = !untaxed && !mixed && chance(r, 0.08);
  const rates = untaxed ? ['0'] : mixed ? land.rates.slice(0, r.int(2, 3)) : [land.rates[0]!];
  const noPrice = chance(r, 0.06),
    discounts = !noPrice && chance(r, 0.2),
    wholeQuantities = chance(r, 0.5),
    finePrice = chance(r, 0.08);
  const count = chance(r, 0.08) ? r.int(25, 70) : chance(r, 0.1) ? 1 : r.int(2, 14);
  const codes = r.pick([
    () => `${String.fromCharCode(65 + r.int(0, 25))}${String.fromCharCode(65 + r.int(0, 25))}-${r.int(100, 9999)}`,
    () => String(r.int(10000, 999999)),
    () => `${r.int(10, 99)}.${r.int(100, 999)}`,
    () => `${first.slice(0, 3).toUpperCase()}${r.int(100, 999)}${chance(r, 0.3) ? 'B' : ''}`,
  ]);
  const lines: TruthLine[] = Array.from({ length: count }, (_, i) => {
    const quantity = quantityOf(r, wholeQuantities);
    const price =
      places === 0
        ? String(r.int(50, 90000))
        : finePrice
          ? (r.int(100, 90000) / 10000).toFixed(4)
          : (chance(r, 0.15) ? r.int(10000, 250000) / 100 : r.int(25, 9900) / 100).toFixed(2);
    const discount = discounts && chance(r, 0.5) ? String(r.pick([5, 10, 12.5, 15, 20])) : null;
    const amount = roundTo(
      dec(quantity)
        .times(price)
        .times(dec(100).minus(discount ?? 0))
        .div(100),
      currency,
    );
    const size = chance(r, 0.3) ? ` ${r.int(2, 90)} ${r.pick(['mm', 'cm', 'l', 'm'])}` : '';
    return {
      code: codes(),
      description: `${r.pick(words.items)}${size}`,
      quantity: noPrice && chance(r, 0.2) ? null : quantity,
      unit: r.pick(words.units),
      unitPrice: noPrice ? null : price,
      discountPercent: discount,
      taxRate: rates.length > 1 ? r.pick(rates) : rates[0]!,
      amount: show(amount),
      section: Math.floor(i / 4),
    };
  });
  const goods = sum(lines.map((l) => dec(l.amount)));
  const charges: Content['charges'] = [];
  if (chance(r, 0.25)) charges.push({ kind: 'carriage', amount: show(dec(r.int(500, 9500)).div(places ? 100 : 1)) });
  if (!mixed && chance(r, 0.12))
    charges.push({
      kind: 'rebate',
      amount: show(
        goods
          .times(r.pick([2, 5, 10]))
          .div(100)
          .negated(),
      ),
    });
  const charged = sum(charges.map((c) => dec(c.amount)));
  const taxes = rates
    .filter((rate) => lines.some((l) => l.taxRate === rate) || rate === rates[0])
    .map((rate) => {
      const base = sum(lines.filter((l) => l.taxRate === rate).map((l) => dec(l.amount))).plus(rate === rates[0] ? charged : zero);
      const tax = roundTo(pricesIncludeTax ? base.times(rate).div(dec(100).plus(rate)) : base.times(rate).div(100), currency);
      return { rate, net: show(pricesIncludeTax ? base.minus(tax) : base), tax: show(tax) };
    });
  const net = sum(taxes.map((t) => dec(t.net))),
    tax = sum(taxes.map((t) => dec(t.tax)));
  const gross = net.plus(tax);
  const order = chance(r, 0.7)
    ? r.pick([
        () => `PO-${r.int(1000, 9999)}`,
        () => String(r.int(4500000000, 4500999999)),
        () => `${r.int(2025, 2026)}/${r.int(100, 999)}`,
        () => `MBG${r.int(1000, 9999)}`,
        () => `PO ${r.int(10000, 99999)}`,
      ])()
    : null;
  const number = r.pick([
    () => String(r.int(10000, 9999999)),
    () => `INV-${r.int(1000, 99999)}`,
    () => `${issueDate.slice(0, 4)}-${String(r.int(1, 9999)).padStart(4, '0')}`,
    () => `${first.slice(0, 2).toUpperCase()}${r.int(10000, 99999)}`,
    () => `${issueDate.slice(2, 4)}/${r.int(100, 9999)}`,
    () => `RE${r.int(100000, 999999)}`,
    () => `F.${r.int(1000, 9999)}`,
  ])();
  return {
    language,
    currency,
    kind,
    buyer: r.pick(buyers),
    supplier: {
      name,
      street: r.pick(land.streets),
      town: r.pick(land.towns),
      taxId: untaxed && chance(r, 0.5) ? null : land.tax(r),
      iban: iban(r, land.prefix),
      bic: `ZZ${first.slice(0, 2).toUpperCase()}${land.prefix}2X`,
      email: `accounts@${first.toLowerCase()}.example`,
      phone: `0${r.int(100, 999)} 55${r.int(10, 99)} ${r.int(100, 999)}`,
    },
    number,
    issueDate,
    termDays,
    showDue,
    dueDate:
      kind === 'credit-note'
        ? null
        : showDue
          ? addDays(issueDate, termDays ?? 30)
          : termDays !== null
            ? addDays(issueDate, termDays)
            : null,
    order,
    customer: String(r.int(10000, 99999)),
    delivery: `${r.pick(['DN', 'L', 'WS', ''])}${r.int(10000, 999999)}`,
    deliveryDate: addDays(issueDate, -r.int(1, 9)),
    orderDate: addDays(issueDate, -r.int(10, 40)),
    pricesIncludeTax,
    lines,
    charges,
    taxes,
    net: show(net),
    tax: show(tax),
    gross: show(gross),
    deposit: kind === 'invoice' && chance(r, 0.06) ? show(roundTo(gross.times('0.25'), currency)) : null,
  };
}
