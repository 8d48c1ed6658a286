import { Type, type Static } from '@sinclair/typebox';
import { Day, DecimalText, Id, Marks, Nullable } from './shared.ts';

export const stages = ['read', 'coded', 'approved', 'posted', 'paid', 'set-aside', 'returned', 'discarded'] as const;
export type Stage = (typeof stages)[number];
const Kind = Type.Union([Type.Literal('invoice'), Type.Literal('credit-note')]);

export const BillLine = Type.Object({
  id: Id,
  kind: Type.Union([Type.Literal('line'), Type.Literal('charge')]),
  code: Nullable(Type.String({ maxLength: 60 })),
  description: Type.String({ maxLength: 500 }),
  quantity: Nullable(DecimalText),
  unit: Nullable(Type.String({ maxLength: 20 })),
  unitPrice: Nullable(DecimalText),
  priceQuantity: DecimalText,
  discountPercent: Nullable(DecimalText),
  taxRate: Nullable(DecimalText),
  amount: Nullable(DecimalText),
  accountId: Nullable(Id),
  costCentreId: Nullable(Id),
  taxCodeId: Nullable(Id),
  marks: Marks,
});
export const BillHeader = Type.Object({
  kind: Kind,
  supplierId: Nullable(Id),
  supplierName: Nullable(Type.String({ maxLength: 200 })),
  invoiceNumber: Nullable(Type.String({ minLength: 1, maxLength: 60 })),
  issueDate: Nullable(Day),
  dueDate: Nullable(Day),
  terms: Nullable(Type.String({ maxLength: 200 })),
  currency: Type.String({ pattern: '^[A-Z]{3}$' }),
  purchaseOrder: Nullable(Type.String({ maxLength: 60 })),
  net: Nullable(DecimalText),
  tax: Nullable(DecimalText),
  gross: Nullable(DecimalText),
  pricesIncludeTax: Type.Boolean(),
  marks: Marks,
  unsure: Type.Array(Type.String({ maxLength: 60 }), { maxItems: 2000 }),
});
/** What the desk saves: the fields that changed and, when any line changed, all lines. Refused when the bill moved on since. */
export const SaveBill = Type.Object({
  rowVersion: Type.Integer({ minimum: 1 }),
  header: Type.Optional(Type.Partial(BillHeader)),
  lines: Type.Optional(Type.Array(BillLine, { maxItems: 2000 })),
});
export const MoveBill = Type.Object({ rowVersion: Type.Integer({ minimum: 1 }) });
export const MoveWithNote = Type.Object({
  rowVersion: Type.Integer({ minimum: 1 }),
  note: Type.String({ minLength: 1, maxLength: 1000, pattern: '\\S' }),
});
export const BillsQuery = Type.Object({
  q: Type.Optional(Type.String({ maxLength: 200 })),
  sort: Type.Optional(Type.Union([Type.Literal('arrived'), Type.Literal('due'), Type.Literal('dated'), Type.Literal('total')])),
  order: Type.Optional(Type.Union([Type.Literal('asc'), Type.Literal('desc')])),
  cursor: Type.Optional(Type.String({ maxLength: 300 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});

/** `choices`: values that settle it, each with what it is. */
export const Exception = Type.Object({
  code: Type.String(),
  path: Type.String(),
  sentence: Type.String(),
  blocking: Type.Boolean(),
  choices: Type.Optional(Type.Array(Type.Object({ label: Type.String(), value: Type.String() }))),
});
export const BillEvent = Type.Object({
  what: Type.String(),
  person: Nullable(Type.String()),
  note: Nullable(Type.String()),
  at: Type.String(),
});
export const BillRow = Type.Object({
  id: Id,
  stage: Type.String(),
  kind: Kind,
  supplier: Nullable(Type.String()),
  supplierId: Nullable(Id),
  invoiceNumber: Nullable(Type.String()),
  issueDate: Nullable(Day),
  dueDate: Nullable(Day),
  currency: Type.String(),
  gross: Nullable(Type.String()),
  arrivedAt: Type.String(),
  rowVersion: Type.Integer(),
  sentBy: Nullable(Type.String()),
  entry: Nullable(Type.String()),
  unsure: Type.Integer(),
});
export const BillList = Type.Object({ bills: Type.Array(BillRow), next: Nullable(Type.String()) });
export const Bill = Type.Intersect([
  BillHeader,
  Type.Object({
    id: Id,
    companyId: Id,
    documentId: Nullable(Id),
    stage: Type.String(),
    supplierReason: Nullable(Type.String()),
    note: Nullable(Type.String()),
    rowVersion: Type.Integer(),
    createdAt: Type.String(),
    sentBy: Nullable(Id),
    approvedBy: Nullable(Id),
    lines: Type.Array(BillLine),
    exceptions: Type.Array(Exception),
    events: Type.Array(BillEvent),
    arrival: Nullable(
      Type.Object({
        channel: Type.String(),
        sender: Nullable(Type.String()),
        subject: Nullable(Type.String()),
        receivedAt: Type.String(),
        documentName: Type.String(),
      }),
    ),
    entry: Nullable(Type.Object({ id: Id, number: Type.String() })),
  }),
]);
export const NextBill = Type.Object({ id: Nullable(Id), left: Type.Integer() });
export const JournalPreview = Type.Object({
  entryDate: Day,
  currency: Type.String(),
  baseCurrency: Type.String(),
  rate: Type.String(),
  total: Type.String(),
  lines: Type.Array(
    Type.Object({
      account: Type.String(),
      accountName: Type.String(),
      costCentre: Nullable(Type.String()),
      taxCode: Nullable(Type.String()),
      description: Type.String(),
      debit: Type.String(),
      credit: Type.String(),
      currencyAmount: Type.String(),
    }),
  ),
});
export const PostBills = Type.Object({
  key: Type.String({ minLength: 8, maxLength: 80 }),
  billIds: Type.Array(Id, { minItems: 1, maxItems: 500, uniqueItems: true }),
  entryDate: Type.Optional(Day),
});
export const Posted = Type.Object({
  posted: Type.Array(Type.Object({ billId: Id, entryId: Id, number: Type.Integer(), year: Type.Integer() })),
});
export type BillLine = Static<typeof BillLine>;
export type BillHeader = Static<typeof BillHeader>;
export type SaveBill = Static<typeof SaveBill>;
export type Bill = Static<typeof Bill>;
export type BillRow = Static<typeof BillRow>;
export type BillList = Static<typeof BillList>;
export type BillsQuery = Static<typeof BillsQuery>;
export type Exception = Static<typeof Exception>;
export type JournalPreview = Static<typeof JournalPreview>;
export type PostBills = Static<typeof PostBills>;
export type Posted = Static<typeof Posted>;
export type NextBill = Static<typeof NextBill>;
