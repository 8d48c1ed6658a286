import { Type, type Static } from '@sinclair/typebox';
import type { ImportList } from '@ledgerline/core/imports';
import { Id, Nullable } from './shared.ts';

/** Lists that come from files and go into them. */
export const importLists = [
  'accounts',
  'cost-centres',
  'dimension-values',
  'tax-codes',
  'terms',
  'items',
  'budgets',
  'orders',
  'receipts',
  'suppliers',
  'rates',
] as const satisfies readonly ImportList[];
export const ImportListName = Type.Union(importLists.map((name) => Type.Literal(name)));
/** Lists that go into files and are made by hand alone. */
export const furtherLists = ['people', 'distributions', 'combinations', 'coding-rules', 'checks', 'events'] as const;
export type FurtherList = (typeof furtherLists)[number];
const Mapping = Type.Array(Nullable(Type.String({ maxLength: 40 })), { maxItems: 60 });
export const SetMapping = Type.Object({ mapping: Mapping });
/** `goodOnly`: rows with errors are left out; else there must be none. */
export const BringIn = Type.Object({ goodOnly: Type.Boolean() });

export const ImportRun = Type.Object({
  id: Id,
  list: ImportListName,
  fileName: Type.String(),
  /** checked: looked through; waiting and running: being brought in; done; failed: nothing was changed, the note says why. */
  state: Type.Union(['checked', 'waiting', 'running', 'done', 'failed'].map((state) => Type.Literal(state))),
  heads: Type.Array(Type.String()),
  /** The first rows, to see what the columns hold. */
  sample: Type.Array(Type.Array(Type.String())),
  mapping: Mapping,
  /** What keeps the mapping from being used. */
  fault: Nullable(Type.String()),
  fields: Type.Array(Type.Object({ key: Type.String(), label: Type.String(), required: Type.Boolean() })),
  counts: Type.Object({
    rows: Type.Integer(),
    good: Type.Integer(),
    bad: Type.Integer(),
    warnings: Type.Integer(),
    made: Type.Integer(),
    changed: Type.Integer(),
    same: Type.Integer(),
  }),
  progress: Type.Integer(),
  note: Nullable(Type.String()),
});
export const FindingsQuery = Type.Object({
  q: Type.Optional(Type.String({ maxLength: 100 })),
  severity: Type.Optional(Type.Union([Type.Literal('error'), Type.Literal('warning')])),
  sort: Type.Optional(Type.Union(['row', 'column', 'severity', 'sentence'].map((s) => Type.Literal(s)))),
  order: Type.Optional(Type.Union([Type.Literal('asc'), Type.Literal('desc')])),
  cursor: Type.Optional(Type.String({ maxLength: 40 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});
export const FindingList = Type.Object({
  findings: Type.Array(
    Type.Object({
      n: Type.Integer(),
      row: Type.Integer(),
      column: Nullable(Type.String()),
      severity: Type.String(),
      sentence: Type.String(),
      /** The cell that it is about. */
      cell: Nullable(Type.String()),
    }),
  ),
  next: Nullable(Type.String()),
});
/** What a list is saved as. */
export const SheetFormat = Type.Union([Type.Literal('csv'), Type.Literal('xlsx')]);
export const ExportQuery = Type.Object({
  format: SheetFormat,
  /** As the list is filtered. */
  q: Type.Optional(Type.String({ maxLength: 100 })),
  /** Of the values of dimensions those of one, by its name. */
  dimension: Type.Optional(Type.String({ maxLength: 40 })),
  /** The heads alone, to fill in. */
  empty: Type.Optional(Type.Literal('1')),
});
export type ImportRun = Static<typeof ImportRun>;
export type FindingList = Static<typeof FindingList>;
export type FindingsQuery = Static<typeof FindingsQuery>;
export type SheetFormat = Static<typeof SheetFormat>;
export type ImportListName = Static<typeof ImportListName>;
