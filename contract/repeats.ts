import { Type, type Static } from '@sinclair/typebox';
import { everies } from '@ledgerline/core/repeats';
import { Day, Id, Nullable } from './shared.ts';

const rhythm = {
  every: Type.Union(everies.map((every) => Type.Literal(every))),
  /** Every so many weeks. */ weeks: Nullable(Type.Integer({ minimum: 1, maximum: 52 })),
  begins: Day,
  until: Nullable(Day),
};
const settings = {
  name: Type.String({ minLength: 2, maxLength: 80, pattern: '\\S' }),
  ...rhythm,
  /** The same amounts each time; else they are filled in. */ fixed: Type.Boolean(),
  /** A document is expected within so many days of its turn; null: none comes. */
  documentWithin: Nullable(Type.Integer({ minimum: 1, maximum: 90 })),
};
/** Makes a bill repeat: what it is now is made again on each turn after its own. */
export const NewRepeat = Type.Object({ billId: Id, ...settings });
export const ChangeRepeat = Type.Object({ rowVersion: Type.Integer({ minimum: 1 }), ...settings });
export const RepeatRow = Type.Object({
  id: Id,
  ...settings,
  supplier: Type.String(),
  currency: Type.String(),
  gross: Nullable(Type.String()),
  nextOn: Nullable(Day),
  /** Bills that wait for their document, and how many of these were not in time. */
  waiting: Type.Integer(),
  missed: Type.Integer(),
  rowVersion: Type.Integer(),
});
export const RepeatList = Type.Object({ repeats: Type.Array(RepeatRow) });
export type NewRepeat = Static<typeof NewRepeat>;
export type ChangeRepeat = Static<typeof ChangeRepeat>;
export type RepeatRow = Static<typeof RepeatRow>;
export type RepeatList = Static<typeof RepeatList>;
