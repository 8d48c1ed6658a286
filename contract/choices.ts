import { Type, type Static } from '@sinclair/typebox';
import { Day, Id, Nullable } from './shared.ts';

export const choiceKinds = ['suppliers', 'accounts', 'all-accounts', 'cost-centres', 'tax-codes'] as const;
export type ChoiceKind = (typeof choiceKinds)[number];

/** What a type-ahead field offers. `terms` and `currency` of suppliers, `detail` for telling alike ones apart. */
export const Choice = Type.Object({
  id: Id,
  code: Type.String(),
  name: Type.String(),
  detail: Nullable(Type.String()),
  terms: Type.Optional(Nullable(Type.String())),
  currency: Type.Optional(Type.String()),
  /** Of an account: the tax code that its lines usually have. */
  usualTax: Type.Optional(Nullable(Type.Object({ id: Id, code: Type.String(), name: Type.String() }))),
});
export const ChoicesQuery = Type.Object({
  of: Type.Union(choiceKinds.map((kind) => Type.Literal(kind))),
  q: Type.Optional(Type.String({ maxLength: 100 })),
  /** Only what bills of this day may use; today's where none is given. */
  day: Type.Optional(Day),
});
export const Choices = Type.Object({ choices: Type.Array(Choice) });
export const Currencies = Type.Object({ currencies: Type.Array(Type.String()) });
export type Choice = Static<typeof Choice>;
export type Choices = Static<typeof Choices>;
