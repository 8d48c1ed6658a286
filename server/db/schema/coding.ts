import { boolean, foreignKey, index, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { costCentre, ledgerAccount, taxCode } from './accounts.ts';
import { day, id, moment } from './columns.ts';
import { dimensionColumns, dimensionKeys } from './dimensions.ts';
import { company, person } from './people.ts';
import { supplier } from './suppliers.ts';

/** Lines of a supplier that say something are coded so, as somebody laid it down. */
export const codingRule = pgTable(
  'coding_rule',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    supplierId: uuid('supplier_id'),
    words: text('words'),
    accountId: uuid('account_id'),
    costCentreId: uuid('cost_centre_id'),
    taxCodeId: uuid('tax_code_id'),
    ...dimensionColumns(),
    active: boolean('active').notNull().default(true),
    madeBy: uuid('made_by')
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    index('coding_rule_company').on(t.companyId, t.supplierId),
    foreignKey({ columns: [t.supplierId, t.companyId], foreignColumns: [supplier.id, supplier.companyId], name: 'coding_rule_supplier' }),
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'coding_rule_account',
    }),
    foreignKey({
      columns: [t.costCentreId, t.companyId],
      foreignColumns: [costCentre.id, costCentre.companyId],
      name: 'coding_rule_cost_centre',
    }),
    foreignKey({ columns: [t.taxCodeId, t.companyId], foreignColumns: [taxCode.id, taxCode.companyId], name: 'coding_rule_tax_code' }),
    ...dimensionKeys('coding_rule', t),
  ],
);

/** How a company's lines are coded where nothing else says it. */
export const usualCoding = pgTable(
  'usual_coding',
  {
    companyId: uuid('company_id')
      .primaryKey()
      .references(() => company.id),
    accountId: uuid('account_id'),
    costCentreId: uuid('cost_centre_id'),
    taxCodeId: uuid('tax_code_id'),
    ...dimensionColumns(),
    /** Where the cents go that are left over when a foreign bill is converted; null: to its largest row. */
    roundingAccountId: uuid('rounding_account_id'),
    /** What is owed for goods that came without a bill; null: none is accrued. */
    accrualAccountId: uuid('accrual_account_id'),
  },
  (t) => [
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'usual_coding_account',
    }),
    foreignKey({
      columns: [t.roundingAccountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'usual_coding_rounding_account',
    }),
    foreignKey({
      columns: [t.accrualAccountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'usual_coding_accrual_account',
    }),
    foreignKey({
      columns: [t.costCentreId, t.companyId],
      foreignColumns: [costCentre.id, costCentre.companyId],
      name: 'usual_coding_cost_centre',
    }),
    foreignKey({ columns: [t.taxCodeId, t.companyId], foreignColumns: [taxCode.id, taxCode.companyId], name: 'usual_coding_tax_code' }),
    ...dimensionKeys('usual_coding', t),
  ],
);

/** Posted lines of a supplier that say these words and are of this day or before say nothing of new ones any more. */
export const codingForgotten = pgTable(
  'coding_forgotten',
  {
    companyId: uuid('company_id').notNull(),
    supplierId: uuid('supplier_id').notNull(),
    /** The telling words, in order. */
    words: text('words').notNull(),
    until: day('until').notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    at: moment('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.companyId, t.supplierId, t.words] }),
    foreignKey({
      columns: [t.supplierId, t.companyId],
      foreignColumns: [supplier.id, supplier.companyId],
      name: 'coding_forgotten_supplier',
    }),
  ],
);
