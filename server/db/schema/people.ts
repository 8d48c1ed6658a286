import type { MatchingRules } from '@ledgerline/core/matching';
import { bigint, boolean, index, integer, jsonb, pgTable, primaryKey, text, uuid, numeric } from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import { id, moment } from './columns.ts';

export const organisation = pgTable('organisation', {
  id: id(),
  name: text('name').notNull(),
  demo: boolean('demo').notNull().default(false),
  /** False while what it begins with is still being brought in. */
  ready: boolean('ready').notNull().default(true),
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
  /** What is taken first from the queue of bills to review: discount, due, amount, age. */
  queueOrder: text('queue_order').notNull().default('age'),
  /** Whether posted lines say how new ones are coded; without it only what is set as usual does. */
  suggests: boolean('suggests').notNull().default(true),
  /** Whether a supplier without usual coding takes that of the first bill that is posted. */
  firstCodingUsual: boolean('first_coding_usual').notNull().default(false),
  /** How far a bill's tax may be from its rates beyond rounding, in its currency; null for no farther. */
  taxTolerance: numeric('tax_tolerance'),
  /** How far bills may be from their orders, and what becomes of those that match. */
  matching: jsonb('matching').$type<MatchingRules>().notNull().default({
    pricePercent: '0',
    priceAmount: '0',
    quantityPercent: '0',
    quantityAmount: '0',
    which: 'stricter',
    passes: false,
  }),
  /** Other names under which invoices reach it: a house, a former name. */
  billToNames: text('bill_to_names')
    .array()
    .notNull()
    .default(sql`'{}'`),
  /** Which rate a bill in another currency takes: day (of the bill), month (the last before its month). */
  rateBy: text('rate_by').notNull().default('day'),
  /** Where a day that is worked out from terms is no working day: stays, next, before. */
  dueOn: text('due_on').notNull().default('stays'),
});

export const person = pgTable('person', {
  id: id(),
  name: text('name').notNull(),
  email: text('email').notNull().unique(),
  passwordHash: text('password_hash').notNull(),
  /** May be signed in with one click: only people of the demo. */
  demo: boolean('demo').notNull().default(false),
  title: text('title'),
  /** Of the second factor (RFC 6238), base32; null without one. */
  totpSecret: text('totp_secret'),
  /** The time step of the last code that was taken: none is taken twice. */
  totpStep: bigint('totp_step', { mode: 'number' }),
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

/** What of a company's lists a person codes and approves, and up to which amount; without a row everything that their roles allow. */
export const personRange = pgTable(
  'person_range',
  {
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    /** Codes and ranges as people write them; null for all. */
    accounts: text('accounts'),
    costCentres: text('cost_centres'),
    /** The most that a bill they approve comes to, in the company's currency; null for any. */
    most: numeric('most'),
  },
  (t) => [primaryKey({ columns: [t.personId, t.companyId] })],
);

export const session = pgTable(
  'session',
  {
    id: id(),
    /** SHA-256 of the cookie's token; the token itself is never kept. */
    tokenHash: text('token_hash').notNull().unique(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    startedAt: moment('started_at').notNull().defaultNow(),
    /** When the person last did something, to the minute. */
    seenAt: moment('seen_at').notNull().defaultNow(),
    expiresAt: moment('expires_at').notNull(),
    /** What the browser calls itself, and where it came from. */
    agent: text('agent'),
    address: text('address'),
  },
  (t) => [index('session_person').on(t.personId)],
);

/** Browsers in which somebody has signed in before: they keep a count of wrong passwords of their own, so that nobody else locks them out. */
export const device = pgTable('device', {
  tokenHash: text('token_hash').primaryKey(),
  personId: uuid('person_id')
    .notNull()
    .references(() => person.id),
  usedAt: moment('used_at').notNull().defaultNow(),
});

/** How often something was tried since a moment: counted before it is done. Keys hold hashes, no addresses. */
export const attempt = pgTable('attempt', {
  key: text('key').primaryKey(),
  since: moment('since').notNull(),
  n: integer('n').notNull(),
});

/** What somebody has said of a step of the first-run guide: it is fine as it is, or left out. Without a row the step tells by itself. */
export const guideStep = pgTable(
  'guide_step',
  {
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    step: text('step').notNull(),
    /** fine, skipped */
    state: text('state').notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    at: moment('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.companyId, t.step] })],
);
