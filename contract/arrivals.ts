import { Type, type Static } from '@sinclair/typebox';
import { Id, Nullable } from './shared.ts';

export const ArrivalsQuery = Type.Object({
  cursor: Type.Optional(Type.String({ maxLength: 200 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 100 })),
});
/** How far the pages of a document have been read as pictures, and what is being done. */
export const Progress = Type.Object({ done: Type.Integer(), of: Type.Integer(), doing: Type.String() });
export const ArrivalDocument = Type.Object({
  id: Id,
  name: Type.String(),
  mediaType: Type.String(),
  size: Type.Integer(),
  state: Type.String(),
  note: Nullable(Type.String()),
  pageCount: Nullable(Type.Integer()),
  progress: Nullable(Progress),
  part: Type.Integer(),
  paper: Type.Boolean(),
  /** Which pages of its file it is, where it is not the whole: "pages 2–3". */ pagesOf: Nullable(Type.String()),
  billId: Nullable(Id),
  billStage: Nullable(Type.String()),
  billLabel: Nullable(Type.String()),
  duplicateOf: Nullable(Id),
  duplicateBillId: Nullable(Id),
});
export const Arrival = Type.Object({
  id: Id,
  channel: Type.String(),
  sender: Nullable(Type.String()),
  subject: Nullable(Type.String()),
  note: Nullable(Type.String()),
  /** opening, open, or failed: could not be taken apart */ state: Type.String(),
  receivedAt: Type.String(),
  documents: Type.Array(ArrivalDocument),
});
export const ArrivalDetail = Type.Composite([
  Arrival,
  Type.Object({
    body: Nullable(Type.String()),
    headers: Type.Array(Type.Tuple([Type.String(), Type.String()])),
    hasOriginal: Type.Boolean(),
  }),
]);
/** `notices`: what the doors cannot take in and somebody has to see to; with the first page. */
export const ArrivalList = Type.Object({
  arrivals: Type.Array(Arrival),
  notices: Type.Array(Type.String()),
  next: Nullable(Type.String()),
});
export const Uploaded = Type.Object({ arrivalId: Id, documents: Type.Array(ArrivalDocument) });
export const Word = Type.Object({ text: Type.String(), x: Type.Number(), y: Type.Number(), w: Type.Number(), h: Type.Number() });
/** A page of a stored file: its address (SHA-256), its number there, and how far it is turned clockwise. */
export const PageSource = Type.Object({
  sha: Type.String({ pattern: '^[0-9a-f]{64}$' }),
  page: Type.Integer({ minimum: 1, maximum: 5000 }),
  turn: Type.Union([Type.Literal(0), Type.Literal(90), Type.Literal(180), Type.Literal(270)]),
});
/** Where a page is drawn from: a page of a PDF, a picture, or words alone (the data of an e-invoice). */
export const PageImage = Type.Union([Type.Literal('pdf'), Type.Literal('picture'), Type.Literal('words')]);
export const SheetWord = Type.Composite([Word, Type.Object({ size: Type.Number(), bold: Type.Boolean() })]);
/** How a page that was read from a picture lay in it: `back` leads from points of the cleaned page to points of the page as it came. */
export const ScanOfPage = Type.Object({
  width: Type.Number(),
  height: Type.Number(),
  back: Type.Array(Type.Number(), { minItems: 9, maxItems: 9 }),
  skew: Type.Number(),
  squared: Type.Boolean(),
  language: Type.String(),
});
/** A spot of a page, in points, to be read at once. */
export const Spot = Type.Object({
  page: Type.Integer({ minimum: 1, maximum: 5000 }),
  x: Type.Number({ minimum: -50, maximum: 20000 }),
  y: Type.Number({ minimum: -50, maximum: 20000 }),
  w: Type.Number({ minimum: 1, maximum: 20000 }),
  h: Type.Number({ minimum: 1, maximum: 20000 }),
  digits: Type.Boolean(),
});
export const SpotText = Type.Object({ text: Type.String() });
export const DocumentPages = Type.Object({
  pages: Type.Array(
    Type.Object({
      number: Type.Integer(),
      width: Type.Number(),
      height: Type.Number(),
      words: Type.Array(SheetWord),
      image: PageImage,
      source: Nullable(PageSource),
      scan: Nullable(ScanOfPage),
    }),
  ),
});
/** The pages of an arrival as they are shared out among its documents; documents that have been sent on are fixed. */
export const ArrangedDocument = Type.Object({ id: Nullable(Id), pages: Type.Array(PageSource, { maxItems: 500 }) });
export const Arrangement = Type.Object({
  documents: Type.Array(
    Type.Object({
      id: Id,
      name: Type.String(),
      state: Type.String(),
      label: Nullable(Type.String()),
      billId: Nullable(Id),
      fixed: Type.Boolean(),
      pages: Type.Array(PageSource),
    }),
  ),
  leftOut: Type.Array(PageSource),
  files: Type.Record(Type.String(), PageImage),
});
export const Arrange = Type.Object({
  documents: Type.Array(ArrangedDocument, { maxItems: 500 }),
  leftOut: Type.Array(PageSource, { maxItems: 5000 }),
});
export type Arrival = Static<typeof Arrival>;
export type ArrivalDetail = Static<typeof ArrivalDetail>;
export type ArrivalDocument = Static<typeof ArrivalDocument>;
export type ArrivalList = Static<typeof ArrivalList>;
export type Spot = Static<typeof Spot>;
export type SpotText = Static<typeof SpotText>;
export type Uploaded = Static<typeof Uploaded>;
export type PageSource = Static<typeof PageSource>;
export type PageImage = Static<typeof PageImage>;
export type Arrangement = Static<typeof Arrangement>;
export type Arrange = Static<typeof Arrange>;
export type DocumentPages = Static<typeof DocumentPages>;
