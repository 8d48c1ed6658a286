import { bigint, char, foreignKey, index, integer, jsonb, numeric, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { costCentre, ledgerAccount, taxCode } from './accounts.ts';
import { bill, billLine } from './bills.ts';
import { day, id, moment } from './columns.ts';
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
    /** bill or payment */
    kind: text('kind').notNull(),
    description: text('description').notNull(),
    billId: uuid('bill_id'),
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
    unique('journal_entry_once').on(t.billId, t.kind),
    index('journal_entry_date').on(t.companyId, t.entryDate, t.id),
    foreignKey({ columns: [t.billId, t.companyId], foreignColumns: [bill.id, bill.companyId], name: 'journal_entry_bill' }),
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
    taxCodeId: uuid('tax_code_id'),
    supplierId: uuid('supplier_id'),
    billLineId: uuid('bill_line_id'),
    description: text('description').notNull(),
    /** In the company's currency; one of the two is zero. */
    debit: numeric('debit').notNull().default('0'),
    credit: numeric('credit').notNull().default('0'),
    /** In the bill's currency, credits negative. */
    currencyAmount: numeric('currency_amount').notNull(),
  },
  (t) => [
    index('journal_line_entry').on(t.entryId, t.position),
    index('journal_line_account').on(t.companyId, t.accountId, t.entryId),
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
    foreignKey({ columns: [t.billLineId, t.companyId], foreignColumns: [billLine.id, billLine.companyId], name: 'journal_line_bill_line' }),
    foreignKey({ columns: [t.supplierId, t.companyId], foreignColumns: [supplier.id, supplier.companyId], name: 'journal_line_supplier' }),
  ],
);

/** What is owed for a posted bill; a credit note's is negative. */
export const openItem = pgTable(
  'open_item',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    supplierId: uuid('supplier_id').notNull(),
    billId: uuid('bill_id').notNull().unique('open_item_once'),
    entryId: uuid('entry_id').notNull(),
    dueDate: day('due_date'),
    currency: char('currency', { length: 3 }).notNull(),
    amount: numeric('amount').notNull(),
    baseAmount: numeric('base_amount').notNull(),
    settled: numeric('settled').notNull().default('0'),
  },
  (t) => [
    index('open_item_supplier').on(t.companyId, t.supplierId, t.dueDate),
    index('open_item_due').on(t.companyId, t.dueDate),
    foreignKey({ columns: [t.billId, t.companyId], foreignColumns: [bill.id, bill.companyId], name: 'open_item_bill' }),
    foreignKey({ columns: [t.entryId, t.companyId], foreignColumns: [journalEntry.id, journalEntry.companyId], name: 'open_item_entry' }),
    foreignKey({ columns: [t.supplierId, t.companyId], foreignColumns: [supplier.id, supplier.companyId], name: 'open_item_supplier' }),
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
    result: jsonb('result').$type<{ billId: string; entryId: string; number: number; year: number }[]>().notNull(),
    at: moment('at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.companyId, t.key] })],
);
