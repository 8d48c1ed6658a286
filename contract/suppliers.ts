import { Type, type Static } from '@sinclair/typebox';
import { CodingGiven, CodingShown } from './coding.ts';
import { Day, Id, Nullable } from './shared.ts';

const text = (max: number) => Nullable(Type.String({ maxLength: max }));
const shared = {
  name: Type.String({ minLength: 2, maxLength: 120, pattern: '\\S' }),
  taxId: text(30),
  email: text(200),
  phone: text(40),
  address: text(300),
  currency: Type.String({ pattern: '^[A-Z]{3}$' }),
  terms: text(60),
};
/** Somebody at a supplier, and what about one turns to them. */
export const Contact = Type.Object({
  name: Type.String({ minLength: 2, maxLength: 120, pattern: '\\S' }),
  about: text(80),
  email: text(200),
  phone: text(40),
});
/** `evenSo`: another supplier has the same tax number or bank account, and the person knows. */
export const NewSupplier = Type.Object({ ...shared, iban: text(40), evenSo: Type.Optional(Type.Boolean()) });
export const ChangeSupplier = Type.Object({
  ...shared,
  /** How its lines are usually coded; what is not named stays as it is. */
  coding: CodingGiven,
  /** Whether its posted lines say how new ones are coded; as it is where it is not said. */
  suggests: Type.Optional(Type.Boolean()),
  /** Why no bill of it goes on, null: they do; as it is where it is not said. */
  blocked: Type.Optional(Nullable(Type.String({ minLength: 3, maxLength: 200, pattern: '\\S' }))),
  /** Why nothing is paid to it for now, null: it is paid; as it is where it is not said. */
  paymentsHeld: Type.Optional(Nullable(Type.String({ minLength: 3, maxLength: 200, pattern: '\\S' }))),
  /** Tax numbers in other countries, and where else it is; as they are where they are not said. */
  otherTaxIds: Type.Optional(Type.Array(Type.String({ minLength: 3, maxLength: 30, pattern: '\\S' }), { maxItems: 10 })),
  otherAddresses: Type.Optional(Type.Array(Type.String({ minLength: 3, maxLength: 300, pattern: '\\S' }), { maxItems: 10 })),
  /** Whom one reaches there; as they are where they are not said. */
  contacts: Type.Optional(Type.Array(Contact, { maxItems: 20 })),
  rowVersion: Type.Integer({ minimum: 1 }),
  evenSo: Type.Optional(Type.Boolean()),
});
export const NewBankAccount = Type.Object({
  iban: Type.String({ minLength: 5, maxLength: 42 }),
  /** Where the details came from. */
  note: Type.String({ minLength: 3, maxLength: 300, pattern: '\\S' }),
  evenSo: Type.Optional(Type.Boolean()),
});
/** How a second person made sure. */
export const VerifyBankAccount = Type.Object({ how: Type.String({ minLength: 5, maxLength: 300, pattern: '\\S' }) });
export const BankAccount = Type.Object({
  id: Id,
  iban: Type.String(),
  state: Type.Union([Type.Literal('verified'), Type.Literal('waiting'), Type.Literal('retired')]),
  note: Nullable(Type.String()),
  proposedBy: Nullable(Type.String()),
  proposedById: Nullable(Id),
  proposedAt: Type.String(),
  verifiedBy: Nullable(Type.String()),
  verifiedAt: Nullable(Type.String()),
  how: Nullable(Type.String()),
});
export const SuppliersQuery = Type.Object({
  q: Type.Optional(Type.String({ maxLength: 100 })),
  cursor: Type.Optional(Type.String({ maxLength: 400 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});
export const SupplierRow = Type.Object({
  id: Id,
  code: Type.String(),
  name: Type.String(),
  currency: Type.String(),
  terms: Nullable(Type.String()),
  taxId: Nullable(Type.String()),
  blocked: Nullable(Type.String()),
  paymentsHeld: Nullable(Type.String()),
  bills: Type.Integer(),
  open: Type.Array(Type.Object({ currency: Type.String(), amount: Type.String() })),
  lastBill: Nullable(Day),
});
export const SupplierList = Type.Object({ suppliers: Type.Array(SupplierRow), next: Nullable(Type.String()) });
export const SupplierAccount = Type.Object({
  id: Id,
  code: Type.String(),
  name: Type.String(),
  taxId: Nullable(Type.String()),
  bankAccounts: Type.Array(BankAccount),
  email: Nullable(Type.String()),
  phone: Nullable(Type.String()),
  address: Nullable(Type.String()),
  currency: Type.String(),
  terms: Nullable(Type.String()),
  rowVersion: Type.Integer(),
  coding: CodingGiven,
  usual: CodingShown,
  contacts: Type.Array(Contact),
  otherTaxIds: Type.Array(Type.String()),
  otherAddresses: Type.Array(Type.String()),
  suggests: Type.Boolean(),
  blocked: Nullable(Type.String()),
  paymentsHeld: Nullable(Type.String()),
  open: Type.Array(Type.Object({ currency: Type.String(), amount: Type.String() })),
});
/** A supplier's items: what is owed or owed back, with what was settled of it. */
export const ItemsQuery = Type.Object({
  show: Type.Optional(Type.Union([Type.Literal('open'), Type.Literal('settled'), Type.Literal('all')])),
  cursor: Type.Optional(Type.String({ maxLength: 200 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});
export const SupplierItems = Type.Object({
  items: Type.Array(
    Type.Object({
      sourceType: Type.String(),
      sourceId: Nullable(Id),
      kind: Type.String(),
      invoiceNumber: Nullable(Type.String()),
      issueDate: Nullable(Day),
      dueDate: Nullable(Day),
      currency: Type.String(),
      amount: Type.String(),
      open: Type.String(),
      entry: Type.String(),
      entryId: Id,
      /** Its payment waits until a second person has verified something on the bill. */ held: Type.Boolean(),
    }),
  ),
  next: Nullable(Type.String()),
});
export type Contact = Static<typeof Contact>;
export type NewSupplier = Static<typeof NewSupplier>;
export type ChangeSupplier = Static<typeof ChangeSupplier>;
export type NewBankAccount = Static<typeof NewBankAccount>;
export type VerifyBankAccount = Static<typeof VerifyBankAccount>;
export type BankAccount = Static<typeof BankAccount>;
export type SupplierRow = Static<typeof SupplierRow>;
export type SupplierList = Static<typeof SupplierList>;
export type SupplierAccount = Static<typeof SupplierAccount>;
export type ItemsQuery = Static<typeof ItemsQuery>;
export type SupplierItems = Static<typeof SupplierItems>;
