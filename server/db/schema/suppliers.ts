import { sql } from 'drizzle-orm';
import { boolean, foreignKey, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { id, moment } from './columns.ts';
import { dimensionColumns, dimensionKeys } from './dimensions.ts';
import { company, person } from './people.ts';
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
    ...dimensionColumns(),
    /** Whether its posted lines say how new ones are coded; without it only its usual coding does. */
    suggests: boolean('suggests').notNull().default(true),
    /** Tax numbers in other countries, and where else it is: for returns, a branch. */
    otherTaxIds: text('other_tax_ids')
      .array()
      .notNull()
      .default(sql`'{}'`),
    otherAddresses: text('other_addresses')
      .array()
      .notNull()
      .default(sql`'{}'`),
    /** Why no bill of it goes on; null: they do. */
    blocked: text('blocked'),
    /** Why nothing is paid to it for now, though its bills go on; null: it is paid. */
    paymentsHeld: text('payments_held'),
    /** Raised by the database at every change. */
    rowVersion: integer('row_version').notNull().default(1),
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
    ...dimensionKeys('supplier', t),
  ],
);

/** Whom one reaches at a supplier, and what about. */
export const supplierContact = pgTable(
  'supplier_contact',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    supplierId: uuid('supplier_id').notNull(),
    position: integer('position').notNull(),
    name: text('name').notNull(),
    /** Accounts, orders, complaints … */
    about: text('about'),
    email: text('email'),
    phone: text('phone'),
  },
  (t) => [
    index('supplier_contact_supplier').on(t.supplierId),
    foreignKey({
      columns: [t.supplierId, t.companyId],
      foreignColumns: [supplier.id, supplier.companyId],
      name: 'supplier_contact_of_company',
    }),
  ],
);

/**
 * A supplier's bank accounts. One counts once a second person has verified it; the details themselves never change: new ones are a
 * new row, and the old one is retired.
 */
export const bankAccount = pgTable(
  'bank_account',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    supplierId: uuid('supplier_id').notNull(),
    iban: text('iban').notNull(),
    /** Where the details came from. */
    note: text('note'),
    /** Null for accounts that were taken over with the supplier list. */
    proposedBy: uuid('proposed_by').references(() => person.id),
    proposedAt: moment('proposed_at').notNull().defaultNow(),
    verifiedBy: uuid('verified_by').references(() => person.id),
    verifiedAt: moment('verified_at'),
    /** How it was checked. */
    how: text('how'),
    retiredAt: moment('retired_at'),
  },
  (t) => [
    index('bank_account_supplier').on(t.supplierId),
    index('bank_account_iban').on(t.companyId, t.iban),
    foreignKey({
      columns: [t.supplierId, t.companyId],
      foreignColumns: [supplier.id, supplier.companyId],
      name: 'bank_account_supplier_of_company',
    }),
  ],
);
