import { Type, type Static } from '@sinclair/typebox';
import { Day, Id, Mark, Nullable } from './shared.ts';

export const EntriesQuery = Type.Object({
  q: Type.Optional(Type.String({ maxLength: 100 })),
  account: Type.Optional(Id),
  cursor: Type.Optional(Type.String({ maxLength: 200 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});
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
  Type.Object({ currency: Type.String(), baseCurrency: Type.String(), rate: Type.String(), lines: Type.Array(EntryLine) }),
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
export type EntryList = Static<typeof EntryList>;
export type EntryRow = Static<typeof EntryRow>;
export type Entry = Static<typeof Entry>;
export type Trail = Static<typeof Trail>;
export type PeriodList = Static<typeof PeriodList>;
