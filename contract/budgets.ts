import { Type, type Static } from '@sinclair/typebox';
import { DecimalText, Id, Nullable } from './shared.ts';

const Year = Type.Integer({ minimum: 2000, maximum: 2099 });
/** January to December, in the company's currency; null where nothing is planned. */
const Months = Type.Array(Nullable(DecimalText), { minItems: 12, maxItems: 12 });
/** What may be spent on an account in a year, by a cost centre or (null) by all together. All months null: no budget. */
export const PutBudget = Type.Object({ accountId: Id, costCentreId: Nullable(Id), year: Year, months: Months });
export const BudgetQuery = Type.Object({
  year: Year,
  q: Type.Optional(Type.String({ maxLength: 100 })),
  cursor: Type.Optional(Type.String({ maxLength: 400 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});
export const BudgetRow = Type.Object({
  accountId: Id,
  account: Type.String(),
  costCentreId: Nullable(Id),
  costCentre: Nullable(Type.String()),
  months: Months,
  /** Of the months: their sum; what was posted in the year; what waits in bills that are not posted, without tax. */
  year: Type.String(),
  posted: Type.String(),
  waiting: Type.String(),
});
export const BudgetList = Type.Object({ budgets: Type.Array(BudgetRow), next: Nullable(Type.String()) });
export type PutBudget = Static<typeof PutBudget>;
export type BudgetQuery = Static<typeof BudgetQuery>;
export type BudgetRow = Static<typeof BudgetRow>;
export type BudgetList = Static<typeof BudgetList>;
