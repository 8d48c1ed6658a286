import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Bill } from '@ledgerline/contract';
import type { ShownPage } from '../ui/page-view';
import { inkOf, pieceOf, round, wordHeight } from './ink';

const word = (x: number, y: number, w = 40, h = 10) => ({ text: 'x', x, y, w, h, size: 9, bold: false });
const page = (...words: ReturnType<typeof word>[]): ShownPage =>
  ({ number: 1, width: 595, height: 842, image: 'pdf', words, scan: null, source: null }) as never;
const mark = (x: number, y: number, on = 1) => ({ value: '', confidence: 1, proof: null, mark: { page: on, x, y, w: 40, h: 10 } });
const bill = (marks: object, ...lines: object[]): Pick<Bill, 'marks' | 'lines'> => ({ marks, lines }) as never;

describe('the ink of a page', () => {
  const box = fc.record({ x: fc.integer({ min: 0, max: 555 }), y: fc.integer({ min: 0, max: 830 }) });
  it('holds every word and lies on the page', () => {
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 30 }), (at) => {
        const p = page(...at.map(({ x, y }) => word(x, y)));
        const ink = inkOf(p);
        expect(ink.x).toBeGreaterThanOrEqual(0);
        expect(ink.x + ink.w).toBeLessThanOrEqual(595.001);
        expect(ink.w).toBeGreaterThanOrEqual(595 * 0.55 - 0.001);
        for (const w of p.words) {
          expect(w.x).toBeGreaterThanOrEqual(ink.x - 0.001);
          expect(w.x + w.w).toBeLessThanOrEqual(ink.x + ink.w + 0.001);
          expect(w.y).toBeGreaterThanOrEqual(ink.y);
        }
      }),
    );
  });
  it('is the whole page where nothing stands on it', () => expect(inkOf(page())).toEqual({ x: 0, y: 0, w: 595, h: 842 }));
  it('words are as tall as most of them', () => expect(wordHeight(page(word(0, 0, 9, 30), word(0, 40), word(0, 60)))).toBe(10));
});

describe('the piece of a value', () => {
  const p = page(word(60, 100), word(300, 100), word(60, 130), word(500, 130));
  it('is its label and itself', () => {
    const piece = pieceOf(bill({ net: mark(300, 100) }), 'net', [p])!;
    expect(piece.line).toBeNull();
    expect(piece.box.x).toBeLessThan(300);
    expect(piece.box.x + piece.box.w).toBeGreaterThan(340);
    expect(piece.framed).toMatchObject({ x: 300, y: 100 });
  });
  it('begins with its label, whole, not with what stands further off', () => {
    const far = page(word(20, 100, 30), word(150, 100, 34), word(188, 100, 20), word(300, 100));
    expect(pieceOf(bill({ net: mark(300, 100) }), 'net', [far])!.box.x).toBe(144);
    expect(pieceOf(bill({ net: mark(300, 100) }), 'net', [page(word(20, 100, 30))])!.box.x, 'no label in reach').toBe(234);
    expect(pieceOf(bill({ net: mark(2, 100) }), 'net', [page(word(400, 100))])!.box.x, 'never off the page').toBe(0);
  });
  it('of a cell is its row, whichever of its cells were read', () => {
    const lines = [{ id: 'a', marks: { amount: mark(500, 130), description: mark(60, 130) } }];
    const [read, typed] = [pieceOf(bill({}, ...lines), 'a.amount', [p])!, pieceOf(bill({}, ...lines), 'a.accountId', [p])!];
    expect(read.line).toBe('a');
    expect(read.box).toEqual(typed.box);
    expect(read.framed).toMatchObject({ x: 500 });
    expect(typed.framed).toBeNull();
    expect(read.box.y).toBeLessThan(130);
    expect(read.box.y + read.box.h).toBeLessThan(160);
  });
  it('a cell of a row that goes on far below does not bring the whole page along', () => {
    const lines = [{ id: 'a', marks: { amount: mark(500, 130), description: mark(60, 700) } }];
    expect(pieceOf(bill({}, ...lines), 'a.amount', [p])!.box.h).toBeLessThan(40);
  });
  it('there is none where nothing was read, or its page is not here', () => {
    for (const path of [null, 'net', 'nothing', 'b.amount', 'lines'])
      expect(pieceOf(bill({}, { id: 'a', marks: {} }), path, [p]), String(path)).toBeNull();
    expect(pieceOf(bill({ net: mark(1, 1, 9) }), 'net', [p])).toBeNull();
    expect(pieceOf(bill({}, { id: 'a', marks: {} }), 'a.amount', [p])).toBeNull();
  });
  it('round nothing there is nothing', () => expect(round([])).toBeNull());
});
