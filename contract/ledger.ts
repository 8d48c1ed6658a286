import { Type, type Static } from '@sinclair/typebox';
import { SheetFormat } from './imports.ts';
import { Day, Id, Mark, Nullable } from './shared.ts';

export const EntriesQuery = Type.Object({
  q: Type.Optional(Type.String({ maxLength: 100 })),
  account: Type.Optional(Id),
  cursor: Type.Optional(Type.String({ maxLength: 200 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});
/** Entries as a file, as they are found. */
export const EntriesFileQuery = Type.Composite([Type.Omit(EntriesQuery, ['cursor', 'limit']), Type.Object({ format: SheetFormat })]);
export const EntryRow = Type.Object({
  id: Id,
  number: Type.String(),
  entryDate: Day,
  /** What it was made from: a bill, a payment … */
  sourceType: Type.String(),
  sourceId: Nullable(Id),
  /** The entry that it reverses, and the one that reverses it. */
  reverses: Nullable(Id),
  reversedBy: Nullable(Id),
  description: Type.String(),
  total: Type.String(),
  postedBy: Type.String(),
  postedAt: Type.String(),
});
export const EntryList = Type.Object({ entries: Type.Array(EntryRow), next: Nullable(Type.String()) });
export const EntryLine = Type.Object({
  id: Id,
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
  hasTrail: Type.Boolean(),
});
export const Entry = Type.Composite([
  EntryRow,
  Type.Object({
    currency: Type.String(),
    baseCurrency: Type.String(),
    rate: Type.String(),
    lines: Type.Array(EntryLine),
    /** Of which orders it is, where it is of what had come and was not billed. */ orders: Type.Array(
      Type.Object({ id: Id, number: Type.String() }),
    ),
  }),
]);
/** From an amount in the ledger to the ink: the bill line it came from and its place on the page. */
export const Trail = Type.Object({
  journal: Type.Object({
    entry: Type.String(),
    entryId: Id,
    account: Type.String(),
    debit: Type.String(),
    credit: Type.String(),
    description: Type.String(),
  }),
  bill: Type.Object({
    id: Id,
    supplier: Type.String(),
    invoiceNumber: Type.String(),
    kind: Type.String(),
    currency: Type.String(),
    gross: Type.String(),
    issueDate: Nullable(Day),
  }),
  line: Nullable(
    Type.Object({
      row: Type.Integer(),
      description: Type.String(),
      quantity: Nullable(Type.String()),
      unitPrice: Nullable(Type.String()),
      amount: Nullable(Type.String()),
    }),
  ),
  documentId: Nullable(Id),
  mark: Nullable(Mark),
  proof: Nullable(Type.String()),
  people: Type.Array(Type.Object({ what: Type.String(), person: Nullable(Type.String()), at: Type.String() })),
});
export const Period = Type.Object({ year: Type.Integer(), month: Type.Integer(), open: Type.Boolean(), entries: Type.Integer() });
export const PeriodList = Type.Object({ periods: Type.Array(Period) });
export const SetPeriod = Type.Object({
  year: Type.Integer({ minimum: 2000, maximum: 2099 }),
  month: Type.Integer({ minimum: 1, maximum: 12 }),
  open: Type.Boolean(),
});
/** Days by which entries are summed, both with it. */
const span = { from: Day, to: Day };
export const TaxSummaryQuery = Type.Object(span);
const taxAmounts = {
  net: Type.String(),
  tax: Type.String(),
  reclaimed: Type.String(),
  /** Of the tax: what stays with the cost. */ borne: Type.String(),
  owed: Type.String(),
  withheld: Type.String(),
};
/** What was posted by tax code and month, in the company's currency; credit notes are taken off. */
export const TaxSummary = Type.Object({
  currency: Type.String(),
  rows: Type.Array(
    Type.Object({ taxCodeId: Id, code: Type.String(), name: Type.String(), month: Type.String(), entries: Type.Integer(), ...taxAmounts }),
  ),
});
export const TaxFileQuery = Type.Object({ ...span, format: SheetFormat });
export const TaxLinesQuery = Type.Object({
  ...span,
  taxCodeId: Type.Optional(Id),
  cursor: Type.Optional(Type.String({ maxLength: 400 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});
/** What stands behind a summary: entry by entry, with its bill. */
export const TaxLines = Type.Object({
  lines: Type.Array(
    Type.Object({
      entryId: Id,
      entry: Type.String(),
      entryDate: Day,
      description: Type.String(),
      billId: Nullable(Id),
      taxCodeId: Id,
      code: Type.String(),
      ...taxAmounts,
    }),
  ),
  next: Nullable(Type.String()),
});
export type TaxSummary = Static<typeof TaxSummary>;
export type TaxLines = Static<typeof TaxLines>;
export type EntryList = Static<typeof EntryList>;
export type EntryRow = Static<typeof EntryRow>;
export type Entry = Static<typeof Entry>;
export type Trail = Static<typeof Trail>;
export type PeriodList = Static<typeof PeriodList>;
