import { Type, type Static } from '@sinclair/typebox';
import { codingFields, dimensionFields } from '@ledgerline/core/bills';
import { Code, Day, Id, Name, Nullable, validity } from './shared.ts';

export const DimensionField = Type.Union(dimensionFields.map((field) => Type.Literal(field)));
export const CodingField = Type.Union(codingFields.map((field) => Type.Literal(field)));

/** What goes with an account, a cost centre or another value where it stands on a line. */
export const Going = Type.Array(Type.Object({ field: DimensionField, valueId: Id }), { maxItems: dimensionFields.length });
/** The same, with the value's code and name. */
export const GoingShown = Type.Array(Type.Object({ field: DimensionField, valueId: Id, value: Type.String() }));

/** A dimension of a company's own. `always`: every line has one; not `active`: it is not asked for any more. */
export const PutDimension = Type.Object({
  name: Type.String({ minLength: 1, maxLength: 40, pattern: '\\S' }),
  always: Type.Boolean(),
  active: Type.Boolean(),
  /** Its values are the company's fixed assets; as it is where it is not said. */
  assets: Type.Optional(Type.Boolean()),
});
export const DimensionRow = Type.Composite([
  Type.Omit(PutDimension, ['assets']),
  Type.Object({ field: DimensionField, values: Type.Integer(), assets: Type.Boolean() }),
]);
export const DimensionList = Type.Object({ dimensions: Type.Array(DimensionRow) });
export const DimensionMade = Type.Object({ field: DimensionField });

const detail = Nullable(Type.String({ maxLength: 120 }));
/** What is known of a fixed asset: the account it stands on, the day it came into use, what is on its plate, and where it is. */
export const Asset = Type.Object({ accountId: Nullable(Id), inUseFrom: Nullable(Day), serial: detail, location: detail });
export const PutDimensionValue = Type.Object({
  field: DimensionField,
  code: Code,
  name: Name,
  going: Type.Optional(Going),
  /** Of a fixed asset; as it is where it is not said. */
  asset: Type.Optional(Asset),
  ...validity,
});
export const DimensionValueRow = Type.Composite([
  Type.Omit(PutDimensionValue, ['going', 'asset']),
  Type.Object({ id: Id, going: GoingShown, asset: Asset, account: Nullable(Type.String()) }),
]);
export const DimensionValueList = Type.Object({ values: Type.Array(DimensionValueRow), next: Nullable(Type.String()) });
export const DimensionValuesQuery = Type.Object({
  field: DimensionField,
  q: Type.Optional(Type.String({ maxLength: 100 })),
  cursor: Type.Optional(Type.String({ maxLength: 400 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});

const Codes = Type.String({ minLength: 1, maxLength: 500, pattern: '\\S' });
/** Where the one field's code is among these, the other's has to be among those. Codes and ranges: "6100 to 6199, 63*". */
const rule = { whenField: CodingField, whenCodes: Codes, onlyField: CodingField, onlyCodes: Codes };
export const PutCombination = Type.Object({ ...rule, active: Type.Boolean() });
export const CombinationRow = Type.Composite([PutCombination, Type.Object({ id: Id })]);
export const CombinationList = Type.Object({ combinations: Type.Array(CombinationRow) });
export const CombinationQuery = Type.Object(rule);
/** What such a rule would do: rows in hand that it stops, and what was posted in the last year against it. */
export const CombinationEffect = Type.Object({
  stopped: Type.Integer(),
  bills: Type.Integer(),
  posted: Type.Integer(),
  against: Type.Integer(),
  examples: Type.Array(
    Type.Object({
      billId: Id,
      invoiceNumber: Nullable(Type.String()),
      supplier: Nullable(Type.String()),
      description: Type.String(),
      has: Type.String(),
      with: Type.String(),
    }),
  ),
});

export type Going = Static<typeof Going>;
export type GoingShown = Static<typeof GoingShown>;
export type Asset = Static<typeof Asset>;
export type PutDimension = Static<typeof PutDimension>;
export type DimensionRow = Static<typeof DimensionRow>;
export type DimensionList = Static<typeof DimensionList>;
export type PutDimensionValue = Static<typeof PutDimensionValue>;
export type DimensionValueRow = Static<typeof DimensionValueRow>;
export type DimensionValueList = Static<typeof DimensionValueList>;
export type PutCombination = Static<typeof PutCombination>;
export type CombinationRow = Static<typeof CombinationRow>;
export type CombinationList = Static<typeof CombinationList>;
export type CombinationQuery = Static<typeof CombinationQuery>;
export type CombinationEffect = Static<typeof CombinationEffect>;
