import { Type, type Static } from '@sinclair/typebox';
import { MentionRow } from './notes.ts';
import { Id, Nullable } from './shared.ts';

export const Today = Type.Object({
  waiting: Type.Object({
    review: Type.Integer(),
    returned: Type.Integer(),
    approve: Type.Integer(),
    post: Type.Integer(),
    unread: Type.Integer(),
  }),
  oldest: Type.Array(
    Type.Object({
      id: Id,
      task: Type.String(),
      supplier: Nullable(Type.String()),
      invoiceNumber: Nullable(Type.String()),
      currency: Type.String(),
      gross: Nullable(Type.String()),
      since: Type.String(),
      dueDate: Nullable(Type.String()),
    }),
  ),
  /** Notes that name this person and that they have not seen, newest first. */
  mentions: Type.Array(MentionRow),
  due: Type.Array(Type.Object({ label: Type.String(), amount: Type.String(), count: Type.Integer() })),
  week: Type.Array(Type.Object({ day: Type.String(), arrived: Type.Integer(), posted: Type.Integer() })),
  latest: Type.Array(
    Type.Object({
      id: Id,
      channel: Type.String(),
      sender: Nullable(Type.String()),
      subject: Nullable(Type.String()),
      receivedAt: Type.String(),
      documents: Type.Integer(),
      note: Nullable(Type.String()),
    }),
  ),
});
export type Today = Static<typeof Today>;
