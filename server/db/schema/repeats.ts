import { boolean, foreignKey, index, integer, jsonb, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import type { Template } from '@ledgerline/core/repeats';
import { day, id, moment } from './columns.ts';
import { company, person } from './people.ts';
import { supplier } from './suppliers.ts';

/** A bill that repeats: what is made on each of its days. */
export const repeat = pgTable(
  'repeat',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    supplierId: uuid('supplier_id').notNull(),
    name: text('name').notNull(),
    /** month, quarter, year, weeks */
    every: text('every').notNull(),
    /** So many weeks. */
    weeks: integer('weeks'),
    begins: day('begins').notNull(),
    until: day('until'),
    /** The next day on which a bill is made; null once none is. */
    nextOn: day('next_on'),
    /** The same amounts each time, or to be filled in. */
    fixed: boolean('fixed').notNull(),
    /** A document is expected to come, within so many days of its turn; null: none comes. */
    documentWithin: integer('document_within'),
    template: jsonb('template').$type<Template>().notNull(),
    createdBy: uuid('created_by').references(() => person.id),
    createdAt: moment('created_at').notNull().defaultNow(),
    rowVersion: integer('row_version').notNull().default(1),
  },
  (t) => [
    unique('repeat_of_company').on(t.id, t.companyId),
    index('repeat_due')
      .on(t.nextOn)
      .where(sql`${t.nextOn} is not null`),
    foreignKey({ columns: [t.supplierId, t.companyId], foreignColumns: [supplier.id, supplier.companyId], name: 'repeat_supplier' }),
  ],
);
