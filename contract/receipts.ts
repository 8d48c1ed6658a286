import { Type, type Static } from '@sinclair/typebox';
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
