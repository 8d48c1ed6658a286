import { sql } from 'drizzle-orm';
import {
  bigint,
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
  uuid,
} from 'drizzle-orm/pg-core';
import { costCentre, ledgerAccount, taxCode } from './accounts.ts';
import { bill, billLine } from './bills.ts';
import { day, id, moment } from './columns.ts';
import { dimensionColumns, dimensionKeys } from './dimensions.ts';
import { company, person } from './people.ts';
import { supplier } from './suppliers.ts';

export const journalEntry = pgTable(
  'journal_entry',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    /** Given by the database: the next of the company's year, without gaps. */
    number: integer('number').notNull().default(0),
    year: integer('year').notNull(),
    month: integer('month').notNull(),
    entryDate: day('entry_date').notNull(),
    /** What it was made from: a bill, a payment … and which one. */
    sourceType: text('source_type').notNull(),
    sourceId: uuid('source_id').notNull(),
    /** The bill, where it was made from one: kept by the database from the source. */
    billId: uuid('bill_id').generatedAlwaysAs(sql`CASE WHEN source_type = 'bill' THEN source_id END`),
    /** The entry that this one reverses. */
    reverses: uuid('reverses').unique('journal_entry_reversed_once'),
    description: text('description').notNull(),
    currency: char('currency', { length: 3 }).notNull(),
    rate: numeric('rate').notNull().default('1'),
    postedBy: uuid('posted_by')
      .notNull()
      .references(() => person.id),
    postedAt: moment('posted_at').notNull().defaultNow(),
    /** The transaction that wrote it: lines can be added in no other. */
    writtenIn: bigint('written_in', { mode: 'bigint' }),
  },
  (t) => [
    unique('journal_entry_number').on(t.companyId, t.year, t.number),
    unique('journal_entry_of_company').on(t.id, t.companyId),
    index('journal_entry_date').on(t.companyId, t.entryDate, t.id),
    index('journal_entry_source').on(t.sourceType, t.sourceId),
    foreignKey({ columns: [t.billId, t.companyId], foreignColumns: [bill.id, bill.companyId], name: 'journal_entry_bill' }),
    foreignKey({ columns: [t.reverses, t.companyId], foreignColumns: [t.id, t.companyId], name: 'journal_entry_reverses' }),
  ],
);

export const journalLine = pgTable(
  'journal_line',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    entryId: uuid('entry_id').notNull(),
    position: integer('position').notNull(),
    accountId: uuid('account_id').notNull(),
    costCentreId: uuid('cost_centre_id'),
    ...dimensionColumns(),
    taxCodeId: uuid('tax_code_id'),
    supplierId: uuid('supplier_id'),
    billLineId: uuid('bill_line_id'),
    description: text('description').notNull(),
    /** In the company's currency; one of the two is zero. */
    debit: numeric('debit').notNull().default('0'),
    credit: numeric('credit').notNull().default('0'),
    /** In the bill's currency, credits negative. */
    currencyAmount: numeric('currency_amount').notNull(),
    /** The entry's number, filled in by the database: an account's lines in the journal's order. */
    entryYear: integer('entry_year'),
    entryNumber: integer('entry_number'),
  },
  (t) => [
    index('journal_line_entry').on(t.entryId, t.position),
    index('journal_line_account').on(t.companyId, t.accountId, t.entryYear, t.entryNumber, t.entryId),
    foreignKey({
      columns: [t.entryId, t.companyId],
      foreignColumns: [journalEntry.id, journalEntry.companyId],
      name: 'journal_line_entry',
    }),
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'journal_line_account',
    }),
    foreignKey({
      columns: [t.costCentreId, t.companyId],
      foreignColumns: [costCentre.id, costCentre.companyId],
      name: 'journal_line_cost_centre',
    }),
    foreignKey({ columns: [t.taxCodeId, t.companyId], foreignColumns: [taxCode.id, taxCode.companyId], name: 'journal_line_tax_code' }),
    ...dimensionKeys('journal_line', t),
    foreignKey({ columns: [t.billLineId, t.companyId], foreignColumns: [billLine.id, billLine.companyId], name: 'journal_line_bill_line' }),
    foreignKey({ columns: [t.supplierId, t.companyId], foreignColumns: [supplier.id, supplier.companyId], name: 'journal_line_supplier' }),
  ],
);

/** What an entry says of a tax code, in the company's currency: written with the entry, so that a summary by code is the ledger's own. */
export const journalTax = pgTable(
  'journal_tax',
  {
    entryId: uuid('entry_id').notNull(),
    taxCodeId: uuid('tax_code_id').notNull(),
    companyId: uuid('company_id').notNull(),
    /** The entry's day, by which it is summed. */ entryDate: day('entry_date').notNull(),
    net: numeric('net').notNull(),
    tax: numeric('tax').notNull(),
    reclaimed: numeric('reclaimed').notNull(),
    owed: numeric('owed').notNull(),
    withheld: numeric('withheld').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.entryId, t.taxCodeId] }),
    index('journal_tax_date').on(t.companyId, t.entryDate, t.taxCodeId, t.entryId),
    foreignKey({ columns: [t.entryId, t.companyId], foreignColumns: [journalEntry.id, journalEntry.companyId], name: 'journal_tax_entry' }),
    foreignKey({ columns: [t.taxCodeId, t.companyId], foreignColumns: [taxCode.id, taxCode.companyId], name: 'journal_tax_code' }),
  ],
);

/** An item of a supplier's account: owed (positive) for a bill, owed back (negative) for a credit note, a payment, a reversal. */
export const openItem = pgTable(
  'open_item',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    supplierId: uuid('supplier_id').notNull(),
    sourceType: text('source_type').notNull(),
    sourceId: uuid('source_id').notNull(),
    billId: uuid('bill_id').generatedAlwaysAs(sql`CASE WHEN source_type = 'bill' THEN source_id END`),
    entryId: uuid('entry_id').notNull(),
    dueDate: day('due_date'),
    currency: char('currency', { length: 3 }).notNull(),
    amount: numeric('amount').notNull(),
    baseAmount: numeric('base_amount').notNull(),
    /** The sum of its settlements, with the sign of the amount: kept by the database. */
    settled: numeric('settled').notNull().default('0'),
    isOpen: boolean('is_open')
      .notNull()
      .generatedAlwaysAs(sql`amount <> settled`),
    /** Its entry's date: kept by the database. */
    entryDate: day('entry_date'),
  },
  (t) => [
    // One a due day: what is paid in parts has several.
    unique('open_item_once').on(t.entryId, t.dueDate).nullsNotDistinct(),
    unique('open_item_of_company').on(t.id, t.companyId),
    index('open_item_source').on(t.sourceType, t.sourceId),
    index('open_item_supplier').on(t.companyId, t.supplierId, t.dueDate),
    index('open_item_due').on(t.companyId, t.dueDate),
    index('open_item_account').on(t.supplierId, t.isOpen, t.entryDate, t.id),
    foreignKey({ columns: [t.billId, t.companyId], foreignColumns: [bill.id, bill.companyId], name: 'open_item_bill' }),
    foreignKey({ columns: [t.entryId, t.companyId], foreignColumns: [journalEntry.id, journalEntry.companyId], name: 'open_item_entry' }),
    foreignKey({ columns: [t.supplierId, t.companyId], foreignColumns: [supplier.id, supplier.companyId], name: 'open_item_supplier' }),
  ],
);

/** An owed item and one owed back settle each other, in part or whole; many to many. Undone by a date, never removed. */
export const settlement = pgTable(
  'settlement',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    owedItemId: uuid('owed_item_id').notNull(),
    backItemId: uuid('back_item_id').notNull(),
    /** In the items' currency, positive. */
    amount: numeric('amount').notNull(),
    personId: uuid('person_id').references(() => person.id),
    at: moment('at').notNull().defaultNow(),
    undoneAt: moment('undone_at'),
  },
  (t) => [
    index('settlement_owed').on(t.owedItemId),
    index('settlement_back').on(t.backItemId),
    foreignKey({ columns: [t.owedItemId, t.companyId], foreignColumns: [openItem.id, openItem.companyId], name: 'settlement_owed_item' }),
    foreignKey({ columns: [t.backItemId, t.companyId], foreignColumns: [openItem.id, openItem.companyId], name: 'settlement_back_item' }),
  ],
);

/** A request to post and what came of it: the same request again gives the same answer and posts nothing. */
export const postingRequest = pgTable(
  'posting_request',
  {
    companyId: uuid('company_id').notNull(),
    key: text('key').notNull(),
    /** The bills it named, sorted: a key used for others is refused. */
    bills: text('bills').notNull(),
    /** The date it asked for: a key used with another is refused. */
    entryDate: day('entry_date').notNull(),
    result: jsonb('result').$type<{ billId: string; entryId: string; number: number; year: number }[]>().notNull(),
    at: moment('at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.companyId, t.key] })],
);

/** What is open with a supplier, by currency: kept by the database from the open items. */
export const supplierOwed = pgTable(
  'supplier_owed',
  {
    supplierId: uuid('supplier_id')
      .notNull()
      .references(() => supplier.id),
    currency: char('currency', { length: 3 }).notNull(),
    amount: numeric('amount').notNull(),
    items: integer('items').notNull(),
  },
  (t) => [primaryKey({ columns: [t.supplierId, t.currency] })],
);

/** What a company owes by the day it falls due, in base currency, and what is owed back to it (`back`): kept by the database. */
export const companyOwed = pgTable(
  'company_owed',
  {
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    back: boolean('back').notNull(),
    dueDate: day('due_date').notNull(),
    amount: numeric('amount').notNull(),
    items: integer('items').notNull(),
  },
  (t) => [primaryKey({ columns: [t.companyId, t.back, t.dueDate] })],
);

/** How many entries a period has: kept by the database. */
export const periodEntries = pgTable(
  'period_entries',
  {
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    year: integer('year').notNull(),
    month: integer('month').notNull(),
    entries: integer('entries').notNull(),
  },
  (t) => [primaryKey({ columns: [t.companyId, t.year, t.month] })],
);
