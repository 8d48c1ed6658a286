import { Type, type Static } from '@sinclair/typebox';
import { Id, Nullable } from './shared.ts';

/** What somebody wrote on a bill, and whom it names. */
export const BillNote = Type.Object({
  id: Id,
  person: Type.String(),
  text: Type.String(),
  at: Type.String(),
  mentions: Type.Array(Type.Object({ id: Id, name: Type.String() })),
});
export const AddNote = Type.Object({
  text: Type.String({ minLength: 1, maxLength: 2000, pattern: '\\S' }),
  mentions: Type.Array(Id, { maxItems: 20, uniqueItems: true }),
});
/** A note that names this person and that they have not seen. */
export const MentionRow = Type.Object({
  noteId: Id,
  billId: Id,
  supplier: Nullable(Type.String()),
  invoiceNumber: Nullable(Type.String()),
  person: Type.String(),
  text: Type.String(),
  at: Type.String(),
});
export type BillNote = Static<typeof BillNote>;
export type AddNote = Static<typeof AddNote>;
export type MentionRow = Static<typeof MentionRow>;
