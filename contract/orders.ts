import { Type, type Static } from '@sinclair/typebox';
import { CodingGiven, CodingShown } from './coding.ts';
import { Currency } from './operations.ts';
import { Receipt } from './receipts.ts';
import { Day, DecimalText, Id, Nullable } from './shared.ts';

/** A line of an order. Without an id it is new; lines that are not named any more are gone. */
const PutOrderLine = Type.Object({
  id: Type.Optional(Id),
  itemId: Nullable(Id),
  code: Nullable(Type.String({ maxLength: 60 })),
  description: Type.String({ minLength: 1, maxLength: 500, pattern: '\\S' }),
  quantity: DecimalText,
  unit: Nullable(Type.String({ maxLength: 20 })),
  /** Of one unit, without tax. */
  unitPrice: DecimalText,
  /** Of one unit, in kg and in m³: what freight may be shared by; as it is, or unknown, where it is not said. */
  weight: Type.Optional(Nullable(DecimalText)),
  volume: Type.Optional(Nullable(DecimalText)),
  /** Bills of it wait for what has come; as it is, or yes, where it is not said. */
  needsReceipt: Type.Optional(Type.Boolean()),
  /** What bills of it are coded with. */
  coding: CodingGiven,
});
export const PutOrder = Type.Object({
  number: Type.String({ minLength: 1, maxLength: 40, pattern: '[A-Za-z0-9]' }),
  supplierId: Id,
  orderDate: Day,
  currency: Currency,
  note: Nullable(Type.String({ maxLength: 300 })),
  active: Type.Boolean(),
  lines: Type.Array(PutOrderLine, { minItems: 1, maxItems: 500 }),
});
const head = {
  id: Id,
  number: Type.String(),
  supplierId: Id,
  supplier: Type.String(),
  orderDate: Day,
  currency: Type.String(),
  note: Nullable(Type.String()),
  active: Type.Boolean(),
  /** Quantity times price of all lines, without tax. */
  net: Type.String(),
};
/** How far an order has come: of its lines, as a whole. */
const OrderState = Type.Union([Type.Literal('none'), Type.Literal('part'), Type.Literal('all')]);
export const OrderRow = Type.Object({ ...head, lines: Type.Integer(), received: OrderState, billed: OrderState });
export const OrderList = Type.Object({ orders: Type.Array(OrderRow), next: Nullable(Type.String()) });
/** Bills that bill an order. */
const OrderBill = Type.Object({
  id: Id,
  kind: Type.String(),
  invoiceNumber: Nullable(Type.String()),
  issueDate: Nullable(Day),
  stage: Type.String(),
  /** What it bills of the order, without tax, at the order’s prices. */
  net: Type.String(),
});
export const Order = Type.Object({
  ...head,
  receipts: Type.Array(Receipt),
  bills: Type.Array(OrderBill),
  lines: Type.Array(
    Type.Composite([
      Type.Omit(PutOrderLine, ['id', 'needsReceipt', 'weight', 'volume']),
      Type.Object({
        id: Id,
        item: Nullable(Type.String()),
        net: Type.String(),
        shown: CodingShown,
        needsReceipt: Type.Boolean(),
        weight: Nullable(Type.String()),
        volume: Nullable(Type.String()),
        received: Type.String(),
        /** By all bills that are not discarded. */
        billed: Type.String(),
      }),
    ]),
  ),
});
export const OrdersQuery = Type.Object({
  q: Type.Optional(Type.String({ maxLength: 100 })),
  supplierId: Type.Optional(Id),
  /** Only those that bills are still expected of. */
  open: Type.Optional(Type.Literal('1')),
  cursor: Type.Optional(Type.String({ maxLength: 400 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});
export type PutOrder = Static<typeof PutOrder>;
export type PutOrderLine = Static<typeof PutOrderLine>;
export type OrderRow = Static<typeof OrderRow>;
export type OrderList = Static<typeof OrderList>;
export type Order = Static<typeof Order>;
export type OrdersQuery = Static<typeof OrdersQuery>;
