import { Type, type Static, type TOptional, type TSchema } from '@sinclair/typebox';
import { codingFields, type CodingField as Field } from '@ledgerline/core/bills';
import { CodingField } from './dimensions.ts';
import { Day, Id, Nullable } from './shared.ts';

const each = <T extends TSchema>(schema: T) =>
  Object.fromEntries(codingFields.map((field) => [field, Type.Optional(schema)])) as unknown as Record<Field, TOptional<T>>;
/** What lines are coded with; what is not named is left alone. */
export const CodingGiven = Type.Object(each(Nullable(Id)));
/** The codes of a coding, in words. */
export const CodingShown = Type.Array(Type.Object({ field: CodingField, code: Type.String(), name: Type.String() }));

/**
 * How a company codes what nothing else tells anything about. `roundingAccountId`: where the cents go that are left over when a foreign
 * bill is converted; null: to its largest row. `accrualAccountId`: what is owed for goods that came without a bill; null: none is accrued.
 */
export const PutUsualCoding = Type.Object({
  coding: CodingGiven,
  roundingAccountId: Type.Optional(Nullable(Id)),
  accrualAccountId: Type.Optional(Nullable(Id)),
});
export const UsualCoding = Type.Object({
  coding: CodingGiven,
  shown: CodingShown,
  roundingAccountId: Nullable(Id),
  roundingAccount: Nullable(Type.String()),
  accrualAccountId: Nullable(Id),
  accrualAccount: Nullable(Type.String()),
});
export type PutUsualCoding = Static<typeof PutUsualCoding>;
export type UsualCoding = Static<typeof UsualCoding>;

/** A text, or several with commas between. */
const Words = Type.String({ minLength: 2, maxLength: 200, pattern: '[^\\s,]{2}' });
/** Lines of a supplier (null: of any) that say something (null: whatever they say) are coded so. */
export const PutCodingRule = Type.Object({
  supplierId: Nullable(Id),
  words: Nullable(Words),
  coding: CodingGiven,
  active: Type.Boolean(),
});
export const CodingRuleRow = Type.Object({
  id: Id,
  supplierId: Nullable(Id),
  supplier: Nullable(Type.String()),
  words: Nullable(Type.String()),
  coding: CodingGiven,
  shown: CodingShown,
  active: Type.Boolean(),
  madeBy: Type.String(),
});
export const CodingRuleList = Type.Object({ rules: Type.Array(CodingRuleRow) });
export const CodingRulesQuery = Type.Object({ supplierId: Type.Optional(Id) });

export const CodingTrialQuery = Type.Object({ supplierId: Type.Optional(Id), words: Type.Optional(Words), ...each(Id) });
/** A rule tried on the lines posted in the last year: how many it is about, how many were coded as it says; rows in hand that it codes. */
export const CodingTrial = Type.Object({
  lines: Type.Integer(),
  same: Type.Integer(),
  otherwise: Type.Integer(),
  inHand: Type.Integer(),
  examples: Type.Array(
    Type.Object({
      billId: Id,
      invoiceNumber: Nullable(Type.String()),
      supplier: Nullable(Type.String()),
      description: Type.String(),
      day: Nullable(Day),
      same: Type.Boolean(),
      /** How it was coded, in what the rule says. */ was: Type.String(),
    }),
  ),
});

/** Posted lines of a supplier that say alike, and how they were coded: what new ones are suggested by. */
export const Learned = Type.Object({
  lines: Type.Integer(),
  groups: Type.Array(
    Type.Object({
      /** What tells them from others. */ words: Type.String(),
      /** As the latest said it. */ description: Type.String(),
      times: Type.Integer(),
      codings: Type.Array(Type.Object({ shown: CodingShown, coding: CodingGiven, times: Type.Integer(), last: Day })),
    }),
  ),
});
/** Lines of these words, as far as they are posted, say nothing any more. */
export const ForgetLines = Type.Object({ words: Type.String({ minLength: 1, maxLength: 600 }) });

export type CodingGiven = Static<typeof CodingGiven>;
export type CodingShown = Static<typeof CodingShown>;
export type PutCodingRule = Static<typeof PutCodingRule>;
export type CodingRuleRow = Static<typeof CodingRuleRow>;
export type CodingRuleList = Static<typeof CodingRuleList>;
export type CodingTrialQuery = Static<typeof CodingTrialQuery>;
export type CodingTrial = Static<typeof CodingTrial>;
export type Learned = Static<typeof Learned>;

/** Rows in hand without an account that say alike, over many bills. */
export const AlikeRows = Type.Object({
  groups: Type.Array(
    Type.Object({
      key: Type.String(),
      supplierId: Nullable(Id),
      supplier: Nullable(Type.String()),
      /** As the first of them says it. */ description: Type.String(),
      rows: Type.Array(
        Type.Object({
          billId: Id,
          lineId: Id,
          invoiceNumber: Nullable(Type.String()),
          day: Nullable(Day),
          description: Type.String(),
          amount: Nullable(Type.String()),
          currency: Type.String(),
        }),
      ),
      /** What the rows may be coded with, as they were suggested, the likeliest first. */
      offers: Type.Array(Type.Object({ field: CodingField, id: Id, code: Type.String(), name: Type.String(), why: Type.String() })),
    }),
  ),
  /** There are more uncoded rows than are shown. */ more: Type.Boolean(),
});
/** Codes rows of several bills alike: what nobody typed there. */
export const CodeAlike = Type.Object({
  rows: Type.Array(Type.Object({ billId: Id, lineId: Id }), { minItems: 1, maxItems: 500 }),
  coding: CodingGiven,
});
/** Bills that moved on meanwhile are left as they are, and told. */
export const CodedAlike = Type.Object({ coded: Type.Integer(), bills: Type.Integer(), left: Type.Array(Type.String()) });
export type AlikeRows = Static<typeof AlikeRows>;
export type CodeAlike = Static<typeof CodeAlike>;
export type CodedAlike = Static<typeof CodedAlike>;
