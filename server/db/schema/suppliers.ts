import { foreignKey, index, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { id, moment } from './columns.ts';
import { company } from './people.ts';
import { costCentre, ledgerAccount, taxCode } from './accounts.ts';

export const supplier = pgTable(
  'supplier',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    code: text('code').notNull(),
    name: text('name').notNull(),
    taxId: text('tax_id'),
    iban: text('iban'),
    email: text('email'),
    phone: text('phone'),
    address: text('address'),
    country: text('country'),
    currency: text('currency').notNull(),
    /** As the trade writes them: "30 days", "30 eom". */
    terms: text('terms'),
    accountId: uuid('account_id'),
    costCentreId: uuid('cost_centre_id'),
    taxCodeId: uuid('tax_code_id'),
    createdAt: moment('created_at').notNull().defaultNow(),
  },
  (t) => [
    unique('supplier_code').on(t.companyId, t.code),
    unique('supplier_of_company').on(t.id, t.companyId),
    index('supplier_name').on(t.companyId, t.name),
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'supplier_account',
    }),
    foreignKey({
      columns: [t.costCentreId, t.companyId],
      foreignColumns: [costCentre.id, costCentre.companyId],
      name: 'supplier_cost_centre',
    }),
    foreignKey({ columns: [t.taxCodeId, t.companyId], foreignColumns: [taxCode.id, taxCode.companyId], name: 'supplier_tax_code' }),
  ],
);
