import { Type, type Static, type TSchema } from '@sinclair/typebox';

export const Id = Type.String({ format: 'uuid' });
/** A day that the calendar has, ISO 8601. */
export const Day = Type.String({ format: 'date' });
/** An exact decimal as a string. */
export const DecimalText = Type.String({ pattern: '^-?\\d{1,15}(\\.\\d{1,6})?$' });
export const Nullable = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()]);

/** What a row of a list is told by, and what it is called. */
export const Code = Type.String({ minLength: 1, maxLength: 20, pattern: '^\\S+$' });
export const Name = Type.String({ minLength: 1, maxLength: 120, pattern: '\\S' });
/** When lines may name it: closed where `active` is false; else on bills of these days. */
export const validity = { active: Type.Boolean(), validFrom: Nullable(Day), validTo: Nullable(Day) };

export const Mark = Type.Object({
  page: Type.Integer({ minimum: 1, maximum: 5000 }),
  x: Type.Number({ minimum: -1000, maximum: 50_000 }),
  y: Type.Number({ minimum: -1000, maximum: 50_000 }),
  w: Type.Number({ minimum: 0, maximum: 50_000 }),
  h: Type.Number({ minimum: 0, maximum: 50_000 }),
});
export const StoredMark = Type.Object({
  mark: Nullable(Mark),
  confidence: Type.Number({ minimum: 0, maximum: 1 }),
  proof: Nullable(Type.String()),
  /** Where a misread figure was put right: what was read at first and which sum chose. */
  repaired: Type.Optional(Type.String()),
  /** What else it may be, as it was read, the likeliest first. */
  rivals: Type.Optional(
    Type.Array(Type.Object({ value: Type.String({ maxLength: 200 }), mark: Nullable(Mark), why: Type.Optional(Type.String()) }), {
      maxItems: 4,
    }),
  ),
});
export const Marks = Type.Record(Type.String(), StoredMark);

/** RFC 9457: what went wrong, in words for the person in front of the screen. */
export const Problem = Type.Object({
  type: Type.String(),
  title: Type.String(),
  status: Type.Integer(),
  detail: Type.Optional(Type.String()),
  /** changed: somebody else changed it since; misfit: an operation does not fit; asks: it goes on with `evenSo`. */
  kind: Type.Optional(Type.String()),
  errors: Type.Optional(Type.Array(Type.Object({ path: Type.String(), sentence: Type.String() }))),
});
export type Problem = Static<typeof Problem>;
export type Mark = Static<typeof Mark>;
export type StoredMark = Static<typeof StoredMark>;
