import { Type, type Static } from '@sinclair/typebox';
import { Id, Nullable } from './shared.ts';

export const ArrivalsQuery = Type.Object({ cursor: Type.Optional(Type.String({ maxLength: 200 })), limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 100 })) });
export const ArrivalDocument = Type.Object({
  id: Id, name: Type.String(), mediaType: Type.String(), size: Type.Integer(), state: Type.String(), note: Nullable(Type.String()), pageCount: Nullable(Type.Integer()),
  billId: Nullable(Id), billStage: Nullable(Type.String()), billLabel: Nullable(Type.String()), duplicateOf: Nullable(Id), duplicateBillId: Nullable(Id),
});
export const Arrival = Type.Object({
  id: Id, channel: Type.String(), sender: Nullable(Type.String()), subject: Nullable(Type.String()), note: Nullable(Type.String()), receivedAt: Type.String(), documents: Type.Array(ArrivalDocument),
});
export const ArrivalDetail = Type.Intersect([Arrival, Type.Object({ body: Nullable(Type.String()), headers: Type.Array(Type.Tuple([Type.String(), Type.String()])), hasOriginal: Type.Boolean() })]);
export const ArrivalList = Type.Object({ arrivals: Type.Array(Arrival), next: Nullable(Type.String()) });
export const Uploaded = Type.Object({ arrivalId: Id, documents: Type.Array(ArrivalDocument) });
export const Word = Type.Object({ text: Type.String(), x: Type.Number(), y: Type.Number(), w: Type.Number(), h: Type.Number() });
export const DocumentPages = Type.Object({ pages: Type.Array(Type.Object({ number: Type.Integer(), width: Type.Number(), height: Type.Number(), words: Type.Array(Word) })) });
export type Arrival = Static<typeof Arrival>;
export type ArrivalDetail = Static<typeof ArrivalDetail>;
export type ArrivalDocument = Static<typeof ArrivalDocument>;
export type ArrivalList = Static<typeof ArrivalList>;
export type Uploaded = Static<typeof Uploaded>;
export type DocumentPages = Static<typeof DocumentPages>;
