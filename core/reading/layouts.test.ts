import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { make } from '../../bench/reading/draw.ts';
import { rough } from '../../bench/reading/rough.ts';
import { same, score } from '../../bench/reading/score.ts';
import { calibrated } from './calibration.ts';
import { measured } from './measured.ts';
import { headerPaths } from './paths.ts';
import { readDocument } from './index.ts';

const seeds = (from: number, count: number) => Array.from({ length: count }, (_, i) => from + i);
const read = (m: ReturnType<typeof make>) => readDocument(m.sheet.pages());

/** Hundreds of documents are read here: on a slow machine that takes its time. */
const patient = { timeout: 120_000 };

describe('layouts that no rule has seen', patient, () => {
  it('what they print is what is read', () => {
    const s = score(seeds(800_001, 150), read);
    expect(s.headerRight / s.headerAll).toBeGreaterThan(0.99);
    expect((2 * s.rowsRight) / (s.rowsTruth + s.rowsSaid)).toBeGreaterThan(0.97);
    expect(s.right / s.documents).toBeGreaterThan(0.9);
    expect(s.silent / s.values).toBeLessThanOrEqual(0.002);
  });
  it('where labels are lost or misprinted, what is wrong is flagged', () => {
    const s = score(seeds(810_001, 120), read, rough);
    expect(s.silent / s.values).toBeLessThan(0.008);
  });
  it('whoever writes the runs, the same page is read the same', () =>
    fc.assert(
      fc.property(fc.nat(20_000), (seed) => {
        const [whole, letters] = (['cell', 'letter'] as const).map((runs) => {
          const m = make(seed);
          m.look.runs = runs;
          return readDocument(m.sheet.pages());
        });
        for (const field of ['invoiceNumber', 'issueDate', 'grossTotal', 'netTotal', 'supplierName'] as const)
          expect(same(headerPaths[field], whole!.header[field]?.value ?? null, letters!.header[field]?.value ?? null)).toBe(true);
      }),
      { numRuns: 40, seed: 7 },
    ));
  it('every value read stands on the page, under its mark', () =>
    fc.assert(
      fc.property(fc.nat(20_000), (seed) => {
        const pages = make(seed).sheet.pages(),
          { header } = readDocument(pages);
        for (const field of ['invoiceNumber', 'purchaseOrder', 'supplierIban'] as const) {
          const { value, mark } = header[field] ?? { value: '', mark: null };
          if (!mark) continue;
          const under = pages[mark.page - 1]!.words.filter(
            (w) => w.x + w.w > mark.x && w.x < mark.x + mark.w && w.y + w.h > mark.y && w.y < mark.y + mark.h,
          )
            .map((w) => w.text)
            .join('');
          expect(under.replace(/\W/g, '')).toContain(value.replace(/\W/g, ''));
        }
      }),
      { numRuns: 60, seed: 11 },
    ));
});

describe('confidence', patient, () => {
  it('rises with the rules’ own score, for every field that was measured', () => {
    for (const [field, steps] of Object.entries(measured))
      for (let i = 1; i < steps.length; i++) {
        expect(steps[i]![0], field).toBeGreaterThan(steps[i - 1]![0]);
        expect(steps[i]![1], field).toBeGreaterThanOrEqual(steps[i - 1]![1]);
      }
  });
  it('is the measured share, the highest beyond what was measured, and the raw score where nothing was', () => {
    const steps = measured['lines.quantity']!;
    expect([calibrated('lines.quantity', steps[0]![0]), calibrated('lines.quantity', 1), calibrated('nothing', 0.42)]).toEqual([
      steps[0]![1],
      steps.at(-1)![1],
      0.42,
    ]);
  });
  it('is right as often as it says, on documents that it was not measured on', () => {
    const judged = [...score(seeds(820_001, 150), read).judged, ...score(seeds(830_001, 40), read, rough).judged].filter(
      (j) => !j.path.startsWith('lines.'),
    );
    const high = judged.filter((j) => j.confidence >= 0.95);
    expect(high.filter((j) => j.right).length / high.length).toBeGreaterThan(0.98);
  });
});
