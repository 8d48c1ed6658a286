import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Arrange, Arrangement } from '@ledgerline/contract';
import { backTo, join, leaveOut, move, putBack, splitAt, turn } from './arranging';

const sha = 'a'.repeat(64);
const page = (n: number) => ({ sha, page: n, turn: 0 as const });
const one: Arrange = { documents: [{ id: 'first', pages: [page(1), page(2), page(3)] }], leftOut: [] };
const numbers = (a: Arrange) => a.documents.map((d) => d.pages.map((p) => p.page));

describe('sharing out pages', () => {
  it('splits before a page and joins again', () => {
    const two = splitAt(one, { document: 0, page: 1 });
    expect(numbers(two)).toEqual([[1], [2, 3]]);
    expect(numbers(join(two, 0, 1))).toEqual([[1, 2, 3]]);
  });
  it('does not split before the first page', () => expect(splitAt(one, { document: 0, page: 0 })).toBe(one));
  it('moves a page within and between documents', () => {
    expect(numbers(move(one, { document: 0, page: 0 }, { document: 0, page: 3 }))).toEqual([[2, 3, 1]]);
    expect(numbers(move(splitAt(one, { document: 0, page: 2 }), { document: 1, page: 0 }, { document: 0, page: 0 }))).toEqual([[3, 1, 2]]);
  });
  it('leaves a page out and takes it back', () => {
    const out = leaveOut(one, { document: 0, page: 1 });
    expect([numbers(out), out.leftOut.map((p) => p.page)]).toEqual([[[1, 3]], [2]]);
    expect(numbers(move(out, { document: -1, page: 0 }, { document: 0, page: 1 }))).toEqual([[1, 2, 3]]);
  });
  it('puts back to a document, or as one of its own where none is open', () => {
    const out = leaveOut(one, { document: 0, page: 0 });
    expect(numbers(putBack(out, 0, 0))).toEqual([[2, 3, 1]]);
    expect([numbers(putBack(out, 0, -1)), putBack(out, 0, -1).leftOut]).toEqual([[[2, 3], [1]], []]);
  });
  it('four quarter turns are none', () => expect([1, 2, 3, 4].reduce((a) => turn(a, { document: 0, page: 1 }), one)).toEqual(one));
  it('goes back by emptying documents that were made since', () => {
    const now = {
      documents: [
        { id: 'first', pages: [page(1)] },
        { id: 'second', pages: [page(2), page(3)] },
      ],
      leftOut: [],
    } as unknown as Arrangement;
    expect(backTo(one, now).documents).toEqual([
      { id: 'first', pages: one.documents[0]!.pages },
      { id: 'second', pages: [] },
    ]);
  });
  it('never loses or doubles a page, whatever is done', () =>
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(4), fc.nat(3), fc.nat(3), fc.nat(3), fc.nat(3)), { maxLength: 12 }), (steps) => {
        let a: Arrange = {
          documents: [
            { id: 'x', pages: [1, 2, 3, 4].map(page) },
            { id: 'y', pages: [5, 6].map(page) },
          ],
          leftOut: [],
        };
        for (const [what, d, p, e, q] of steps) {
          const document = d % a.documents.length,
            other = e % a.documents.length;
          if (what === 0) a = splitAt(a, { document, page: Math.min(p, a.documents[document]!.pages.length - 1) });
          else if (what === 1 && document !== other) a = join(a, document, other);
          else if (what === 2) a = move(a, { document, page: p }, { document: other, page: q });
          else if (what === 3) a = leaveOut(a, { document, page: p });
          else a = turn(a, { document, page: p });
        }
        expect([...a.documents.flatMap((x) => x.pages), ...a.leftOut].map((x) => x.page).sort()).toEqual([1, 2, 3, 4, 5, 6]);
      }),
    ));
});
