import { Type, type Static } from '@sinclair/typebox';
import { Id, Nullable } from './shared.ts';

/** What bills in hand have in common that a change would do to them, with one of them. */
const Turn = Type.Object({
  code: Type.String(),
  severity: Type.String(),
  bills: Type.Integer(),
  example: Type.Object({ billId: Id, invoiceNumber: Nullable(Type.String()), sentence: Type.String() }),
});
/** What a change would do to bills in hand, before it is kept: what is found on them then, and what is found on them no more. */
export const Effect = Type.Object({ found: Type.Array(Turn), gone: Type.Array(Turn) });
export type Effect = Static<typeof Effect>;
