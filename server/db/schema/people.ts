import { boolean, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { id, moment } from './columns.ts';

export const organisation = pgTable('organisation', {
  id: id(),
  name: text('name').notNull(),
  demo: boolean('demo').notNull().default(false),
});

export const company = pgTable('company', {
  id: id(),
  code: text('code').notNull().unique(),
  name: text('name').notNull().unique(),
  taxId: text('tax_id'),
  country: text('country').notNull(),
  baseCurrency: text('base_currency').notNull(),
  /** Messages sent here belong to this company. */
  mailAddress: text('mail_address').notNull().unique(),
  /** What parts documents in one scan from the folder: none, blank (a blank page), sheet (a separator sheet). */
  scanSeparator: text('scan_separator').notNull().default('none'),
});

export const person = pgTable('person', {
  id: id(),
  name: text('name').notNull(),
  email: text('email').notNull().unique(),
  passwordHash: text('password_hash').notNull(),
  /** May be signed in with one click: only people of the demo. */
  demo: boolean('demo').notNull().default(false),
  title: text('title'),
});

export const membership = pgTable(
  'membership',
  {
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    role: text('role').notNull(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.companyId, t.role] })],
);

export const session = pgTable('session', {
  /** SHA-256 of the cookie's token; the token itself is never kept. */
  tokenHash: text('token_hash').primaryKey(),
  personId: uuid('person_id')
    .notNull()
    .references(() => person.id),
  expiresAt: moment('expires_at').notNull(),
});
