import { Type, type Static } from '@sinclair/typebox';
import { EventRow } from './events.ts';
import { Exception, SettledException } from './exceptions.ts';
import { BillKind, cellSchemas, headerSchemas, LineKind } from './operations.ts';
import { Day, Id, Mark, Marks, Nullable } from './shared.ts';
import { Choice } from './choices.ts';
import { DimensionField } from './dimensions.ts';
import { SheetFormat } from './imports.ts';
import { BillNote } from './notes.ts';

export const stages = ['read', 'coded', 'approved', 'posted', 'paid', 'reversed', 'set-aside', 'returned', 'discarded'] as const;
export type Stage = (typeof stages)[number];

/** What else a row of the page says, under which heading. */
const FurtherCell = Type.Object({ heading: Nullable(Type.String()), value: Type.String(), mark: Mark });
export const BillLine = Type.Object({
  id: Id,
  kind: LineKind,
  ...cellSchemas,
  marks: Marks,
  further: Type.Optional(Type.Array(FurtherCell)),
});
export const BillHeader = Type.Object({
  ...headerSchemas,
  supplierName: Nullable(Type.String()),
  marks: Marks,
  unsure: Type.Array(Type.String()),
});
export const MoveBill = Type.Object({ rowVersion: Type.Integer({ minimum: 1 }) });
export const MoveWithNote = Type.Object({
  rowVersion: Type.Integer({ minimum: 1 }),
  note: Type.String({ minLength: 1, maxLength: 1000, pattern: '\\S' }),
});
/** A bill by hand: new (for a supplier, if said), a copy of another, or the credit note for one. */
export const NewBill = Type.Object({
  as: Type.Union([Type.Literal('new'), Type.Literal('copy'), Type.Literal('credit-note')]),
  supplierId: Type.Optional(Nullable(Id)),
  billId: Type.Optional(Nullable(Id)),
});
/** Puts a document to a bill: as its own, or beside it. */
export const JoinDocument = Type.Object({ documentId: Id, as: Type.Union([Type.Literal('own'), Type.Literal('further')]) });
const BesideDocument = Type.Object({
  id: Id,
  name: Type.String(),
  state: Type.String(),
  note: Nullable(Type.String()),
  receivedAt: Type.String(),
  sender: Nullable(Type.String()),
});
/** Documents beside a bill, and those that came lately and that nobody works on. */
export const BillDocuments = Type.Object({ further: Type.Array(BesideDocument), candidates: Type.Array(BesideDocument) });
/** Set aside, with its reason; `until`: the day on which it comes back by itself. */
export const SetAside = Type.Object({ ...MoveWithNote.properties, until: Type.Optional(Nullable(Day)) });
/** In whose hands a bill is from now on; null: in nobody's. */
export const AssignBill = Type.Object({ rowVersion: Type.Integer({ minimum: 1 }), personId: Nullable(Id) });
/** Takes the next of the queue: those of `prefer` first, as far as nobody else has taken them; never one of `not`. */
export const TakeNext = Type.Object({
  prefer: Type.Array(Id, { maxItems: 10 }),
  not: Type.Array(Id, { maxItems: 10 }),
});
export const MoveToCompany = Type.Object({ rowVersion: Type.Integer({ minimum: 1 }), companyId: Id });
/** The bill that was made of it in the other company. */
export const MovedTo = Type.Object({ companyId: Id, billId: Id });
/** Others who have this bill before them now. */
export const Presence = Type.Object({ others: Type.Array(Type.Object({ id: Id, name: Type.String() })) });
/** What the list of bills can be sorted by. */
export const billSorts = [
  'arrived',
  'due',
  'dated',
  'total',
  'number',
  'stage',
  'supplier',
  'hands',
  'discount',
  'aside',
  'entry',
] as const;
export const BillsQuery = Type.Object({
  q: Type.Optional(Type.String({ maxLength: 200 })),
  sort: Type.Optional(Type.Union(billSorts.map((by) => Type.Literal(by)))),
  order: Type.Optional(Type.Union([Type.Literal('asc'), Type.Literal('desc')])),
  cursor: Type.Optional(Type.String({ maxLength: 300 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});

/** Bills as a file, as they are found and sorted. */
export const BillsFileQuery = Type.Composite([Type.Omit(BillsQuery, ['cursor', 'limit']), Type.Object({ format: SheetFormat })]);

export const BillRow = Type.Object({
  id: Id,
  stage: Type.String(),
  kind: BillKind,
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
  /** In whose hands it is. */ assignee: Nullable(Type.String()),
  /** Set aside until then. */ asideUntil: Nullable(Day),
  discountUntil: Nullable(Day),
  entry: Nullable(Type.String()),
  /** Open exceptions: how many stop it, how many ask. */
  stops: Type.Integer(),
  asks: Type.Integer(),
});
export const BillList = Type.Object({ bills: Type.Array(BillRow), next: Nullable(Type.String()) });
export const Bill = Type.Composite([
  BillHeader,
  Type.Object({
    id: Id,
    companyId: Id,
    documentId: Nullable(Id),
    stage: Type.String(),
    /** Tax number and IBAN as the page has them. */
    supplierTaxId: Nullable(Type.String()),
    supplierIban: Nullable(Type.String()),
    supplierReason: Nullable(Type.String()),
    note: Nullable(Type.String()),
    rowVersion: Type.Integer(),
    createdAt: Type.String(),
    sentBy: Nullable(Id),
    approvedBy: Nullable(Id),
    /** In whose hands it is. */
    /** The bill of which it is a copy, or that it credits; the day of its turn, where it repeats. */
    madeFrom: Nullable(Id),
    turn: Nullable(Day),
    assignee: Nullable(Type.Object({ id: Id, name: Type.String() })),
    asideUntil: Nullable(Day),
    discountUntil: Nullable(Day),
    notes: Type.Array(BillNote),
    /** Everybody who changed it or sent it on: none of them may approve it. */
    workedOn: Type.Array(Id),
    lines: Type.Array(BillLine),
    exceptions: Type.Array(Exception),
    settled: Type.Array(SettledException),
    events: Type.Array(EventRow),
    /** What the tax codes' rates make, where it is another figure than the bill's tax. */
    taxByRates: Nullable(Type.String()),
    /** Rows that are shared over what came, and how, in words. */
    shared: Type.Array(Type.Object({ row: Id, said: Type.String() })),
    /** The company's own dimensions, as columns of its lines. */
    dimensions: Type.Array(Type.Object({ field: DimensionField, name: Type.String(), always: Type.Boolean() })),
    /** The supplier, accounts, cost centres, tax codes and values of dimensions that it names. */
    named: Type.Array(Choice),
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
      /** "Project P-12": those that the line has. */
      dimensions: Type.Array(Type.String()),
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
export type Bill = Static<typeof Bill>;
export type BillRow = Static<typeof BillRow>;
export type BillList = Static<typeof BillList>;
export type BillsQuery = Static<typeof BillsQuery>;
export type JournalPreview = Static<typeof JournalPreview>;
export type PostBills = Static<typeof PostBills>;
export type Posted = Static<typeof Posted>;
export type NewBill = Static<typeof NewBill>;
export type JoinDocument = Static<typeof JoinDocument>;
export type BillDocuments = Static<typeof BillDocuments>;
export type SetAside = Static<typeof SetAside>;
export type AssignBill = Static<typeof AssignBill>;
export type TakeNext = Static<typeof TakeNext>;
export type MovedTo = Static<typeof MovedTo>;
export type Presence = Static<typeof Presence>;
export type NextBill = Static<typeof NextBill>;
