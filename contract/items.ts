import { Type, type Static } from '@sinclair/typebox';
import { Currency } from './operations.ts';
import { Code, DecimalText, Id, Name, Nullable } from './shared.ts';

/** What is bought again and again. Without a price: a power bill is an item with an account alone. */
export const PutItem = Type.Object({
  code: Code,
  name: Name,
  /** What suppliers call it: their codes, or what their lines say; several with commas between. */
  alsoCalled: Nullable(Type.String({ maxLength: 200 })),
  unit: Nullable(Type.String({ maxLength: 20 })),
  /** Of one unit, without tax; with its currency, or neither. */
  price: Nullable(DecimalText),
  currency: Nullable(Currency),
  accountId: Nullable(Id),
  taxCodeId: Nullable(Id),
  /** Kept in stock: its rows make receipts. */ stocked: Type.Boolean(),
  active: Type.Boolean(),
});
export const ItemRow = Type.Composite([
  PutItem,
  Type.Object({
    id: Id,
    account: Nullable(Type.String()),
    taxCode: Nullable(Type.String()),
    /** How much of it was bought into stock, less what was credited; null where it is not kept. */ bought: Nullable(Type.String()),
  }),
]);
export const ItemList = Type.Object({ items: Type.Array(ItemRow), next: Nullable(Type.String()) });
export type PutItem = Static<typeof PutItem>;
export type ItemRow = Static<typeof ItemRow>;
export type ItemList = Static<typeof ItemList>;
