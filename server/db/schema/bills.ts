import {
  boolean,
  char,
  foreignKey,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  primaryKey,
  text,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import type { StoredMark } from '@ledgerline/core/bills';
import type { FurtherCell } from '@ledgerline/core/reading';
import { costCentre, ledgerAccount, taxCode } from './accounts.ts';
import { document } from './arrivals.ts';
import { day, id, moment } from './columns.ts';
import { dimensionColumns, dimensionKeys } from './dimensions.ts';
import { company, person } from './people.ts';
import { repeat } from './repeats.ts';
import { supplier } from './suppliers.ts';

export const bill = pgTable(
  'bill',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    documentId: uuid('document_id'),
    stage: text('stage').notNull(),
    kind: text('kind').notNull(),
    supplierId: uuid('supplier_id'),
    /** The name on the page, kept until a supplier is chosen. */
    supplierName: text('supplier_name'),
    /** The supplier's tax number and bank account as the page has them. */
    supplierTaxId: text('supplier_tax_id'),
    supplierIban: text('supplier_iban'),
    /** Why this supplier was matched, in one sentence. */
    supplierReason: text('supplier_reason'),
    invoiceNumber: text('invoice_number'),
    issueDate: day('issue_date'),
    dueDate: day('due_date'),
    terms: text('terms'),
    currency: char('currency', { length: 3 }).notNull(),
    purchaseOrder: text('purchase_order'),
    net: numeric('net'),
    tax: numeric('tax'),
    gross: numeric('gross'),
    pricesIncludeTax: boolean('prices_include_tax').notNull().default(false),
    /** Header marks by field. */
    marks: jsonb('marks').$type<Record<string, StoredMark>>().notNull().default({}),
    /** Fields the reader is not sure of, until a person has settled them. */
    unsure: jsonb('unsure').$type<string[]>().notNull().default([]),
    /** Another of our companies to which the page is addressed. */
    addressedTo: uuid('addressed_to').references(() => company.id),
    note: text('note'),
    /** Raised by the database at every change. */
    rowVersion: integer('row_version').notNull().default(1),
    createdAt: moment('created_at').notNull().defaultNow(),
    sentBy: uuid('sent_by').references(() => person.id),
    sentAt: moment('sent_at'),
    approvedBy: uuid('approved_by').references(() => person.id),
    approvedAt: moment('approved_at'),
    postedAt: moment('posted_at'),
    /** In whose hands it is; null: in nobody's, for whoever takes the next. */
    assigneeId: uuid('assignee_id').references(() => person.id),
    /** Set aside until this day, on which it comes back by itself. */
    asideUntil: day('aside_until'),
    /** It is of no order, whatever it looks like: somebody said so. */
    withoutOrder: boolean('without_order').notNull().default(false),
    /** Set aside until what it bills has come. */
    awaitsReceipt: boolean('awaits_receipt').notNull().default(false),
    /** It went on without a hand: all of it is as ordered. */
    passedAlone: boolean('passed_alone').notNull().default(false),
    /** The last day on which it may be paid with a discount. */
    discountUntil: day('discount_until'),
    /** The bill that this one is a copy of, or that this credit note is for. */
    madeFrom: uuid('made_from'),
    repeatId: uuid('repeat_id'),
    /** The day of its turn, where it repeats. */
    turn: day('turn'),
    /** What its number shares with numbers that may be the same (`numberKey` in core/matching): kept by the database. */
    numberKey: text('number_key').generatedAlwaysAs(
      sql`replace(translate(regexp_replace(regexp_replace(upper(coalesce(invoice_number, '')), '[^A-Z0-9]', '', 'g'), '^[A-Z]+(?=.*[0-9])', ''), 'OIL', '011'), '0', '')`,
    ),
    /** What it is found by, beside its supplier's name: kept by the database. Begins with a space, as each of its words does. */
    words: text('words').generatedAlwaysAs(
      sql`' ' || lower(coalesce(invoice_number, '') || ' ' || coalesce(purchase_order, '') || ' ' || CASE WHEN supplier_id IS NULL THEN coalesce(supplier_name, '') ELSE '' END)`,
    ),
  },
  (t) => [
    unique('bill_of_company').on(t.id, t.companyId),
    index('bill_list').on(t.companyId, t.createdAt, t.id),
    index('bill_stage').on(t.companyId, t.stage, t.createdAt, t.id),
    index('bill_document').on(t.documentId),
    index('bill_currency').on(t.companyId, t.currency, t.createdAt, t.id),
    index('bill_number_key').on(t.companyId, t.supplierId, t.numberKey),
    index('bill_amount_day').on(t.gross, t.issueDate),
    index('bill_posted_at').on(t.companyId, t.postedAt),
    index('bill_assignee')
      .on(t.assigneeId, t.companyId)
      .where(sql`${t.assigneeId} is not null`),
    index('bill_aside_until')
      .on(t.asideUntil)
      .where(sql`${t.asideUntil} is not null`),
    uniqueIndex('bill_turn_once')
      .on(t.repeatId, t.turn)
      .where(sql`${t.repeatId} is not null`),
    foreignKey({ columns: [t.madeFrom, t.companyId], foreignColumns: [t.id, t.companyId], name: 'bill_made_from' }),
    foreignKey({ columns: [t.repeatId, t.companyId], foreignColumns: [repeat.id, repeat.companyId], name: 'bill_repeat_of_company' }),
    foreignKey({
      columns: [t.supplierId, t.companyId],
      foreignColumns: [supplier.id, supplier.companyId],
      name: 'bill_supplier_of_company',
    }),
    foreignKey({
      columns: [t.documentId, t.companyId],
      foreignColumns: [document.id, document.companyId],
      name: 'bill_document_of_company',
    }),
  ],
);

export const billLine = pgTable(
  'bill_line',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    billId: uuid('bill_id').notNull(),
    position: integer('position').notNull(),
    /** line; charge: freight and discounts of the totals block; text: words alone, no amount */
    kind: text('kind').notNull().default('line'),
    code: text('code'),
    description: text('description').notNull().default(''),
    quantity: numeric('quantity'),
    unit: text('unit'),
    unitPrice: numeric('unit_price'),
    /** The unit price is for this many. */
    priceQuantity: numeric('price_quantity').notNull().default('1'),
    discountPercent: numeric('discount_percent'),
    taxRate: numeric('tax_rate'),
    amount: numeric('amount'),
    /** Of delivery or service, where it is another than the bill's. */
    serviceDate: day('service_date'),
    accountId: uuid('account_id'),
    costCentreId: uuid('cost_centre_id'),
    taxCodeId: uuid('tax_code_id'),
    ...dimensionColumns(),
    marks: jsonb('marks').$type<Record<string, StoredMark>>().notNull().default({}),
    /** What else its row on the page says, under which heading. */
    further: jsonb('further').$type<FurtherCell[]>().notNull().default([]),
  },
  (t) => [
    index('bill_line_bill').on(t.billId, t.position),
    unique('bill_line_of_company').on(t.id, t.companyId),
    foreignKey({ columns: [t.billId, t.companyId], foreignColumns: [bill.id, bill.companyId], name: 'bill_line_bill' }),
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'bill_line_account',
    }),
    foreignKey({
      columns: [t.costCentreId, t.companyId],
      foreignColumns: [costCentre.id, costCentre.companyId],
      name: 'bill_line_cost_centre',
    }),
    foreignKey({ columns: [t.taxCodeId, t.companyId], foreignColumns: [taxCode.id, taxCode.companyId], name: 'bill_line_tax_code' }),
    ...dimensionKeys('bill_line', t),
  ],
);

/** What the checks found on a bill: open until it is settled, by a change, by a choice, or overruled by a named person. */
export const billException = pgTable(
  'bill_exception',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    billId: uuid('bill_id').notNull(),
    code: text('code').notNull(),
    path: text('path').notNull(),
    /** Tells this finding from another at the same path. */
    key: text('key').notNull().default(''),
    sentence: text('sentence').notNull(),
    /** What the bill says, and what it was expected to say. */
    found: text('found'),
    expected: text('expected'),
    severity: text('severity').notNull(),
    /** open, settled, overruled */
    state: text('state').notNull().default('open'),
    /** change, choose:data, choose:page, confirm, overrule, verify, debit-note */
    how: text('how'),
    personId: uuid('person_id').references(() => person.id),
    reason: text('reason'),
    /** Whom somebody asked who verified it. */
    asked: text('asked'),
    openedAt: moment('opened_at').notNull().defaultNow(),
    settledAt: moment('settled_at'),
  },
  (t) => [
    unique('bill_exception_once').on(t.billId, t.code, t.path, t.key),
    index('bill_exception_open').on(t.companyId, t.state, t.code),
    foreignKey({ columns: [t.billId, t.companyId], foreignColumns: [bill.id, bill.companyId], name: 'bill_exception_bill' }),
  ],
);

/** What a company made of a check: stops, asks or off, and who may overrule it; as it is usual where it says nothing. */
export const checkSetting = pgTable(
  'check_setting',
  {
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    code: text('code').notNull(),
    severity: text('severity'),
    /** `overrulers` in core/checks */
    overruledBy: text('overruled_by'),
  },
  (t) => [primaryKey({ columns: [t.companyId, t.code] })],
);

/** How many bills a supplier has that are not discarded: kept by the database. */
export const supplierBills = pgTable('supplier_bills', {
  supplierId: uuid('supplier_id')
    .primaryKey()
    .references(() => supplier.id),
  bills: integer('bills').notNull(),
});
