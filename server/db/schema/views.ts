import { boolean, index, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { id, moment } from './columns.ts';
import { company, person } from './people.ts';

/** A list as somebody likes to see it, under a name: words, order, columns. */
export const savedView = pgTable(
  'saved_view',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    /** For everybody of the company. */
    shared: boolean('shared').notNull(),
    name: text('name').notNull(),
    q: text('q').notNull(),
    sort: text('sort').notNull(),
    order: text('sort_order').notNull(),
    columns: jsonb('columns').$type<string[]>().notNull(),
    at: moment('at').notNull().defaultNow(),
  },
  (t) => [index('saved_view_company').on(t.companyId, t.personId)],
);

/** How a person looks at a place (sides, sizes, columns), wherever they sign in. */
export const personView = pgTable(
  'person_view',
  {
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    place: text('place').notNull(),
    view: jsonb('view').$type<Record<string, unknown>>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.place] })],
);

/** When a person last chose a supplier, account, cost centre or tax code: what a type-ahead field offers first. */
export const choiceUse = pgTable(
  'choice_use',
  {
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    /** Of whatever it is, on its own list. */
    choiceId: uuid('choice_id').notNull(),
    usedAt: moment('used_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.choiceId] })],
);
