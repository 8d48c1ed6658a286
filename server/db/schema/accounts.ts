import { boolean, char, foreignKey, index, integer, jsonb, numeric, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import type { DimensionField } from '@ledgerline/core/bills';
import { day, id } from './columns.ts';
import { company, person } from './people.ts';

const ofCompany = () =>
  uuid('company_id')
    .notNull()
    .references(() => company.id);

/** When lines may name it. `active` false: closed, whatever the dates say. */
export const validity = () => ({
  active: boolean('active').notNull().default(true),
  /** First and last day of bills that may use it; null for no end. */
  validFrom: day('valid_from'),
  validTo: day('valid_to'),
});

export const ledgerAccount = pgTable(
  'ledger_account',
  {
    id: id(),
    companyId: ofCompany(),
    code: text('code').notNull(),
    name: text('name').notNull(),
    group: text('group_name').notNull(),
    /** expense, asset, income, tax, payable, bank, equity, liability: only the first two take bill lines. */
    kind: text('kind').notNull(),
    needsCostCentre: boolean('needs_cost_centre').notNull().default(false),
    /** The dimensions that its lines need. */
    needsDimensions: text('needs_dimensions')
      .array()
      .$type<DimensionField[]>()
      .notNull()
      .default(sql`'{}'`),
    /** The account that it is a sub-account of. */
    parentId: uuid('parent_id'),
    /** False: it only gathers the accounts under it, and takes no lines itself. */
    postable: boolean('postable').notNull().default(true),
    /** The tax code that its lines usually have. The database knows that it is of the same company. */
    taxCodeId: uuid('tax_code_id'),
    ...validity(),
  },
  (t) => [
    unique('ledger_account_code').on(t.companyId, t.code),
    unique('ledger_account_of_company').on(t.id, t.companyId),
    index('ledger_account_parent').on(t.parentId),
    foreignKey({ columns: [t.parentId, t.companyId], foreignColumns: [t.id, t.companyId], name: 'ledger_account_parent_of_company' }),
  ],
);

export const costCentre = pgTable(
  'cost_centre',
  {
    id: id(),
    companyId: ofCompany(),
    code: text('code').notNull(),
    name: text('name').notNull(),
    /** The cost centre that it is part of. */
    parentId: uuid('parent_id'),
    /** Who answers for it. */
    ownerId: uuid('owner_id').references(() => person.id),
    ...validity(),
  },
  (t) => [
    unique('cost_centre_code').on(t.companyId, t.code),
    unique('cost_centre_of_company').on(t.id, t.companyId),
    index('cost_centre_parent').on(t.parentId),
    foreignKey({ columns: [t.parentId, t.companyId], foreignColumns: [t.id, t.companyId], name: 'cost_centre_parent_of_company' }),
  ],
);

export const taxCode = pgTable(
  'tax_code',
  {
    id: id(),
    companyId: ofCompany(),
    code: text('code').notNull(),
    name: text('name').notNull(),
    /** Percent. */
    rate: numeric('rate').notNull(),
    /** Share of the tax that can be reclaimed, percent. */
    recoverable: numeric('recoverable').notNull().default('100'),
    reverseCharge: boolean('reverse_charge').notNull().default(false),
    accountId: uuid('account_id').notNull(),
    /** Where reverse charge tax is owed. */
    outputAccountId: uuid('output_account_id'),
    /** Percent of the net that is held back from the supplier, and the account it is owed on. */
    withheld: numeric('withheld').notNull().default('0'),
    withheldAccountId: uuid('withheld_account_id'),
    /** Later rates: each from its day on, for bills of that day. */
    laterRates: jsonb('later_rates').$type<{ from: string; rate: string }[]>().notNull().default([]),
    ...validity(),
  },
  (t) => [
    unique('tax_code_code').on(t.companyId, t.code),
    unique('tax_code_of_company').on(t.id, t.companyId),
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'tax_code_account',
    }),
    foreignKey({
      columns: [t.outputAccountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'tax_code_output_account',
    }),
    foreignKey({
      columns: [t.withheldAccountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'tax_code_withheld_account',
    }),
  ],
);

/** How an amount is shared out over cost centres, again and again: rent by floor area. */
export const distributionKey = pgTable(
  'distribution_key',
  { id: id(), companyId: ofCompany(), name: text('name').notNull(), active: boolean('active').notNull().default(true) },
  (t) => [unique('distribution_key_name').on(t.companyId, t.name), unique('distribution_key_of_company').on(t.id, t.companyId)],
);
export const distributionPart = pgTable(
  'distribution_part',
  {
    keyId: uuid('key_id').notNull(),
    companyId: uuid('company_id').notNull(),
    position: integer('position').notNull(),
    costCentreId: uuid('cost_centre_id').notNull(),
    /** Its share against the others': square metres, percent, heads. */
    weight: numeric('weight').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.keyId, t.position] }),
    foreignKey({
      columns: [t.keyId, t.companyId],
      foreignColumns: [distributionKey.id, distributionKey.companyId],
      name: 'distribution_part_key',
    }),
    foreignKey({
      columns: [t.costCentreId, t.companyId],
      foreignColumns: [costCentre.id, costCentre.companyId],
      name: 'distribution_part_centre',
    }),
  ],
);

export const period = pgTable(
  'period',
  {
    companyId: ofCompany(),
    year: integer('year').notNull(),
    month: integer('month').notNull(),
    open: boolean('open').notNull().default(true),
  },
  (t) => [primaryKey({ columns: [t.companyId, t.year, t.month] })],
);

export const exchangeRate = pgTable(
  'exchange_rate',
  {
    companyId: ofCompany(),
    currency: char('currency', { length: 3 }).notNull(),
    day: day('day').notNull(),
    /** Units of the company's currency for one of this one. */
    rate: numeric('rate').notNull(),
  },
  (t) => [primaryKey({ columns: [t.companyId, t.currency, t.day] }), index('exchange_rate_day').on(t.companyId, t.currency, t.day)],
);
