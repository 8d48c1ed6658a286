import { Type, type Static } from '@sinclair/typebox';
import { Id, Nullable } from './shared.ts';

/** One act, as the event log has it. `changes`: what was and what is, by field, as people read it. */
export const EventRow = Type.Object({
  id: Id,
  seq: Type.Integer(),
  subject: Type.String(),
  subjectId: Nullable(Id),
  verb: Type.String(),
  person: Nullable(Type.String()),
  source: Type.String(),
  note: Nullable(Type.String()),
  at: Type.String(),
  changes: Type.Array(Type.Object({ field: Type.String(), before: Nullable(Type.String()), after: Nullable(Type.String()) })),
});
export const EventsQuery = Type.Object({
  /** Of the company, or the organisation's sign-ins: those only for administrators. */
  of: Type.Optional(Type.Union([Type.Literal('company'), Type.Literal('sign-ins')])),
  subject: Type.Optional(Type.String({ maxLength: 40 })),
  id: Type.Optional(Id),
  cursor: Type.Optional(Type.String({ maxLength: 200 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});
export const EventList = Type.Object({ events: Type.Array(EventRow), next: Nullable(Type.String()) });
export type EventRow = Static<typeof EventRow>;
export type EventList = Static<typeof EventList>;
