import { bigint, index, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { id, moment } from './columns.ts';
import { company, person } from './people.ts';

/**
 * Every act, in the order in which it was committed: who did what to which subject, what was before and after, from where. One chain a
 * company: `seq`, `hash` and `previous` are given by the database; rows never change and never go.
 */
export const event = pgTable(
  'event',
  {
    id: id(),
    /** Null for what concerns the whole organisation. */
    companyId: uuid('company_id').references(() => company.id),
    seq: bigint('seq', { mode: 'number' }).notNull().default(0),
    subjectType: text('subject_type').notNull(),
    subjectId: uuid('subject_id'),
    verb: text('verb').notNull(),
    /** Null for what Ledgerline did by itself. */
    personId: uuid('person_id').references(() => person.id),
    /** web, mail, folder, reader, command line … */
    source: text('source').notNull(),
    note: text('note'),
    before: jsonb('before').$type<Record<string, unknown>>(),
    after: jsonb('after').$type<Record<string, unknown>>(),
    at: moment('at').notNull().defaultNow(),
    previous: text('previous').notNull().default(''),
    hash: text('hash').notNull().default(''),
  },
  (t) => [index('event_subject').on(t.subjectType, t.subjectId, t.seq), index('event_company').on(t.companyId, t.seq)],
);
