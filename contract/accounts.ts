import { Type, type Static } from '@sinclair/typebox';
import { DimensionField, Going, GoingShown } from './dimensions.ts';
import { Currency } from './operations.ts';
import { Code, Day, DecimalText, Id, Name, Nullable, validity } from './shared.ts';

/** expense and asset accounts take bill lines; tax, payable and bank are used by posting and payment. */
export const accountKinds = ['expense', 'asset', 'income', 'tax', 'payable', 'bank', 'equity', 'liability'] as const;
export const AccountKind = Type.Union(accountKinds.map((kind) => Type.Literal(kind)));

export const ListQuery = Type.Object({
  q: Type.Optional(Type.String({ maxLength: 100 })),
  cursor: Type.Optional(Type.String({ maxLength: 400 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});
export const PutAccount = Type.Object({
  code: Code,
  name: Name,
  group: Type.String({ minLength: 1, maxLength: 80, pattern: '\\S' }),
  kind: AccountKind,
  needsCostCentre: Type.Boolean(),
  /** The dimensions that its lines need, and what goes with it; as it is where it is not said. */
  needsDimensions: Type.Optional(Type.Array(DimensionField, { uniqueItems: true })),
  going: Type.Optional(Going),
  /** The account that it is a sub-account of. */
  parentId: Nullable(Id),
  /** False: it gathers the accounts under it and takes no lines itself. */
  postable: Type.Boolean(),
  /** The tax code that its lines usually have. */
  taxCodeId: Nullable(Id),
  ...validity,
});
export const PutCostCentre = Type.Object({
  code: Code,
  name: Name,
  /** The cost centre that it is part of, and who answers for it. */
  parentId: Nullable(Id),
  ownerId: Nullable(Id),
  /** What goes with it; as it is where it is not said. */
  going: Type.Optional(Going),
  ...validity,
});
const LaterRates = Type.Array(Type.Object({ from: Day, rate: DecimalText }), { maxItems: 20 });
export const PutTaxCode = Type.Object({
  code: Code,
  name: Name,
  rate: DecimalText,
  recoverable: DecimalText,
  reverseCharge: Type.Boolean(),
  accountId: Id,
  outputAccountId: Nullable(Id),
  /** Percent of the net that is held back from the supplier, and where it is owed; as they are where they are not said. */
  withheld: Type.Optional(DecimalText),
  withheldAccountId: Type.Optional(Nullable(Id)),
  /** Later rates, each from its day on; as they are where they are not said. */
  laterRates: Type.Optional(LaterRates),
  ...validity,
});
export const PutRate = Type.Object({ currency: Currency, day: Day, rate: DecimalText });
/** How an amount is shared out over cost centres: by weights against each other. */
export const PutDistribution = Type.Object({
  name: Name,
  active: Type.Boolean(),
  parts: Type.Array(Type.Object({ costCentreId: Id, weight: DecimalText }), { minItems: 2, maxItems: 50 }),
});
export const DistributionRow = Type.Object({
  id: Id,
  name: Type.String(),
  active: Type.Boolean(),
  parts: Type.Array(Type.Object({ costCentreId: Id, costCentre: Type.String(), weight: Type.String() })),
});
export const DistributionList = Type.Object({ distributions: Type.Array(DistributionRow) });
export type PutDistribution = Static<typeof PutDistribution>;
export type DistributionRow = Static<typeof DistributionRow>;
export type DistributionList = Static<typeof DistributionList>;
export const OpenYear = Type.Object({ year: Type.Integer({ minimum: 2000, maximum: 2099 }) });
export const Changed = Type.Object({ id: Id });

export const AccountRow = Type.Composite([
  Type.Omit(PutAccount, ['needsDimensions', 'going']),
  Type.Object({
    id: Id,
    parent: Nullable(Type.String()),
    taxCode: Nullable(Type.String()),
    needsDimensions: Type.Array(DimensionField),
    going: GoingShown,
  }),
]);
export const AccountList = Type.Object({ accounts: Type.Array(AccountRow), next: Nullable(Type.String()) });
export const CostCentreRow = Type.Composite([
  Type.Omit(PutCostCentre, ['going']),
  Type.Object({ id: Id, parent: Nullable(Type.String()), owner: Nullable(Type.String()), going: GoingShown }),
]);
export const CostCentreList = Type.Object({ costCentres: Type.Array(CostCentreRow), next: Nullable(Type.String()) });
export const TaxCodeRow = Type.Composite([
  Type.Omit(PutTaxCode, ['withheld', 'withheldAccountId', 'laterRates']),
  Type.Object({
    id: Id,
    account: Type.String(),
    outputAccount: Nullable(Type.String()),
    withheld: DecimalText,
    withheldAccountId: Nullable(Id),
    withheldAccount: Nullable(Type.String()),
    laterRates: LaterRates,
  }),
]);
export const TaxCodeList = Type.Object({ taxCodes: Type.Array(TaxCodeRow) });
export const RateList = Type.Object({ rates: Type.Array(PutRate), next: Nullable(Type.String()) });
export type PutAccount = Static<typeof PutAccount>;
export type PutCostCentre = Static<typeof PutCostCentre>;
export type PutTaxCode = Static<typeof PutTaxCode>;
export type PutRate = Static<typeof PutRate>;
export type AccountRow = Static<typeof AccountRow>;
export type AccountList = Static<typeof AccountList>;
export type CostCentreRow = Static<typeof CostCentreRow>;
export type CostCentreList = Static<typeof CostCentreList>;
export type TaxCodeRow = Static<typeof TaxCodeRow>;
export type TaxCodeList = Static<typeof TaxCodeList>;
export type RateList = Static<typeof RateList>;
