import { describe, expect, it } from 'vitest';
import { denseShares } from '../../core/reading/learned/dense.ts';
import { Features } from '../../core/reading/learned/features.ts';
import { tasksOf } from './head.ts';
import { learnDense } from './network.ts';
import { learn, learnTags } from './optimise.ts';
import { itemExamples, rowExamples, tell, totalExamples } from './rows.ts';
import { familyOf, madeSamples } from './samples.ts';
import { similarity } from './similarity.ts';

const features = (...names: string[]): Features => {
  const f = new Features();
  for (const name of names) f.add(name);
  return f;
};
const weightOf = (weights: Float32Array, name: string): number => weights[features(name).signs[0]!.at[0]!]!;

describe('learning', () => {
  it('finds what the right one among several has', () => {
    const choices = Array.from({ length: 12 }, (_, i) => ({
      features: [features('telling', `noise ${i % 3}`), features(`noise ${(i + 1) % 3}`), features(`noise ${(i + 2) % 3}`)],
      right: [true, false, false],
    }));
    const weights = learn(choices);
    expect(weightOf(weights, 'telling')).toBeGreaterThan(1);
    for (const n of [0, 1, 2]) expect(Math.abs(weightOf(weights, `noise ${n}`))).toBeLessThan(weightOf(weights, 'telling') / 2);
  });
  it('learns nothing where nothing is right, or everything', () => {
    const f = [features('a'), features('b')];
    const weights = learn([
      { features: f, right: [false, false] },
      { features: f, right: [true, true] },
    ]);
    expect(weights.every((w) => w === 0)).toBe(true);
  });
  it('hears what stands beside words too, for pages in words that nobody knows', () => {
    const said = () => {
      const f = features('at the top');
      f.add('left=number');
      return f;
    };
    const choices = Array.from({ length: 20 }, () => ({ features: [said(), features('below')], right: [true, false] }));
    const [heard, deaf] = [learn(choices, { unheard: 0 }), learn(choices, { unheard: 0.9 })];
    expect(weightOf(deaf, 'at the top')).toBeGreaterThan(weightOf(heard, 'at the top'));
    expect(weightOf(deaf, 'left=number')).toBeLessThan(weightOf(heard, 'left=number'));
  });
  it('tells tags apart by numbers, also where no single one tells', () => {
    const examples = Array.from({ length: 400 }, (_, i) => ({
      numbers: Float64Array.from([i % 2, (i >> 1) % 2]),
      tag: (i % 2) ^ ((i >> 1) % 2),
    }));
    const model = learnDense(examples, 2, { rounds: 80, rate: 0.02, penalty: 0.01 });
    for (const { numbers, tag } of examples.slice(0, 4)) expect(Math.exp(denseShares(model, numbers)[tag]!)).toBeGreaterThan(0.8);
  });
  it('tells tags apart', () => {
    const examples = Array.from({ length: 30 }, (_, i) => ({ features: features(`of ${i % 3}`, 'common'), tag: i % 3 }));
    const weights = learnTags(examples, 3);
    for (const tag of [0, 1, 2])
      expect(weights.map((w) => weightOf(w, `of ${tag}`)).indexOf(Math.max(...weights.map((w) => weightOf(w, `of ${tag}`))))).toBe(tag);
  });
});

describe('samples', () => {
  it('scans, credit notes and wrong sums belong to the family that they name', () =>
    expect(['bees-1', 'scan-bees-2', 'credit-bees', 'badsum-bees', 'jspdf-brim-gbp', 'tex-simple-oak'].map(familyOf)).toEqual([
      'bees',
      'bees',
      'bees',
      'bees',
      'jspdf',
      'tex-simple',
    ]));
  it('of the maker tell where their lines stand: as many as the truth has, each with its amount', () => {
    const told = madeSamples(12).flatMap((s) => tell(s) ?? []);
    expect(told.length).toBeGreaterThan(8);
    for (const t of told) {
      expect(t.tags.filter((tag) => tag === 'line')).toHaveLength(t.sample.truth.lines.length);
      for (const [i, line] of t.lines.entries()) {
        const amount = [...line.items].find(([, tag]) => tag === 'amount')![0];
        expect(Math.abs(Number(amount.figure!.value))).toBe(Math.abs(Number(t.sample.truth.lines[i]!.amount)));
      }
      expect(rowExamples(t)).toHaveLength(t.rows.length);
      expect(itemExamples(t).length).toBeGreaterThan(0);
      expect(totalExamples(t).some((e) => e.tag !== 0)).toBe(true);
    }
  });
  it('give each role a choice of which the truth is one', () => {
    const tasks = tasksOf(madeSamples(6));
    for (const task of tasks.invoiceNumber)
      expect(task.choice.right.filter((_, i) => task.values[i] === task.truth).every(Boolean)).toBe(true);
    expect(tasks.supplierName).toHaveLength(2 * tasks.invoiceNumber.length);
  });
  it('likeness is of letters, not of signs and case', () =>
    expect([similarity('Kelder & Søn, Ltd.', 'KELDER søn ltd'), similarity('abc', 'xyz'), similarity('', 'x')]).toEqual([1, 0, 0]));
});
