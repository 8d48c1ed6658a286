import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDocument, type Reading } from '../../core/reading/index.ts';
import { foldOf } from './gather.ts';
import { measured } from './measure.ts';
import { pooled } from './models.ts';
import { madeSamples } from './samples.ts';
import { same, scored } from './score.ts';

const sample = madeSamples(1)[0]!;
const reading = readDocument(sample.pages);

describe('a reading beside its truth', () => {
  it('values mean the same by number, by letters, by signs', () => {
    expect([same('netTotal', '12.50', '12.5'), same('lines.quantity', '3', '4')]).toEqual([true, false]);
    expect([same('supplier.name', 'Kelder & Søn Ltd', 'KELDER SØN LTD'), same('supplier.name', 'Kelder', 'Marrowby')]).toEqual([
      true,
      false,
    ]);
    expect([same('invoiceNumber', 'A 12/7', 'a12/7'), same('invoiceNumber', 'A12', null), same('dueDate', null, null)]).toEqual([
      true,
      false,
      true,
    ]);
  });
  it('counts header, rows and values; what is right has no faults that matter', () => {
    const s = scored(sample, reading);
    expect(s.header.all).toBe(13);
    expect([s.rows.wanted, s.rows.said]).toEqual([sample.truth.lines.length, reading.lines.length]);
    if (s.right) expect(s.rows.right).toBe(s.rows.wanted);
  });
  it('a wrong number is a fault, flagged or silent, and the document is not right', () => {
    const wrong = { ...reading, header: { ...reading.header, invoiceNumber: { value: 'X', mark: null, confidence: 1, proof: null } } };
    const silent = scored(sample, { ...wrong, flags: [] }),
      flagged = scored(sample, { ...wrong, flags: ['invoiceNumber'] });
    expect([silent.right, silent.faults.some((f) => f.path === 'invoiceNumber' && !f.flagged)]).toEqual([false, true]);
    expect(flagged.faults.find((f) => f.path === 'invoiceNumber')!.flagged).toBe(true);
    expect(flagged.silent).toBe(silent.silent - 1);
  });
  it('one line too few or too many costs that line', () => {
    const less = scored(sample, { ...reading, lines: reading.lines.slice(1) });
    expect(less.faults.filter((f) => f.path === 'lines')).toHaveLength(1);
    const more = scored(sample, {
      ...reading,
      lines: [
        ...reading.lines,
        { ...reading.lines[0]!, amount: { value: '9.99', mark: null, confidence: 1, proof: null }, description: null, quantity: null },
      ],
    });
    expect(more.faults.filter((f) => /^lines\[\d+\]$/.test(f.path))).toHaveLength(1);
  });
});

describe('measuring with families left out', () => {
  it('a family is dealt by its name alone', () => {
    const parts = Array.from({ length: 200 }, (_, i) => foldOf(`family ${i}`, 4));
    expect(parts).toEqual(Array.from({ length: 200 }, (_, i) => foldOf(`family ${i}`, 4)));
    for (const k of [0, 1, 2, 3]) expect(parts.filter((p) => p === k).length).toBeGreaterThan(25);
  });
  it('shares of right ones rise with what was said, and none is certain', () => {
    const judged = Array.from({ length: 400 }, (_, i) => ({ share: i / 400, right: i % 400 > 80 + ((i * 37) % 200) }));
    const steps = pooled(judged).map(([, right]) => right);
    expect(steps).toEqual([...steps].sort((a, b) => a - b));
    expect(Math.max(...steps)).toBeLessThanOrEqual(0.995);
  });
  it('what was said with one share stands together, and few values do not make a step', () =>
    fc.assert(
      fc.property(
        fc.array(fc.record({ share: fc.constantFrom(0.3, 0.5, 0.75, 0.9, 0.99), right: fc.boolean() }), { minLength: 1, maxLength: 300 }),
        (judged) => {
          const steps = pooled(judged),
            upTo = steps.map(([s]) => s);
          expect(upTo).toEqual([...new Set(upTo)].sort((a, b) => a - b));
          expect(upTo.at(-1)).toBe(Math.max(...judged.map((j) => j.share)));
          let from = 0;
          for (const [to, right] of steps) {
            const own = judged.filter((j) => j.share > from && j.share <= to);
            if (steps.length > 1) expect(own.length).toBeGreaterThanOrEqual(12);
            expect(right).toBeCloseTo(Math.min(0.995, (own.filter((j) => j.right).length + 0.3) / (own.length + 1)), 2);
            from = to;
          }
        },
      ),
    ));
  it('of lines those count that are said in the end, each cell by itself', () => {
    const raw = readDocument(sample.pages, { raw: true });
    const fields = (of: ReturnType<typeof measured>) => new Set(of.map((m) => m.field.split('.')[0]));
    expect(fields(measured(sample, raw, raw))).toContain('lines');
    expect(fields(measured(sample, raw, { ...raw, lines: [] }))).not.toContain('lines');
    const wrongIn = (r: Reading) => measured(sample, r, r).flatMap((m) => (m.right ? [] : [m.field]));
    const other: Reading = {
      ...raw,
      lines: raw.lines.map((l, i) => (i > 0 ? l : { ...l, unitPrice: { ...l.unitPrice!, value: '98765' } })),
    };
    expect(wrongIn(other).length).toBe(wrongIn(raw).length + 1);
    expect(wrongIn(other)).toContain('lines.unitPrice');
  });
});
