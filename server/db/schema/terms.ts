import { boolean, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { id } from './columns.ts';
import { company } from './people.ts';

/** Payment terms that a company names itself: "Monthly account" is `30 eom`. */
export const paymentTerms = pgTable(
  'payment_terms',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    code: text('code').notNull(),
    name: text('name').notNull(),
    /** What suppliers write for it; several with commas between. */
    alsoCalled: text('also_called'),
    /** As the trade writes them. */
    terms: text('terms').notNull(),
    active: boolean('active').notNull().default(true),
  },
  (t) => [unique('payment_terms_code').on(t.companyId, t.code)],
);
