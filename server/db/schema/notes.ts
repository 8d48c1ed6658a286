import { foreignKey, index, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import { bill } from './bills.ts';
import { id, moment } from './columns.ts';
import { person } from './people.ts';

/** What people write to each other on a bill. Stays as it was written. */
export const billNote = pgTable(
  'bill_note',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    billId: uuid('bill_id').notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    text: text('text').notNull(),
    at: moment('at').notNull().defaultNow(),
  },
  (t) => [
    index('bill_note_bill').on(t.billId, t.at),
    foreignKey({ columns: [t.billId, t.companyId], foreignColumns: [bill.id, bill.companyId], name: 'bill_note_bill' }),
  ],
);

/** Whom a note names, and when they saw it. */
export const billMention = pgTable(
  'bill_mention',
  {
    noteId: uuid('note_id')
      .notNull()
      .references(() => billNote.id),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    seenAt: moment('seen_at'),
  },
  (t) => [
    primaryKey({ columns: [t.noteId, t.personId] }),
    index('bill_mention_unseen')
      .on(t.personId)
      .where(sql`${t.seenAt} is null`),
  ],
);

/** Who has a bill before them now, as far as their browser told of it lately. */
export const billPresence = pgTable(
  'bill_presence',
  {
    billId: uuid('bill_id')
      .notNull()
      .references(() => bill.id),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    seenAt: moment('seen_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.billId, t.personId] })],
);
