import { foreignKey, index, numeric, pgTable, primaryKey, unique, uuid } from 'drizzle-orm/pg-core';
import { day, id, moment } from './columns.ts';
import { journalEntry } from './ledger.ts';
import { orderLine } from './orders.ts';
import { company, person } from './people.ts';

/** What had come and was not billed at the end of a month, as it was posted: on that day, and taken back on the next. Only added. */
export const accrual = pgTable(
  'accrual',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    /** The last day of a month. */
    onDay: day('on_day').notNull(),
    entryId: uuid('entry_id').notNull().unique('accrual_entry_once'),
    /** What takes it back. */
    backId: uuid('back_id').notNull().unique('accrual_back_once'),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    at: moment('at').notNull().defaultNow(),
  },
  (t) => [
    unique('accrual_of_company').on(t.id, t.companyId),
    index('accrual_day').on(t.companyId, t.onDay),
    foreignKey({ columns: [t.entryId, t.companyId], foreignColumns: [journalEntry.id, journalEntry.companyId], name: 'accrual_entry' }),
    foreignKey({ columns: [t.backId, t.companyId], foreignColumns: [journalEntry.id, journalEntry.companyId], name: 'accrual_back' }),
  ],
);

/** Of which lines of orders: a later posting for the same day is of what differs. */
export const accrualLine = pgTable(
  'accrual_line',
  {
    accrualId: uuid('accrual_id').notNull(),
    companyId: uuid('company_id').notNull(),
    orderLineId: uuid('order_line_id').notNull(),
    /** In base currency; below zero where too much was accrued before. */
    amount: numeric('amount').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.accrualId, t.orderLineId] }),
    foreignKey({ columns: [t.accrualId, t.companyId], foreignColumns: [accrual.id, accrual.companyId], name: 'accrual_line_accrual' }),
    foreignKey({
      columns: [t.orderLineId, t.companyId],
      foreignColumns: [orderLine.id, orderLine.companyId],
      name: 'accrual_line_order_line',
    }),
  ],
);
