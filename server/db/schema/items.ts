import { boolean, char, foreignKey, numeric, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { ledgerAccount, taxCode } from './accounts.ts';
import { id } from './columns.ts';
import { company } from './people.ts';

/** What is bought again and again. Without a price: a power bill is an item with an account alone. */
export const item = pgTable(
  'item',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    code: text('code').notNull(),
    name: text('name').notNull(),
    /** What suppliers call it: their codes, or what their lines say; several with commas between. */
    alsoCalled: text('also_called'),
    unit: text('unit'),
    /** Of one unit, without tax, and in which currency. */
    price: numeric('price'),
    currency: char('currency', { length: 3 }),
    accountId: uuid('account_id'),
    taxCodeId: uuid('tax_code_id'),
    /** Kept in stock: a row of it makes a receipt when its bill is posted. */
    stocked: boolean('stocked').notNull().default(false),
    active: boolean('active').notNull().default(true),
  },
  (t) => [
    unique('item_code').on(t.companyId, t.code),
    unique('item_of_company').on(t.id, t.companyId),
    foreignKey({ columns: [t.accountId, t.companyId], foreignColumns: [ledgerAccount.id, ledgerAccount.companyId], name: 'item_account' }),
    foreignKey({ columns: [t.taxCodeId, t.companyId], foreignColumns: [taxCode.id, taxCode.companyId], name: 'item_tax_code' }),
  ],
);
