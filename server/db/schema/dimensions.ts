import { boolean, foreignKey, index, pgTable, primaryKey, text, unique, uuid, type AnyPgColumn } from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import { dimensionFields, type CodingField, type DimensionField } from '@ledgerline/core/bills';
import { costCentre, ledgerAccount, validity } from './accounts.ts';
import { day, id } from './columns.ts';
import { company } from './people.ts';

const ofCompany = () =>
  uuid('company_id')
    .notNull()
    .references(() => company.id);

/** What a company codes by beside account and cost centre, named by itself: project, branch, fund. */
export const dimension = pgTable(
  'dimension',
  {
    companyId: ofCompany(),
    field: text('field').$type<DimensionField>().notNull(),
    name: text('name').notNull(),
    /** Every line needs one, whatever its account. */
    always: boolean('always').notNull().default(false),
    /** Its values are the company's fixed assets, with what is known of each. */
    assets: boolean('assets').notNull().default(false),
    active: boolean('active').notNull().default(true),
  },
  (t) => [primaryKey({ columns: [t.companyId, t.field] }), unique('dimension_name').on(t.companyId, t.name)],
);

export const dimensionValue = pgTable(
  'dimension_value',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    field: text('field').$type<DimensionField>().notNull(),
    code: text('code').notNull(),
    name: text('name').notNull(),
    /** Of an asset: the account it stands on, the day it came into use, what is on its plate, and where it is. */
    accountId: uuid('account_id'),
    inUseFrom: day('in_use_from'),
    serial: text('serial'),
    location: text('location'),
    ...validity(),
  },
  (t) => [
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'dimension_value_account',
    }),
    unique('dimension_value_code').on(t.companyId, t.field, t.code),
    unique('dimension_value_of_company').on(t.id, t.companyId),
    unique('dimension_value_of_field').on(t.id, t.companyId, t.field),
    foreignKey({
      columns: [t.companyId, t.field],
      foreignColumns: [dimension.companyId, dimension.field],
      name: 'dimension_value_dimension',
    }),
  ],
);

/** A value of a dimension on a line, of a bill or of the journal. The database knows that it is of this company and of this dimension. */
export const dimensionColumns = () => ({
  dimension1: uuid('dimension_1'),
  dimension2: uuid('dimension_2'),
  dimension3: uuid('dimension_3'),
  dimension4: uuid('dimension_4'),
  dimension5: uuid('dimension_5'),
  dimension6: uuid('dimension_6'),
});
/** That they are of the line's company. */
export const dimensionKeys = (table: string, t: Record<DimensionField | 'companyId', AnyPgColumn>) =>
  dimensionFields.map((field) =>
    foreignKey({
      columns: [t[field], t.companyId],
      foreignColumns: [dimensionValue.id, dimensionValue.companyId],
      name: `${table}_${field}`,
    }),
  );

/** What goes with an account, a cost centre or a value: the branch of a cost centre, the fund of a project. */
export const goingWith = pgTable(
  'going_with',
  {
    companyId: ofCompany(),
    accountId: uuid('account_id'),
    costCentreId: uuid('cost_centre_id'),
    ofValueId: uuid('of_value_id'),
    /** The one of these that is there: kept by the database. */
    sourceId: uuid('source_id')
      .notNull()
      .generatedAlwaysAs(sql`coalesce(account_id, cost_centre_id, of_value_id)`),
    field: text('field').$type<DimensionField>().notNull(),
    valueId: uuid('value_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.sourceId, t.field] }),
    index('going_with_company').on(t.companyId),
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'going_with_account',
    }),
    foreignKey({
      columns: [t.costCentreId, t.companyId],
      foreignColumns: [costCentre.id, costCentre.companyId],
      name: 'going_with_centre',
    }),
    foreignKey({
      columns: [t.ofValueId, t.companyId],
      foreignColumns: [dimensionValue.id, dimensionValue.companyId],
      name: 'going_with_of',
    }),
    foreignKey({
      columns: [t.valueId, t.companyId, t.field],
      foreignColumns: [dimensionValue.id, dimensionValue.companyId, dimensionValue.field],
      name: 'going_with_value',
    }),
  ],
);

/** Which codings go together: where one field's code is among these, the other's has to be among those. */
export const combination = pgTable(
  'combination',
  {
    id: id(),
    companyId: ofCompany(),
    whenField: text('when_field').$type<CodingField>().notNull(),
    /** Codes and ranges as people write them. */
    whenCodes: text('when_codes').notNull(),
    onlyField: text('only_field').$type<CodingField>().notNull(),
    onlyCodes: text('only_codes').notNull(),
    active: boolean('active').notNull().default(true),
  },
  (t) => [index('combination_company').on(t.companyId)],
);
