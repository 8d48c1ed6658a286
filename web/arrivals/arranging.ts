import type { Arrange, Arrangement, PageSource } from '@ledgerline/contract';

/** Where a page lies: in a document by its place in the list, or among those left out (document -1). */
export interface Place {
  document: number;
  page: number;
}

const copy = (a: Arrange): Arrange => ({ documents: a.documents.map((d) => ({ id: d.id, pages: [...d.pages] })), leftOut: [...a.leftOut] });
const pagesAt = (a: Arrange, document: number): PageSource[] => (document < 0 ? a.leftOut : (a.documents[document]?.pages ?? []));

export const toArrange = (now: Arrangement): Arrange => ({
  documents: now.documents.map(({ id, pages }) => ({ id, pages })),
  leftOut: now.leftOut,
});

/** Begins a new document at a page; what stands before it stays. */
export function splitAt(a: Arrange, { document, page }: Place): Arrange {
  if (page <= 0 || document < 0) return a;
  const next = copy(a),
    rest = next.documents[document]!.pages.splice(page);
  next.documents.splice(document + 1, 0, { id: null, pages: rest });
  return next;
}

/** Puts a document's pages behind those of another; the first keeps its name. */
export function join(a: Arrange, first: number, second: number): Arrange {
  const next = copy(a);
  next.documents[first]!.pages.push(...next.documents[second]!.pages.splice(0));
  return tidy(next);
}

/** Takes a page to another place, before the page that is there. */
export function move(a: Arrange, from: Place, to: Place): Arrange {
  const next = copy(a),
    [page] = pagesAt(next, from.document).splice(from.page, 1);
  if (!page) return a;
  const at = from.document === to.document && from.page < to.page ? to.page - 1 : to.page;
  pagesAt(next, to.document).splice(at, 0, page);
  return tidy(next);
}

/** Turns a page a quarter clockwise. */
export function turn(a: Arrange, { document, page }: Place): Arrange {
  const next = copy(a),
    list = pagesAt(next, document),
    source = list[page];
  if (source) list[page] = { ...source, turn: ((source.turn + 90) % 360) as PageSource['turn'] };
  return next;
}

export const leaveOut = (a: Arrange, from: Place): Arrange => move(a, from, { document: -1, page: a.leftOut.length });

/** Takes a page that was left out back: to the end of a document, or as a document of its own where none is open (-1). */
export function putBack(a: Arrange, page: number, document: number): Arrange {
  if (document >= 0) return move(a, { document: -1, page }, { document, page: a.documents[document]!.pages.length });
  const next = copy(a);
  return { ...next, documents: [...next.documents, { id: null, pages: next.leftOut.splice(page, 1) }] };
}

/** An earlier arrangement asked for again: documents made since then are emptied. */
export function backTo(earlier: Arrange, now: Arrangement): Arrange {
  const known = new Set(earlier.documents.map((d) => d.id));
  const still = new Set(now.documents.map((d) => d.id));
  return {
    leftOut: earlier.leftOut,
    documents: [
      ...earlier.documents.filter((d) => d.id === null || still.has(d.id)),
      ...now.documents.filter((d) => !known.has(d.id)).map(({ id }) => ({ id, pages: [] })),
    ],
  };
}

/** New documents without pages need not be made. */
const tidy = (a: Arrange): Arrange => ({ ...a, documents: a.documents.filter((d) => d.id !== null || d.pages.length > 0) });

/** One place on: within the document, or over its edge into the next one whose pages may move. */
export function shifted(data: Arrangement, at: Place, step: number): Place {
  const pages = at.document < 0 ? data.leftOut : data.documents[at.document]!.pages;
  const to = at.page + step;
  if (to >= 0 && to < pages.length) return { document: at.document, page: step > 0 ? to + 1 : to };
  for (let d = at.document + step; d >= 0 && d < data.documents.length; d += step) {
    const next = data.documents[d]!;
    if (!next.fixed && next.pages.length > 0) return { document: d, page: step > 0 ? 0 : next.pages.length };
  }
  return at;
}
