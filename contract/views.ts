import { Type, type Static } from '@sinclair/typebox';
import { billSorts } from './bills.ts';
import { Id } from './shared.ts';

/** Columns of the list of bills that can be chosen. */
export const billColumns = [
  'stage',
  'supplier',
  'number',
  'dated',
  'due',
  'discount',
  'total',
  'hands',
  'aside',
  'entry',
  'arrived',
] as const;
const Columns = Type.Array(Type.Union(billColumns.map((id) => Type.Literal(id))), {
  minItems: 1,
  maxItems: billColumns.length,
  uniqueItems: true,
});
const look = {
  q: Type.String({ maxLength: 200 }),
  sort: Type.Union(billSorts.map((by) => Type.Literal(by))),
  order: Type.Union([Type.Literal('asc'), Type.Literal('desc')]),
  columns: Columns,
};
/** A list of bills as somebody likes to see it, under a name; `shared`: for everybody of the company. */
export const SaveView = Type.Object({
  name: Type.String({ minLength: 1, maxLength: 60, pattern: '\\S' }),
  shared: Type.Boolean(),
  ...look,
});
export const ViewRow = Type.Object({
  id: Id,
  name: Type.String(),
  shared: Type.Boolean(),
  /** Made by whoever asks: only they change it. */ own: Type.Boolean(),
  by: Type.String(),
  ...look,
});
export const ViewList = Type.Object({ views: Type.Array(ViewRow) });

const widths = Type.Record(Type.String({ pattern: '^[a-zA-Z0-9]{1,30}$' }), Type.Number({ minimum: 0, maximum: 4000 }), {
  maxProperties: 40,
});
const names = Type.Array(Type.String({ pattern: '^[a-zA-Z0-9]{1,30}$' }), { maxItems: 40 });
/** How a person looks at the desk and at the list of bills, wherever they sign in. */
export const PersonView = Type.Object({
  desk: Type.Optional(
    Type.Object({
      side: Type.String({ maxLength: 10 }),
      share: Type.Number({ minimum: 0, maximum: 1 }),
      zoom: Type.Number({ minimum: 0, maximum: 10 }),
      widths,
      hidden: names,
      shown: names,
    }),
  ),
  bills: Type.Optional(Type.Object({ columns: Columns, preview: Type.Boolean() })),
});
export type SaveView = Static<typeof SaveView>;
export type ViewRow = Static<typeof ViewRow>;
export type ViewList = Static<typeof ViewList>;
export type PersonView = Static<typeof PersonView>;
