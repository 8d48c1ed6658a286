import { Type, type Static } from '@sinclair/typebox';
import { Day, Id, Nullable } from './shared.ts';

const text = (max: number) => Nullable(Type.String({ maxLength: max }));
export const NewSupplier = Type.Object({
  name: Type.String({ minLength: 2, maxLength: 120, pattern: '\\S' }),
  taxId: text(30),
  iban: text(40),
  email: text(200),
  currency: Type.String({ pattern: '^[A-Z]{3}$' }),
  terms: text(60),
  address: text(300),
});
export const SuppliersQuery = Type.Object({ q: Type.Optional(Type.String({ maxLength: 100 })) });
export const SupplierRow = Type.Object({
  id: Id,
  code: Type.String(),
  name: Type.String(),
  currency: Type.String(),
  terms: Nullable(Type.String()),
  taxId: Nullable(Type.String()),
  bills: Type.Integer(),
  open: Type.Array(Type.Object({ currency: Type.String(), amount: Type.String() })),
  lastBill: Nullable(Day),
});
export const SupplierList = Type.Object({ suppliers: Type.Array(SupplierRow) });
export const SupplierAccount = Type.Object({
  id: Id,
  code: Type.String(),
  name: Type.String(),
  taxId: Nullable(Type.String()),
  iban: Nullable(Type.String()),
  email: Nullable(Type.String()),
  phone: Nullable(Type.String()),
  address: Nullable(Type.String()),
  currency: Type.String(),
  terms: Nullable(Type.String()),
  usual: Type.Object({ account: Nullable(Type.String()), costCentre: Nullable(Type.String()), taxCode: Nullable(Type.String()) }),
  open: Type.Array(Type.Object({ currency: Type.String(), amount: Type.String() })),
  items: Type.Array(
    Type.Object({
      billId: Id,
      kind: Type.String(),
      invoiceNumber: Type.String(),
      issueDate: Nullable(Day),
      dueDate: Nullable(Day),
      currency: Type.String(),
      amount: Type.String(),
      open: Type.String(),
      entry: Type.String(),
      entryId: Id,
    }),
  ),
});
export type NewSupplier = Static<typeof NewSupplier>;
export type SupplierRow = Static<typeof SupplierRow>;
export type SupplierList = Static<typeof SupplierList>;
export type SupplierAccount = Static<typeof SupplierAccount>;

/** The lists that type-ahead fields choose from. */
export const Choice = Type.Object({ id: Id, code: Type.String(), name: Type.String(), detail: Nullable(Type.String()) });
export const TaxChoice = Type.Intersect([
  Choice,
  Type.Object({ rate: Type.String(), recoverable: Type.String(), reverseCharge: Type.Boolean() }),
]);
export const AccountChoice = Type.Intersect([Choice, Type.Object({ kind: Type.String(), needsCostCentre: Type.Boolean() })]);
export const SupplierChoice = Type.Intersect([Choice, Type.Object({ currency: Type.String(), terms: Nullable(Type.String()) })]);
export const Choices = Type.Object({
  accounts: Type.Array(AccountChoice),
  costCentres: Type.Array(Choice),
  taxCodes: Type.Array(TaxChoice),
  suppliers: Type.Array(SupplierChoice),
  currencies: Type.Array(Type.String()),
});
export type Choice = Static<typeof Choice>;
export type Choices = Static<typeof Choices>;
