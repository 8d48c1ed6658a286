import { and, desc, eq, inArray, isNotNull } from 'drizzle-orm';
import { v7 } from 'uuid';
import { codingOf, type Coding } from '@ledgerline/core/bills';
import { addDays } from '@ledgerline/core/dates';
import { orderNumber } from '@ledgerline/core/matching';
import { dec } from '@ledgerline/core/money';
import type { Invoice } from '@ledgerline/documents/invoice';
import { suppliers, type DemoSupplier } from '@ledgerline/documents/suppliers';
import type { Executor } from '@ledgerline/server/db/client';
import { bill, billLine, goodsReceipt, lineMatch, orderLine, purchaseOrder, receiptLine } from '@ledgerline/server/db/schema/index';
import { firstInvoices } from './invoices.ts';
import type { Master } from './load.ts';

interface Line {
  code: string | null;
  text: string;
  quantity: string;
  unit: string | null;
  price: string;
  coding: Partial<Coding>;
  /** What came of it; null: it is billed without a receipt. */
  came: string | null;
}
interface Order {
  number: string;
  supplier: string;
  companyId: string;
  day: string;
  currency: string;
  note?: string | null;
  active?: boolean;
  lines: Line[];
}

/** What one of something weighs and takes up, where its name says so: "Compost, 80 l" is 0.08 m³ of half a kilo a litre. */
function heft(text: string): { weight: string | null; volume: string | null } {
  const litres = /(\d+) l\b/.exec(text)?.[1],
    kilos = /(\d+) kg\b/.exec(text)?.[1];
  if (litres) return { weight: dec(litres).div(2).toFixed(), volume: dec(litres).div(1000).toFixed() };
  return { weight: kilos ?? null, volume: kilos ? dec(kilos).div(1500).toDecimalPlaces(4).toFixed() : null };
}

/** Writes an order with one receipt of what came. Gives its lines' ids. */
async function write(db: Executor, master: Master, order: Order, receivedOn: string): Promise<string[]> {
  const { number, companyId, day: orderDate, currency, note = null, active = true } = order;
  const [made] = await db
    .insert(purchaseOrder)
    .values({
      companyId,
      number,
      plainNumber: orderNumber(number),
      supplierId: master.supplier(order.supplier),
      orderDate,
      currency,
      note,
      active,
    }) // prettier-ignore
    .returning();
  const ids = order.lines.map(() => v7());
  await db.insert(orderLine).values(
    order.lines.map(({ code, text, quantity, unit, price, coding, came }, position) => ({
      id: ids[position]!,
      companyId,
      orderId: made!.id,
      position,
      code,
      description: text,
      quantity,
      unit,
      unitPrice: dec(price).toFixed(),
      ...heft(text),
      needsReceipt: came !== null,
      ...codingOf(coding),
    })),
  );
  const came = order.lines.flatMap((l, i) => (l.came !== null && !dec(l.came).isZero() ? [{ id: ids[i]!, quantity: l.came }] : []));
  if (came.length > 0) {
    const [receipt] = await db
      .insert(goodsReceipt)
      .values({ companyId, orderId: made!.id, number: `DN-${number.slice(3)}`, receivedOn, personId: master.person('Tobias Fenn') })
      .returning();
    await db.insert(receiptLine).values(came.map(({ id, quantity }) => ({ companyId, receiptId: receipt!.id, orderLineId: id, quantity })));
  }
  return ids;
}

/**
 * About sixty orders: those of the bills that are about to come (most exactly so; some dearer, short, not come yet, under another
 * number), those of bills of the last months, and some that no bill has come of yet.
 */
export async function writeOrders(db: Executor, master: Master, today: string): Promise<void> {
  await ofFirstBills(db, master, today);
  await ofPostedBills(db, master);
  await notBilled(db, master, today);
}

/** What a bill is not as ordered in, by its place among those that come first. */
const unlike: Record<number, (line: Line, place: number) => Line> = {
  // A price that was lower.
  2: (l, i) => (i === 0 ? { ...l, price: dec(l.price).times('0.95').toDecimalPlaces(2).toFixed() } : l),
  // Less was ordered.
  6: (l, i) => (i === 0 ? { ...l, quantity: half(l.quantity), came: half(l.quantity) } : l),
  // A part has come.
  8: (l, i) => (i === 0 ? { ...l, came: half(l.quantity) } : l),
  // Nothing has come.
  11: (l) => ({ ...l, came: '0' }),
};
const half = (n: string): string => {
  const part = dec(n).div(2).floor();
  return part.lte(0) ? '0' : part.toFixed();
};

async function ofFirstBills(db: Executor, master: Master, today: string): Promise<void> {
  const { mails, scans, uploaded, doubtful, shapes } = firstInvoices(today);
  const all = [
    ...mails.flat(),
    ...scans,
    ...uploaded,
    shapes.both,
    shapes.page,
    ...shapes.pile,
    shapes.photo,
    shapes.carried,
    doubtful[1]!,
  ];
  const taken = new Set<string>();
  for (const [n, invoice] of all.filter((i) => i.kind === 'invoice' && i.purchaseOrder).entries()) {
    if (taken.has(invoice.purchaseOrder!)) continue;
    taken.add(invoice.purchaseOrder!);
    const own = master.company(invoice.supplier.company);
    const lines = invoice.lines.map((l): Line => ({
      code: l.code,
      text: l.text,
      quantity: l.quantity,
      unit: l.unit,
      price: l.price,
      coding: codingFor(master, invoice.supplier, l),
      came: l.quantity,
    }));
    const change = unlike[n];
    await write(
      db,
      master,
      {
        // One bill names an order that is not there: this is what it means.
        number: n === 4 ? `PO-${Number(invoice.purchaseOrder!.slice(3)) + 5000}` : invoice.purchaseOrder!,
        supplier: invoice.supplier.name,
        companyId: own.id,
        day: addDays(invoice.issueDate, -(9 + (n % 12))),
        currency: invoice.currency,
        lines: change ? lines.map(change).filter((l) => dec(l.quantity).gt(0)) : lines,
      },
      addDays(invoice.issueDate, -1),
    );
  }
}

const codingFor = (master: Master, supplier: DemoSupplier, l: Pick<Invoice['lines'][number], 'account' | 'rate'>): Partial<Coding> => {
  const own = master.company(supplier.company);
  return {
    accountId: own.account(l.account),
    costCentreId: own.centre(supplier.centre),
    taxCodeId: own.codeAt(l.rate).id,
    ...own.dimensions(supplier.centre),
  };
};

/** The orders of the last twenty-four posted bills that name one: received, billed, closed. */
async function ofPostedBills(db: Executor, master: Master): Promise<void> {
  const bills = await db
    .select()
    .from(bill)
    .where(and(eq(bill.kind, 'invoice'), inArray(bill.stage, ['posted', 'paid']), isNotNull(bill.purchaseOrder)))
    .orderBy(desc(bill.issueDate), desc(bill.id))
    .limit(24);
  const taken = new Set((await db.select({ number: purchaseOrder.number }).from(purchaseOrder)).map((o) => o.number));
  for (const one of bills.filter((b) => !taken.has(b.purchaseOrder!))) {
    taken.add(one.purchaseOrder!);
    const lines = (await db.select().from(billLine).where(eq(billLine.billId, one.id)).orderBy(billLine.position)).filter(
      (l) => l.kind === 'line' && l.quantity !== null && l.unitPrice !== null,
    );
    if (lines.length === 0) continue;
    const order = {
      number: one.purchaseOrder!,
      supplier: one.supplierName!,
      companyId: one.companyId,
      day: addDays(one.issueDate!, -14),
      currency: one.currency,
      active: false,
      lines: lines.map((l) => ({
        code: l.code,
        text: l.description,
        quantity: l.quantity!,
        unit: l.unit,
        price: l.unitPrice!,
        coding: codingOf(l),
        came: l.quantity,
      })),
    };
    const ids = await write(db, master, order, addDays(one.issueDate!, -2));
    await db.insert(lineMatch).values(
      lines.map((l, i) => ({
        companyId: one.companyId,
        billId: one.id,
        billLineId: l.id,
        orderLineId: ids[i]!,
        quantity: l.quantity!,
        why: 'same code, same price, same quantity',
        how: 'found',
      })),
    );
  }
}

/** Orders of the last weeks that no bill has come of: of every second supplier, some received, some in part. */
async function notBilled(db: Executor, master: Master, today: string): Promise<void> {
  for (const [i, s] of suppliers.filter((_, n) => n % 2 === 0).entries()) {
    const lines = s.items.slice(0, 4).map((item, position): Line => {
      const quantity = String(2 + ((i + 3 * position) % 9));
      return {
        code: item.code,
        text: item.text,
        quantity,
        unit: item.unit,
        // What is agreed for the next season: no bill of today costs this.
        price: dec(item.price).times('1.02').toDecimalPlaces(3).toFixed(),
        coding: codingFor(master, s, item),
        came: position === 3 ? null : i % 3 === 0 ? quantity : i % 3 === 1 ? half(quantity) : '0',
      };
    });
    const day = addDays(today, -(7 + ((i * 5) % 40)));
    const own = master.company(s.company);
    await write(
      db,
      master,
      { number: `PO-${1001 + i}`, supplier: s.name, companyId: own.id, day, currency: s.currency, note: i % 4 === 0 ? 'Call before delivery' : null, lines }, // prettier-ignore
      addDays(day, 5),
    );
  }
}
