import { Type, type Static } from '@sinclair/typebox';
import { SheetFormat } from './imports.ts';
import { Day, DecimalText, Id, Nullable } from './shared.ts';

/** What came of an order. Quantities in the order lines' units; below zero where something went back. */
export const NewReceipt = Type.Object({
  orderId: Id,
  number: Type.String({ minLength: 1, maxLength: 40, pattern: '\\S' }),
  receivedOn: Day,
  note: Nullable(Type.String({ maxLength: 300 })),
  lines: Type.Array(Type.Object({ orderLineId: Id, quantity: DecimalText }), { minItems: 1, maxItems: 500 }),
});
export const Receipt = Type.Object({
  id: Id,
  number: Type.String(),
  receivedOn: Day,
  note: Nullable(Type.String()),
  person: Nullable(Type.String()),
  lines: Type.Array(Type.Object({ orderLineId: Id, quantity: Type.String() })),
});
export type NewReceipt = Static<typeof NewReceipt>;
export type Receipt = Static<typeof Receipt>;

/** What had come by a day and was not billed then, at the prices that were ordered, without tax. */
export const NotBilledQuery = Type.Object({ on: Day });
export const NotBilledFileQuery = Type.Object({ on: Day, format: SheetFormat });
export const NotBilled = Type.Object({
  on: Day,
  /** The company's, and the sum of all lines that have a rate. */
  currency: Type.String(),
  total: Type.String(),
  withoutRate: Type.Integer(),
  lines: Type.Array(
    Type.Object({
      /** The order’s line. */ id: Id,
      orderId: Id,
      order: Type.String(),
      supplierId: Id,
      supplier: Type.String(),
      currency: Type.String(),
      place: Type.Integer(),
      description: Type.String(),
      unit: Nullable(Type.String()),
      received: Type.String(),
      billed: Type.String(),
      net: Type.String(),
      base: Nullable(Type.String()),
    }),
  ),
});
export type NotBilled = Static<typeof NotBilled>;
