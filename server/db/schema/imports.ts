import { boolean, index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { bytes, id, moment } from './columns.ts';
import { company, person } from './people.ts';

/** Counts of a dry run, or of what was brought in. */
export interface ImportCounts {
  rows: number;
  /** Rows that can be brought in, and those with an error. */ good: number;
  bad: number;
  warnings: number;
  /** Of the good ones: made anew, changed, as they are already. */ made: number;
  changed: number;
  same: number;
}

/** A file whose rows are to come into one of a company's lists. */
export const importRun = pgTable(
  'import_run',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    /** accounts, cost-centres, suppliers, rates. */
    list: text('list').notNull(),
    fileName: text('file_name').notNull(),
    heads: jsonb('heads').$type<string[]>().notNull(),
    /** The file's rows as compressed JSON: an array of arrays of text. */
    rows: bytes('rows').notNull(),
    /** The field of each column, or null. */
    mapping: jsonb('mapping').$type<(string | null)[]>().notNull(),
    /** checked: looked through, nothing brought in; waiting, running: on its way; done; failed. */
    state: text('state').notNull(),
    counts: jsonb('counts').$type<ImportCounts>().notNull(),
    /** Rows with errors are left out. */
    goodOnly: boolean('good_only').notNull().default(false),
    /** How many rows are in, for whoever waits. Set from outside the work's own transaction. */
    progress: integer('progress').notNull().default(0),
    tries: integer('tries').notNull().default(0),
    note: text('note'),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    createdAt: moment('created_at').notNull().defaultNow(),
  },
  (t) => [index('import_run_company').on(t.companyId, t.createdAt)],
);

/** What a dry run found, row by row. */
export const importFinding = pgTable(
  'import_finding',
  {
    runId: uuid('run_id')
      .notNull()
      .references(() => importRun.id, { onDelete: 'cascade' }),
    n: integer('n').notNull(),
    row: integer('row').notNull(),
    column: text('column_head'),
    /** What stands there. */
    cell: text('cell'),
    severity: text('severity').notNull(),
    sentence: text('sentence').notNull(),
  },
  (t) => [primaryKey({ columns: [t.runId, t.n] })],
);

/** How a company's files with these heads were mapped last. */
export const importMapping = pgTable(
  'import_mapping',
  {
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    list: text('list').notNull(),
    /** SHA-256 of the heads. */
    heads: text('heads').notNull(),
    mapping: jsonb('mapping').$type<(string | null)[]>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.companyId, t.list, t.heads] })],
);
