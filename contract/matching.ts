import { Type, type Static } from '@sinclair/typebox';
import { DecimalText, Id, Nullable } from './shared.ts';

const version = { rowVersion: Type.Integer({ minimum: 1 }) };
/** A row is of this line of an order; of none (null); or as the matching finds it (left out). */
export const SetMatch = Type.Object({ ...version, row: Id, orderLineId: Type.Optional(Nullable(Id)) });
/** A bill is of no order, whatever it looks like; and back. */
export const SetWithoutOrder = Type.Object({ ...version, without: Type.Boolean() });

const Line = Type.Object({
  id: Id,
  order: Type.String(),
  orderId: Id,
  place: Type.Integer(),
  description: Type.String(),
  unit: Nullable(Type.String()),
  unitPrice: Type.String(),
  ordered: Type.String(),
  /** What has come; null where it is billed without a receipt. */
  received: Nullable(Type.String()),
  /** By other bills. */
  billed: Type.String(),
});
/** A bill beside the orders that it bills. */
export const BillOrders = Type.Object({
  withoutOrder: Type.Boolean(),
  /** It went on without a hand: all of it was as ordered. */
  passedAlone: Type.Boolean(),
  currency: Type.String(),
  lines: Type.Array(
    Type.Composite([
      Line,
      Type.Object({
        rows: Type.Array(Id),
        onBill: Type.String(),
        price: Nullable(Type.String()),
        overOrdered: Nullable(Type.String()),
        overReceived: Nullable(Type.String()),
        overPrice: Type.Array(Type.Object({ row: Id, each: Type.String(), total: Type.String() })),
        state: Type.Union(['open', 'part-billed', 'billed', 'over-billed'].map((s) => Type.Literal(s))),
      }),
    ]),
  ),
  rows: Type.Array(
    Type.Object({ row: Id, orderLineId: Nullable(Id), quantity: Type.String(), why: Type.String(), byHand: Type.Boolean() }),
  ),
  /** Lines that a row may be said to be of. */
  choices: Type.Array(Line),
  /** What a debit note for all that is over would come to, without tax; null where nothing is, or none can be drawn up. */
  debit: Nullable(Type.String()),
});
const Percent = Nullable(DecimalText);
/** How far bills may be from their orders; a limit that is not set is null. */
export const MatchingRules = Type.Object({
  pricePercent: Percent,
  priceAmount: Percent,
  quantityPercent: Percent,
  quantityAmount: Percent,
  which: Type.Union([Type.Literal('stricter'), Type.Literal('looser')]),
  /** A bill that is wholly as ordered goes to approval without a hand. */
  passes: Type.Boolean(),
});
export type BillOrders = Static<typeof BillOrders>;
export type MatchingRules = Static<typeof MatchingRules>;
