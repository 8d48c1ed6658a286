import { foreignKey, index, integer, numeric, pgTable, unique, uuid } from 'drizzle-orm/pg-core';
import { costCentre, ledgerAccount } from './accounts.ts';
import { id } from './columns.ts';
import { company } from './people.ts';

/** What may be spent on an account in a month, by a cost centre or by all together, in the company's currency. */
export const budget = pgTable(
  'budget',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    accountId: uuid('account_id').notNull(),
    /** Null: the account's whole, whatever the cost centre. */
    costCentreId: uuid('cost_centre_id'),
    year: integer('year').notNull(),
    month: integer('month').notNull(),
    amount: numeric('amount').notNull(),
  },
  (t) => [
    unique('budget_once').on(t.companyId, t.accountId, t.costCentreId, t.year, t.month).nullsNotDistinct(),
    index('budget_year').on(t.companyId, t.year),
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'budget_account',
    }),
    foreignKey({ columns: [t.costCentreId, t.companyId], foreignColumns: [costCentre.id, costCentre.companyId], name: 'budget_centre' }),
  ],
);

/** What was posted on an account in a month, by cost centre, debit less credit, in the company's currency: kept by the database. */
export const accountMonth = pgTable(
  'account_month',
  {
    companyId: uuid('company_id').notNull(),
    accountId: uuid('account_id').notNull(),
    costCentreId: uuid('cost_centre_id'),
    year: integer('year').notNull(),
    month: integer('month').notNull(),
    amount: numeric('amount').notNull(),
  },
  (t) => [
    unique('account_month_once').on(t.companyId, t.accountId, t.costCentreId, t.year, t.month).nullsNotDistinct(),
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'account_month_account',
    }),
  ],
);
