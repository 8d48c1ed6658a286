import { eq, inArray, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { addDays, monthOf, yearOf } from '@ledgerline/core/dates';
import { dec, roundTo } from '@ledgerline/core/money';
import { bearerOf, journalOf } from '@ledgerline/core/posting';
import type { Executor } from '@ledgerline/server/db/client';
import { bill, billLine, event, journalEntry, journalLine, journalTax, openItem, settlement } from '@ledgerline/server/db/schema/index';
import { makeInvoice, type Invoice } from '@ledgerline/documents/invoice';
import type { Master } from './load.ts';
import { rates } from './master.ts';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { prefix } from './invoices.ts';

interface Past {
  invoice: Invoice;
  entryDate: string;
  paidOn: string | null;
}

/** Two years of invoices by every supplier's rhythm, in order of posting. */
export function past(today: string): Past[] {
  const random = seeded(20261123);
  const all: Past[] = [];
  for (const [s, supplier] of suppliers.entries()) {
    let number = 10_000 + s * 211;
    const pace = supplier.every * 0.66;
    for (
      let day = addDays(today, -728 + random.int(0, supplier.every));
      day < addDays(today, -9);
      day = addDays(day, Math.max(3, Math.round(pace * (0.7 + random.next() * 0.6))))
    ) {
      number += random.int(1, 9);
      const kind = random.next() < 0.03 ? 'credit-note' : 'invoice';
      const invoice = makeInvoice(supplier, random, {
        number: `${prefix(supplier.name)}-${number}`,
        issueDate: day,
        kind,
        charge: random.next() < 0.2,
      });
      const entryDate = addDays(day, random.int(2, 8));
      const paidOn = addDays(invoice.dueDate, random.int(-3, 6));
      all.push({ invoice, entryDate, paidOn: kind === 'invoice' && paidOn < today ? paidOn : null });
    }
  }
  return all.sort((a, b) => (a.entryDate < b.entryDate ? -1 : 1));
}

/**
 * Writes about 1,500 posted bills with entries, open items and payments: through the same core and the same constraints and triggers
 * as real postings, many rows a statement.
 */
export async function writeHistory(db: Executor, master: Master, today: string): Promise<number> {
  const items = past(today);
  const bills: (typeof bill.$inferInsert)[] = [],
    lines: (typeof billLine.$inferInsert)[] = [],
    events: (typeof event.$inferInsert & { at: Date })[] = [];
  const entries: (typeof journalEntry.$inferInsert & { id: string })[] = [],
    entryLines: (typeof journalLine.$inferInsert)[] = [],
    taxes: (typeof journalTax.$inferInsert)[] = [],
    open: (typeof openItem.$inferInsert)[] = [],
    settled: (typeof settlement.$inferInsert)[] = [];
  for (const { invoice, entryDate, paidOn } of items) {
    const company = master.company(invoice.supplier.company);
    const companyId = company.id,
      supplierId = master.supplier(invoice.supplier.name),
      billId = v7();
    const at = (day: string, hour: number) => new Date(`${day}T${String(hour).padStart(2, '0')}:1${bills.length % 9}:00Z`);
    const rate = invoice.currency === company.baseCurrency ? '1' : String(rates[company.baseCurrency]![invoice.currency]);
    const own = [
      ...invoice.lines.map((l) => ({
        kind: 'line',
        code: l.code,
        description: l.text,
        quantity: l.quantity,
        unit: l.unit,
        unitPrice: l.price,
        taxRate: l.rate,
        amount: l.amount,
        account: l.account,
      })),
      ...(invoice.charge
        ? [
            {
              kind: 'charge',
              code: null,
              description: invoice.charge.label,
              quantity: null,
              unit: null,
              unitPrice: null,
              taxRate: invoice.taxes.find((t) => dec(t.net).gte(invoice.charge!.amount))!.rate,
              amount: invoice.charge.amount,
              account: '6300',
            },
          ]
        : []),
    ].map(({ account, ...l }, position) => ({
      ...l,
      id: v7(),
      companyId,
      billId,
      position,
      accountId: company.account(account),
      costCentreId: company.centre(invoice.supplier.centre),
      taxCodeId: company.codeAt(l.taxRate).id,
      ...company.dimensions(invoice.supplier.centre),
    }));
    const journal = journalOf({
      kind: invoice.kind,
      currency: invoice.currency,
      baseCurrency: company.baseCurrency,
      rate,
      tax: invoice.tax,
      gross: invoice.gross,
      pricesIncludeTax: false,
      supplierId,
      supplierName: invoice.supplier.name,
      invoiceNumber: invoice.number,
      payableAccountId: company.account('2100'),
      lines: own.map((l) => ({
        id: l.id,
        description: l.description,
        amount: l.amount,
        accountId: l.accountId,
        bearer: bearerOf(l),
        rule: company.codeAt(l.taxRate),
      })),
    });
    const clerk = master.person(bills.length % 3 ? 'Ines Okafor' : 'Tobias Fenn'),
      approver = master.person(invoice.supplier.company === 'MNT' ? 'Rufus Pell' : 'Marguerite Sable'),
      controller = master.person('Halina Voss');
    const received = at(invoice.issueDate, 9),
      posted = at(entryDate, 16);
    bills.push({
      id: billId,
      companyId,
      stage: paidOn ? 'paid' : 'posted',
      kind: invoice.kind,
      supplierId,
      supplierName: invoice.supplier.name,
      invoiceNumber: invoice.number,
      issueDate: invoice.issueDate,
      dueDate: invoice.dueDate,
      terms: invoice.terms,
      currency: invoice.currency,
      purchaseOrder: invoice.purchaseOrder,
      net: invoice.net,
      tax: invoice.tax,
      gross: invoice.gross,
      createdAt: received,
      sentBy: clerk,
      sentAt: received,
      approvedBy: approver,
      approvedAt: posted,
      postedAt: posted,
    });
    lines.push(...own);
    const act = (verb: string, when: Date, personId: string | null = null) =>
      events.push({ companyId, subjectType: 'bill', subjectId: billId, verb, personId, source: personId ? 'web' : 'email', at: when });
    act('arrived', received);
    act('coded', at(invoice.issueDate, 14), clerk);
    act('approved', at(entryDate, 11), approver);
    act('posted', posted, controller);
    const entryId = v7();
    entries.push({
      id: entryId,
      companyId,
      year: yearOf(entryDate),
      month: monthOf(entryDate),
      entryDate,
      sourceType: 'bill',
      sourceId: billId,
      description: `${invoice.supplier.name} ${invoice.kind === 'credit-note' ? 'credit note' : 'invoice'} ${invoice.number}`,
      currency: invoice.currency,
      rate,
      postedBy: controller,
      postedAt: posted,
    });
    taxes.push(...journal.taxes.map((tax) => ({ ...tax, companyId, entryId, entryDate })));
    entryLines.push(...journal.lines.map(({ bearer, ...l }, position) => ({ ...l, ...bearer, companyId, entryId, position })));
    const owed = v7();
    open.push({
      id: owed,
      companyId,
      supplierId,
      sourceType: 'bill',
      sourceId: billId,
      entryId,
      dueDate: invoice.dueDate,
      currency: invoice.currency,
      amount: journal.openAmount,
      baseAmount: journal.payable,
    });
    if (!paidOn) continue;
    const payment = v7(),
      back = v7(),
      base = roundTo(dec(invoice.gross).times(rate), company.baseCurrency).toFixed(),
      text = `Payment ${invoice.supplier.name} ${invoice.number}`;
    act('paid', at(paidOn, 12), controller);
    open.push({
      id: back,
      companyId,
      supplierId,
      sourceType: 'payment',
      sourceId: payment,
      entryId: payment,
      dueDate: paidOn,
      currency: invoice.currency,
      amount: dec(journal.openAmount).negated().toFixed(),
      baseAmount: dec(journal.payable).negated().toFixed(),
    });
    settled.push({ companyId, owedItemId: owed, backItemId: back, amount: journal.openAmount, personId: controller, at: at(paidOn, 12) });
    entries.push({
      id: payment,
      companyId,
      year: yearOf(paidOn),
      month: monthOf(paidOn),
      entryDate: paidOn,
      sourceType: 'payment',
      sourceId: payment,
      description: text,
      currency: invoice.currency,
      rate,
      postedBy: controller,
      postedAt: at(paidOn, 12),
    });
    entryLines.push(
      {
        companyId,
        entryId: payment,
        position: 0,
        accountId: company.account('2100'),
        supplierId,
        description: text,
        debit: base,
        credit: '0',
        currencyAmount: invoice.gross,
      },
      {
        companyId,
        entryId: payment,
        position: 1,
        accountId: company.account('1200'),
        description: text,
        debit: '0',
        credit: base,
        currencyAmount: dec(invoice.gross).negated().toFixed(),
      },
    );
  }
  entries.sort((a, b) => (a.entryDate < b.entryDate ? -1 : a.entryDate > b.entryDate ? 1 : 0));
  const stages = new Map(bills.map((b) => [b.id!, b.stage]));
  events.sort((a, b) => a.at.getTime() - b.at.getTime());
  // As in real life: a bill comes in, gets its lines, is sent on, approved and posted.
  await chunks(
    bills.map((b) => ({ ...b, stage: 'read', sentBy: null, sentAt: null, approvedBy: null, approvedAt: null, postedAt: null })),
    (part) => db.insert(bill).values(part),
  );
  await chunks(lines, (part) => db.insert(billLine).values(part));
  await chunks(bills, (part) => sentAndApproved(db, part));
  await chunks(entries, (part) => db.insert(journalEntry).values(part));
  await chunks(entryLines, (part) => db.insert(journalLine).values(part));
  await chunks(taxes, (part) => db.insert(journalTax).values(part));
  await chunks(open, (part) => db.insert(openItem).values(part));
  await chunks(settled, (part) => db.insert(settlement).values(part));
  await db.update(bill).set({ stage: 'posted' }).where(eq(bill.stage, 'approved'));
  const paid = [...stages].filter(([, stage]) => stage === 'paid').map(([id]) => id);
  await chunks(paid, (part) => db.update(bill).set({ stage: 'paid' }).where(inArray(bill.id, part)));
  await chunks(events, (part) => db.insert(event).values(part));
  return bills.length;
}

/** Sends bills on and approves them, each by its own people at its own time. */
async function sentAndApproved(db: Executor, part: (typeof bill.$inferInsert)[]): Promise<void> {
  const of = sql`(values ${sql.join(
    part.map(
      (b) =>
        sql`(${b.id}::uuid, ${b.sentBy}::uuid, ${b.sentAt!.toISOString()}::timestamptz, ${b.approvedBy}::uuid, ${b.approvedAt!.toISOString()}::timestamptz)`,
    ),
    sql`, `,
  )}) as v (id, sent_by, sent_at, approved_by, approved_at)`;
  await db.execute(sql`update bill set stage = 'coded', sent_by = v.sent_by, sent_at = v.sent_at from ${of} where bill.id = v.id`);
  await db.execute(
    sql`update bill set stage = 'approved', approved_by = v.approved_by, approved_at = v.approved_at, posted_at = v.approved_at from ${of} where bill.id = v.id`,
  );
}

async function chunks<T>(rows: T[], write: (part: T[]) => Promise<unknown>): Promise<void> {
  for (let i = 0; i < rows.length; i += 500) await write(rows.slice(i, i + 500));
}
