import { Type, type Static, type TOptional } from '@sinclair/typebox';
import { codingFields, dimensionFields, type CodingField as Coded } from '@ledgerline/core/bills';
import { CodingField } from './dimensions.ts';
import { Day, Id, Nullable } from './shared.ts';

export const choiceKinds = ['suppliers', 'accounts', 'all-accounts', 'cost-centres', 'tax-codes', 'items', ...dimensionFields] as const;
export type ChoiceKind = (typeof choiceKinds)[number];

/** What a type-ahead field offers. `terms` and `currency` of suppliers, `detail` for telling alike ones apart. */
export const Choice = Type.Object({
  id: Id,
  code: Type.String(),
  name: Type.String(),
  detail: Nullable(Type.String()),
  terms: Type.Optional(Nullable(Type.String())),
  currency: Type.Optional(Type.String()),
  /** Of an item: of one unit, and what it costs. */
  unit: Type.Optional(Nullable(Type.String())),
  price: Type.Optional(Nullable(Type.String())),
  /** Of an item: it is kept in stock. */ stocked: Type.Optional(Type.Boolean()),
  /** What goes with it on a line: the usual tax code of an account, the branch of a cost centre, the account of an item. */
  going: Type.Optional(Type.Array(Type.Object({ field: CodingField, id: Id, code: Type.String(), name: Type.String() }))),
});
export const ChoicesQuery = Type.Object({
  of: Type.Union(choiceKinds.map((kind) => Type.Literal(kind))),
  q: Type.Optional(Type.String({ maxLength: 100 })),
  /** Only what bills of this day may use; today's where none is given. */
  day: Type.Optional(Day),
  /** What else the line is coded with: only what goes together with it is offered. */
  ...(Object.fromEntries(codingFields.map((field) => [field, Type.Optional(Id)])) as Record<Coded, TOptional<typeof Id>>),
});
export const Choices = Type.Object({ choices: Type.Array(Choice) });
export const Currencies = Type.Object({ currencies: Type.Array(Type.String()) });
export type Choice = Static<typeof Choice>;
export type Choices = Static<typeof Choices>;
