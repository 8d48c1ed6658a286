import { describe, expect, it } from 'vitest';
import { strange } from './index.ts';
import { printNumber } from '../look.ts';

const documents = Array.from({ length: 40 }, (_, i) => strange(810_001 + i));
const textOf = (d: (typeof documents)[number]): string => d.sheet.drawn.map((x) => x.text).join('\n');

describe('documents of strange structures', () => {
  it('print what their truth says: number, order, days, every amount and description', () => {
    for (const d of documents) {
      const text = textOf(d),
        { content: c } = d;
      for (const said of [c.number, c.supplier.name, c.buyer.name, ...(c.order ? [c.order] : []), printNumber(c.gross, d.look)])
        expect(text).toContain(said);
      for (const line of d.lines) {
        expect(text).toContain(printNumber(line.amount.replace('-', ''), d.look));
        expect(text).toContain(line.description.split(' ').slice(0, 1).join(' '));
        if (line.quantity) expect(text).toContain(printNumber(line.quantity, d.look));
        if (line.code) expect(text).toContain(line.code);
      }
    }
  });
  it('add up: net and tax are the total', () => {
    for (const { content: c } of documents) expect(Number(c.net) + Number(c.tax)).toBeCloseTo(Number(c.gross));
  });
  it('are the same for the same seed, and of many structures', () => {
    expect(textOf(strange(810_007))).toBe(textOf(documents[6]!));
    expect(new Set(documents.map((d) => d.family)).size).toBeGreaterThan(20);
  });
  it('stay on the paper', () => {
    for (const d of documents)
      for (const x of d.sheet.drawn) {
        expect(x.x).toBeGreaterThanOrEqual(0);
        expect(x.y).toBeLessThan(d.sheet.height);
      }
  });
});
