import { Type, type Static, type TSchema } from '@sinclair/typebox';

export const Id = Type.String({ format: 'uuid' });
export const Day = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' });
/** An exact decimal as a string. */
export const DecimalText = Type.String({ pattern: '^-?\\d{1,15}(\\.\\d{1,6})?$' });
export const Nullable = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()]);

export const Mark = Type.Object({
  page: Type.Integer({ minimum: 1 }),
  x: Type.Number(),
  y: Type.Number(),
  w: Type.Number(),
  h: Type.Number(),
});
export const StoredMark = Type.Object({
  mark: Nullable(Mark),
  confidence: Type.Number({ minimum: 0, maximum: 1 }),
  proof: Nullable(Type.String()),
  /** Where a misread figure was put right: what was read at first and which sum chose. */
  repaired: Type.Optional(Type.String()),
});
export const Marks = Type.Record(Type.String(), StoredMark);

/** RFC 9457: what went wrong, in words for the person in front of the screen. */
export const Problem = Type.Object({
  type: Type.String(),
  title: Type.String(),
  status: Type.Integer(),
  detail: Type.Optional(Type.String()),
  errors: Type.Optional(Type.Array(Type.Object({ path: Type.String(), sentence: Type.String() }))),
});
export type Problem = Static<typeof Problem>;
export type Mark = Static<typeof Mark>;
export type StoredMark = Static<typeof StoredMark>;
