import { Type, type Static } from '@sinclair/typebox';
import { Day, DecimalText, Id, Nullable } from './shared.ts';

/** An entry that was posted for what had come and was not billed, and the one that takes it back. */
const PostedAccrual = Type.Object({
  id: Id,
  entryId: Id,
  entry: Type.String(),
  backId: Id,
  back: Type.String(),
  person: Type.String(),
  at: Type.String(),
  /** In base currency; below zero where it took too much off again. */
  amount: Type.String(),
});
/** What is to be posted at the end of a month for what had come and was not billed then. */
export const Accrual = Type.Object({
  on: Day,
  /** The day on which it is taken back. */
  backOn: Day,
  currency: Type.String(),
  /** What is owed for it; null where the company has no account for it. */
  account: Nullable(Type.String()),
  posted: Type.Array(PostedAccrual),
  /** What the posted do not have, line by line, as it would be posted now. */
  lines: Type.Array(
    Type.Object({
      order: Type.String(),
      place: Type.Integer(),
      description: Type.String(),
      supplier: Type.String(),
      account: Type.String(),
      accountName: Type.String(),
      costCentre: Nullable(Type.String()),
      dimensions: Type.Array(Type.String()),
      amount: Type.String(),
    }),
  ),
  total: Type.String(),
  /** Why it cannot be posted, in sentences. */
  troubles: Type.Array(Type.String()),
});
export const AccrualQuery = Type.Object({ on: Day });
/** `total`: as it was seen. Refused where it is another meanwhile. */
export const PostAccrual = Type.Object({ on: Day, total: DecimalText });
export type Accrual = Static<typeof Accrual>;
export type PostAccrual = Static<typeof PostAccrual>;
