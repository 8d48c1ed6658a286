import { Type, type Static } from '@sinclair/typebox';
import { bases } from '@ledgerline/core/charges';
import { CodingShown } from './coding.ts';
import { Day, DecimalText, Id, Nullable } from './shared.ts';

const Basis = Type.Union(bases.map((b) => Type.Literal(b)));
/** Goods that came: a line of a receipt. */
export const GoodsRow = Type.Object({
  id: Id,
  receipt: Type.String(),
  receivedOn: Day,
  orderId: Id,
  order: Type.String(),
  supplier: Type.String(),
  code: Nullable(Type.String()),
  description: Type.String(),
  quantity: Type.String(),
  unit: Nullable(Type.String()),
  /** At the ordered price without tax, in the company's currency; null without a rate. */
  value: Nullable(Type.String()),
  /** Of one unit, in kg and in m³. */
  weight: Nullable(Type.String()),
  volume: Nullable(Type.String()),
  /** Where they are: what their part of a charge is posted to; nothing where that is not known. */
  shown: CodingShown,
});
export const GoodsList = Type.Object({ goods: Type.Array(GoodsRow) });
/** Goods by any part of an order's or receipt's number, a supplier's name, an item's code or words, and by the day they came. */
export const GoodsQuery = Type.Object({
  q: Type.Optional(Type.String({ maxLength: 100 })),
  from: Type.Optional(Day),
  to: Type.Optional(Day),
});
/** How a row of a bill is shared; `suggested`: what the bill itself bills. */
export const ChargeShares = Type.Object({
  basis: Nullable(Basis),
  /** The company's, in which goods have their value. */
  baseCurrency: Type.String(),
  goods: Type.Array(Type.Composite([GoodsRow, Type.Object({ amount: Type.String() })])),
  suggested: Type.Array(GoodsRow),
});
/** Shares a charge over goods; no basis: it is simply an expense. `amount`: what goods bear, where a person says so. */
export const ShareCharge = Type.Object({
  rowVersion: Type.Integer({ minimum: 1 }),
  row: Id,
  basis: Nullable(Basis),
  goods: Type.Array(Type.Object({ id: Id, amount: Nullable(DecimalText) }), { maxItems: 200 }),
});
export type GoodsRow = Static<typeof GoodsRow>;
export type GoodsList = Static<typeof GoodsList>;
export type GoodsQuery = Static<typeof GoodsQuery>;
export type ChargeShares = Static<typeof ChargeShares>;
export type ShareCharge = Static<typeof ShareCharge>;
