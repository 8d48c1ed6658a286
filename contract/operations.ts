import { Type, type Static, type TSchema } from '@sinclair/typebox';
import { lineKinds, type HeaderField, type LineField } from '@ledgerline/core/bills';
import { Day, DecimalText, Id, Mark, Nullable } from './shared.ts';

export const BillKind = Type.Union([Type.Literal('invoice'), Type.Literal('credit-note')]);
export const LineKind = Type.Union(lineKinds.map((kind) => Type.Literal(kind)));
export const Currency = Type.String({ pattern: '^[A-Z]{3}$' });

/** What a person may set in the head of a bill, and what fits there. */
export const headerSchemas = {
  kind: BillKind,
  supplierId: Nullable(Id),
  invoiceNumber: Nullable(Type.String({ minLength: 1, maxLength: 60 })),
  issueDate: Nullable(Day),
  dueDate: Nullable(Day),
  terms: Nullable(Type.String({ maxLength: 200 })),
  currency: Currency,
  purchaseOrder: Nullable(Type.String({ maxLength: 60 })),
  net: Nullable(DecimalText),
  tax: Nullable(DecimalText),
  gross: Nullable(DecimalText),
  pricesIncludeTax: Type.Boolean(),
} satisfies Record<HeaderField, TSchema>;

/** What a person may set in a line, and what fits there. */
export const cellSchemas = {
  code: Nullable(Type.String({ maxLength: 60 })),
  description: Type.String({ maxLength: 500 }),
  quantity: Nullable(DecimalText),
  unit: Nullable(Type.String({ maxLength: 20 })),
  unitPrice: Nullable(DecimalText),
  priceQuantity: DecimalText,
  discountPercent: Nullable(DecimalText),
  taxRate: Nullable(DecimalText),
  amount: Nullable(DecimalText),
  serviceDate: Nullable(Day),
  accountId: Nullable(Id),
  costCentreId: Nullable(Id),
  taxCodeId: Nullable(Id),
  dimension1: Nullable(Id),
  dimension2: Nullable(Id),
  dimension3: Nullable(Id),
  dimension4: Nullable(Id),
  dimension5: Nullable(Id),
  dimension6: Nullable(Id),
} satisfies Record<LineField, TSchema>;

const names = <T extends string>(of: Record<T, TSchema>) => Type.Union((Object.keys(of) as T[]).map((name) => Type.Literal(name)));
const Cells = Type.Partial(Type.Object(cellSchemas));
const Places = Type.Partial(Type.Object(Object.fromEntries(Object.keys(cellSchemas).map((name) => [name, Mark]))));

/**
 * One change to a bill, by field or by line id, never by row number. Whether a value fits its field is checked against the schemas
 * above, so that the answer names it. `mark`: where on the page a person took the value from.
 */
export const Operation = Type.Union([
  Type.Object({
    do: Type.Literal('set'),
    field: names(headerSchemas),
    value: Type.Union([Type.String({ maxLength: 500 }), Type.Boolean(), Type.Null()]),
    mark: Type.Optional(Mark),
  }),
  Type.Object({
    do: Type.Literal('set-cell'),
    line: Id,
    field: names(cellSchemas),
    value: Nullable(Type.String({ maxLength: 500 })),
    mark: Type.Optional(Mark),
  }),
  Type.Object({
    do: Type.Literal('add-line'),
    line: Id,
    kind: LineKind,
    after: Nullable(Id),
    cells: Type.Optional(Cells),
    marks: Type.Optional(Places),
  }),
  Type.Object({ do: Type.Literal('remove-line'), line: Id }),
  Type.Object({ do: Type.Literal('move-line'), line: Id, after: Nullable(Id) }),
  Type.Object({
    do: Type.Literal('set-kind'),
    line: Id,
    kind: LineKind,
    cells: Type.Optional(Cells),
    marks: Type.Optional(Places),
  }),
  Type.Object({ do: Type.Literal('looked'), path: Type.String({ maxLength: 80 }) }),
]);
/** What the desk saves. Refused when the bill changed since this version. */
export const ChangeBill = Type.Object({
  rowVersion: Type.Integer({ minimum: 1 }),
  operations: Type.Array(Operation, { minItems: 1, maxItems: 2000 }),
});
export type ChangeBill = Static<typeof ChangeBill>;
