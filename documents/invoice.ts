import { dueDate, parseTerms } from '@ledgerline/core/terms';
import { dec, roundTo, sum, zero } from '@ledgerline/core/money';
import { companies } from './companies.ts';
import type { seeded } from './random.ts';
import type { DemoSupplier } from './suppliers.ts';

export interface InvoiceLine {
  code: string | null;
  text: string;
  unit: string | null;
  quantity: string;
  price: string;
  rate: string;
  amount: string;
  account: string;
}
/** An invoice as its supplier wrote it: what a document prints and what a reading must find. */
export interface Invoice {
  supplier: DemoSupplier;
  buyer: { name: string; address: string[] };
  kind: 'invoice' | 'credit-note';
  number: string;
  issueDate: string;
  dueDate: string;
  terms: string;
  purchaseOrder: string | null;
  currency: string;
  lines: InvoiceLine[];
  charge: { label: string; amount: string } | null;
  net: string;
  taxes: { rate: string; net: string; tax: string }[];
  tax: string;
  gross: string;
}

export interface Wish {
  number: string;
  issueDate: string;
  lines?: number;
  kind?: Invoice['kind'];
  charge?: boolean;
  purchaseOrder?: string | null;
}

/** Makes up an invoice of a supplier: quantities at random, everything else computed. */
export function makeInvoice(supplier: DemoSupplier, random: ReturnType<typeof seeded>, wish: Wish): Invoice {
  const buyer = companies.find((c) => c.code === supplier.company)!;
  const count = Math.max(1, Math.min(wish.lines ?? random.int(1, supplier.items.length), 400));
  const { currency } = supplier;
  const places = currency === 'JPY' ? 0 : 2;
  const lines = Array.from({ length: count }, (_, i): InvoiceLine => {
    const item = supplier.items[i % supplier.items.length]!;
    const cheap = dec(item.price).lt(1);
    const quantity = String(cheap ? random.int(2, 60) * 100 : random.int(1, 14));
    return {
      code: item.code,
      text: item.text,
      unit: item.unit,
      quantity,
      price: item.price,
      rate: item.rate,
      amount: roundTo(dec(quantity).times(item.price), currency).toFixed(places),
      account: item.account,
    };
  });
  const charge = wish.charge
    ? { label: { NL: 'Vracht', FR: 'Port' }[supplier.country] ?? 'Carriage', amount: dec(random.int(8, 60)).toFixed(places) }
    : null;
  const groups = new Map<string, typeof zero>();
  for (const line of lines) groups.set(line.rate, (groups.get(line.rate) ?? zero).plus(line.amount));
  const main = [...groups].sort((a, b) => b[1].comparedTo(a[1]))[0]![0];
  if (charge) groups.set(main, groups.get(main)!.plus(charge.amount));
  const taxes = [...groups]
    .sort((a, b) => Number(b[0]) - Number(a[0]))
    .map(([rate, net]) => ({ rate, net: net.toFixed(places), tax: roundTo(net.times(rate).div(100), currency).toFixed(places) }));
  const net = sum(taxes.map((t) => dec(t.net))),
    tax = sum(taxes.map((t) => dec(t.tax)));
  return {
    supplier,
    buyer: { name: buyer.name, address: buyer.address },
    kind: wish.kind ?? 'invoice',
    number: wish.number,
    issueDate: wish.issueDate,
    dueDate: dueDate(wish.issueDate, parseTerms(supplier.terms)!),
    terms: supplier.terms,
    purchaseOrder: wish.purchaseOrder === undefined ? `PO-${random.int(4000, 4999)}` : wish.purchaseOrder,
    currency,
    lines,
    charge,
    net: net.toFixed(places),
    taxes,
    tax: tax.toFixed(places),
    gross: net.plus(tax).toFixed(places),
  };
}
